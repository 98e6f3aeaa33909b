import { Trash2 } from 'lucide-react'
import { edit, editIn, shotOf, useSend, useStore } from '../../app/store'
import type { Layer } from '../../core/shot'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { ValueField } from './ValueField'

/** A layer's time, opacity and sound. */
export function LayerSettings({ layer }: { layer: Layer }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const length = layer.span.to - layer.span.from
  const shot = useStore(shotOf)
  const sounds = useStore(s => {
    const { source } = layer
    return source.kind === 'group' || s.project.present?.takes.find(t => t.digest === source.digest)?.sound !== null
  })
  return (
    <section className="grid grid-cols-2 gap-x-3 gap-y-1.5 border-t border-line px-3 py-2">
      <NumberField
        label="Begins at"
        unit="f"
        value={layer.span.from}
        min={1 - length}
        max={(shot?.length ?? 1) - 1}
        initial={0}
        disabled={readOnly}
        onChange={(from, gesture) => send(editIn(gesture, 'slideLayer', layer.id, from))}
      />
      <ValueField
        layer={layer}
        path={{ of: 'opacity' }}
        label="Opacity"
        factor={100}
        unit="%"
        min={0}
        max={100}
        initial={100}
      />
      {sounds && (
        <>
          <Toggle
            label="Sound"
            on={layer.sound.on}
            disabled={readOnly}
            onChange={on => send(edit('soundLayer', layer.id, on))}
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
        </>
      )}
      <div className="col-span-2 flex justify-end">
        <button
          type="button"
          disabled={readOnly}
          className="flex items-center gap-1 rounded-full px-2 py-0.5 text-quiet hover:bg-raised hover:text-ink"
          onClick={() => send(edit('removeLayer', layer.id))}
        >
          <Trash2 size={13} /> Delete the layer
        </button>
      </div>
    </section>
  )
}
