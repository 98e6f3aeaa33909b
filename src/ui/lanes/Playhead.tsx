import { stagedFrame, useStore } from '../../app/store'
import { HEADS } from '../../app/time-scale'
import { Ghost } from '../common/Ghost'
import { useLanes } from './lanes-context'

/** The line of the present, headed by the house's ghost. */
export function Playhead() {
  const { scale } = useLanes()
  const x = useStore(s => scale.x(stagedFrame(s)))
  if (x < -1 || x > scale.width) return null
  return (
    <div
      className="pointer-events-none absolute inset-y-0 z-40 w-px bg-lime"
      style={{ left: HEADS + x }}
      data-testid="playhead"
    >
      <Ghost size={16} className="absolute -top-0.5 -left-[7.5px] text-lime" />
    </div>
  )
}
