import { Eye, EyeOff, GripVertical, Lock, LockOpen, type LucideIcon, Volume2, VolumeX } from 'lucide-react'
import { memo } from 'react'
import { aloneToggled, edit, layerChosen, useSend, useStore } from '../../app/store'
import { HEADS } from '../../app/time-scale'
import { type Layer, sourceKind } from '../../core/shot'
import { type Drag, useDrag } from '../common/use-drag'
import { BAR } from './Bar'

interface Props {
  layer: Layer
  /** Carries the layer to another depth: px up or down from where it was. */
  onCarry: (layer: string, dy: number, gesture: string) => void
}

const TINY = 'inline-flex size-5 shrink-0 items-center justify-center rounded-full hover:bg-raised'

interface SwitchProps {
  icon: LucideIcon
  label: string
  tone?: string
  disabled: boolean
  onClick: () => void
}

/** A small round button with a plain tip: there are hundreds of them. */
function Switch({ icon: Icon, label, tone = 'text-ink', disabled, onClick }: SwitchProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
      className={`${TINY} ${tone}`}
    >
      <Icon size={13} strokeWidth={1.8} />
    </button>
  )
}

/** Whether a layer counts, and what moves it in depth. */
export const LaneHead = memo(function LaneHead({ layer, onCarry }: Props) {
  const send = useSend()
  const alone = useStore(s => s.view.alone.includes(layer.id))
  const chosen = useStore(s => s.view.layer === layer.id)
  const readOnly = useStore(s => s.view.readOnly)
  const carry = useDrag<string>({
    start: event => ((event.target as Element).closest('button') || readOnly ? null : layer.id),
    move: (id, { dy, gesture }: Drag) => onCarry(id, dy, gesture),
    end: (id, moved) => {
      if (!moved) send(layerChosen(id))
    },
  })
  const hasSound = sourceKind(layer.source).hasSound(layer.source)
  return (
    <div
      className="absolute left-0 flex cursor-grab touch-none items-center gap-0.5 pr-1.5 pl-1"
      style={{ width: HEADS, height: BAR + 4 }}
      data-head={layer.name}
      title={`${layer.name}: drag to another depth`}
      {...carry}
    >
      <GripVertical size={13} className={`mr-auto shrink-0 ${chosen ? 'text-lime' : 'text-quiet'}`} />
      <Switch
        icon={layer.on ? Eye : EyeOff}
        label={layer.on ? `Hide ${layer.name}` : `Show ${layer.name}`}
        disabled={readOnly || layer.locked}
        onClick={() => send(edit('showLayers', [layer.id], !layer.on))}
      />
      {hasSound && (
        <Switch
          icon={layer.sound.on ? Volume2 : VolumeX}
          label={layer.sound.on ? `Mute ${layer.name}` : `Let ${layer.name} sound`}
          disabled={readOnly || layer.locked}
          onClick={() => send(edit('soundLayers', [layer.id], !layer.sound.on))}
        />
      )}
      <button
        type="button"
        aria-label={`${layer.name} alone`}
        title={alone ? `${layer.name} with the rest` : `${layer.name} alone`}
        aria-pressed={alone}
        onClick={() => send(aloneToggled([layer.id]))}
        className={TINY}
      >
        <span className={`size-2.5 rounded-full ${alone ? 'bg-lime' : 'border border-quiet'}`} />
      </button>
      <Switch
        icon={layer.locked ? Lock : LockOpen}
        label={layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`}
        tone={layer.locked ? 'text-warn' : 'text-quiet'}
        disabled={readOnly}
        onClick={() => send(edit('lockLayers', [layer.id], !layer.locked))}
      />
    </div>
  )
})
