import { memo } from 'react'
import { useStore } from '../../app/store'
import { type Ease, easeName } from '../../core/keys'

/** The mark's form tells how the value leaves it: triangle linear, disc smooth, square hold, half a disc drawn. */
export function KeyForm({ ease }: { ease: Ease }) {
  if (ease === 'linear') return <path d="M0-5.5 5.2 4.5H-5.2z" />
  if (ease === 'hold') return <rect x="-4.5" y="-4.5" width="9" height="9" />
  if (ease === 'smooth') return <circle r="5" />
  return <path d="M-5.5 2.5A5.5 5.5 0 0 1 5.5 2.5Z" />
}

interface Props {
  name: string
  frame: number
  ease: Ease
  x: number
  /** One of those that are moved together. */
  chosen: boolean
  /** By keyboard; by hand its row sees to it, since a mark that is dragged is made anew at each frame. */
  onGo: (frame: number) => void
  onDrop: (frame: number) => void
  onStep: (frame: number, by: 1 | -1) => void
}

/** A key in its lane. */
export const KeyMark = memo(function KeyMark({ name, frame, ease, x, chosen, onGo, onDrop, onStep }: Props) {
  const here = useStore(s => s.view.frame === frame)
  return (
    <button
      type="button"
      aria-label={`Key of ${name} at frame ${frame + 1}, ${easeName(ease)}`}
      className={`absolute top-0 flex h-5 w-5 -translate-x-1/2 items-center justify-center rounded-md aria-pressed:bg-lime/25 aria-pressed:outline aria-pressed:outline-lime ${here ? 'text-lime' : 'text-ghost'}`}
      style={{ left: x }}
      aria-pressed={chosen}
      data-key={frame}
      onClick={event => event.detail === 0 && onGo(frame)}
      onKeyDown={event => {
        if (event.key === 'Delete' || event.key === 'Backspace') {
          // The same key would delete the layer.
          event.stopPropagation()
          onDrop(frame)
        }
        if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
        event.stopPropagation()
        onStep(frame, event.key === 'ArrowRight' ? 1 : -1)
      }}
    >
      <svg viewBox="-8 -8 16 16" width="16" height="16" fill="currentColor" aria-hidden="true">
        <KeyForm ease={ease} />
      </svg>
    </button>
  )
})
