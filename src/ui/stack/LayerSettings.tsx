import { Trash2 } from 'lucide-react'
import { edit, sectionOpened, useSend, useStore } from '../../app/store'
import { type Layer, TAGS } from '../../core/shot'
import { IconButton } from '../common/Button'
import { tagColour } from '../common/tags'
import { PlaceSection } from './PlaceSection'
import { SoundSection } from './SoundSection'
import { TimeSection } from './TimeSection'

const SECTIONS = [
  ['time', 'Time'],
  ['place', 'Place'],
  ['sound', 'Sound'],
] as const

/** Everything about a layer besides its matte, a heading at a time. */
export function LayerSettings({ layer }: { layer: Layer }) {
  const send = useSend()
  const section = useStore(s => s.view.section)
  const readOnly = useStore(s => s.view.readOnly)
  return (
    <section className="border-t border-line px-3 pt-1.5 pb-2">
      <div className="flex items-center gap-3">
        <div role="tablist" aria-label="Settings of the layer" className="flex items-center gap-3">
          {SECTIONS.map(([id, name]) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={section === id}
              onClick={() => send(sectionOpened(section === id ? null : id))}
              className="border-b-2 border-transparent py-0.5 font-display text-sm text-quiet hover:text-ink aria-selected:border-lime aria-selected:text-ink"
            >
              {name}
            </button>
          ))}
        </div>
        <span className="flex-1" />
        <span role="radiogroup" aria-label="Tag" className="mr-1 flex items-center gap-[3px]">
          {TAGS.map(tag => (
            <button
              key={tag}
              type="button"
              role="radio"
              aria-checked={layer.tag === tag}
              aria-label={tag === 'none' ? 'No tag' : `Tag ${tag}`}
              title={tag === 'none' ? 'No tag' : tag}
              disabled={readOnly || layer.locked}
              onClick={() => send(edit('tagLayers', [layer.id], tag))}
              className={`size-2.5 rounded-[3px] ${tag === 'none' ? 'border border-quiet' : ''} ${layer.tag === tag ? 'outline-1 outline-offset-1 outline-ink' : ''}`}
              style={{ background: tagColour(tag) }}
            />
          ))}
        </span>
        <IconButton
          icon={Trash2}
          size="tiny"
          label="Delete the layer"
          disabled={readOnly || layer.locked}
          onClick={() => send(edit('removeLayers', [layer.id]))}
        />
      </div>
      {section === 'time' && <TimeSection layer={layer} />}
      {section === 'place' && <PlaceSection layer={layer} />}
      {section === 'sound' && <SoundSection layer={layer} />}
    </section>
  )
}
