import { Hand, MousePointer2 } from 'lucide-react'
import { memo } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { chosenLayer, useStore } from '../../app/store'
import { SHAPE_KINDS } from '../../core/shape'
import { IconButton } from '../common/Button'
import { useEngine } from './engine-context'
import { SHAPE_VIEWS } from './shape-views'

/** What the pointer does on the picture, and the pieces that can be laid on it. */
export const Tools = memo(function Tools({ hand, onHand }: { hand: boolean; onHand: (on: boolean) => void }) {
  const engine = useEngine()
  const layer = useStore(s => chosenLayer(s)?.name)
  const readOnly = useStore(s => s.view.readOnly || s.view.take !== null)
  return (
    <div
      role="toolbar"
      aria-label="Tools"
      aria-orientation="vertical"
      className="absolute top-1/2 left-3 flex -translate-y-1/2 flex-col gap-1 rounded-full bg-panel p-1 shadow-lg shadow-black/40"
    >
      <IconButton
        icon={MousePointer2}
        label="Take hold of handles"
        size="large"
        pressed={!hand}
        onClick={() => onHand(false)}
      />
      <IconButton
        icon={Hand}
        label="Move the picture (or hold space)"
        size="large"
        pressed={hand}
        onClick={() => onHand(true)}
      />
      <hr className="mx-2 my-1 border-line" />
      {SHAPE_KINDS.map(kind => {
        const command = commandOf(kind)
        return (
          <IconButton
            key={kind}
            icon={SHAPE_VIEWS[kind].icon}
            label={layer !== undefined ? `${command.name} on ${layer}` : `${command.name}: choose a layer first`}
            keys={shownKeys(command.keys)}
            size="large"
            disabled={layer === undefined || !engine || readOnly}
            onClick={() => engine && command.run(engine)}
          />
        )
      })}
    </div>
  )
})
