import { edit, editIn, useSend, useStore } from '../../app/store'
import { type Layer, sourceKind } from '../../core/shot'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { CommandButton } from './CommandButton'
import { ValueField } from './ValueField'

/** What is heard of a layer. */
export function SoundSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const { source } = layer
  const heard = useStore(s => sourceKind(source).hasSound(source, s.project.present?.takes ?? []))
  const fixed = readOnly || layer.locked
  if (!heard) return <p className="pt-2 text-xs text-quiet">There is no sound in this layer.</p>
  const fade = (label: string, side: 'in' | 'out') => (
    <NumberField
      label={label}
      unit="f"
      value={layer.sound.fade[side]}
      min={0}
      initial={0}
      disabled={fixed}
      onChange={(frames, gesture) => send(editIn(gesture, 'setFade', layer.id, 'sound', { [side]: frames }))}
    />
  )
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1.5 pt-2">
      <Toggle
        label="Sound"
        on={layer.sound.on}
        disabled={fixed}
        onChange={on => send(edit('soundLayers', [layer.id], on))}
      />
      <ValueField
        layer={layer}
        path={{ of: 'gain' }}
        label="Gain"
        factor={100}
        unit="%"
        min={0}
        max={400}
        initial={100}
      />
      {fade('Comes in', 'in')}
      {fade('Goes out', 'out')}
      {layer.timing.kind === 'freeze' && <p className="col-span-2 text-xs text-quiet">A frozen layer is silent.</p>}
      <div className="col-span-2 flex gap-1 pt-1">
        <CommandButton id="detach">Detach</CommandButton>
        <CommandButton id="drop-sound">Drop</CommandButton>
      </div>
    </div>
  )
}
