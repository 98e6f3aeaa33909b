import { Trash2 } from 'lucide-react'
import { removeLayers } from '../../app/commands/remove'
import { edit, sectionOpened, useSend, useStore } from '../../app/store'
import { type Layer, sourceKind, TAGS, type Tag } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { tagColour } from '../common/tags'
import { LooksSection } from './LooksSection'
import { PlaceSection } from './PlaceSection'
import { SoundSection } from './SoundSection'
import { SOURCE_VIEWS } from './source-views'
import { TimeSection } from './TimeSection'

const SECTIONS = [
  { id: 'time', name: 'Time', Section: TimeSection },
  { id: 'place', name: 'Place', Section: PlaceSection },
  { id: 'looks', name: 'Looks', Section: LooksSection },
  { id: 'sound', name: 'Sound', Section: SoundSection },
] as const

const Swatch = ({ tag }: { tag: Tag }) => (
  <span
    className={`block size-3 rounded-[3px] ${tag === 'none' ? 'border border-quiet' : ''}`}
    style={{ background: tagColour(tag) }}
  />
)

/** Everything about a layer besides its matte, a heading at a time. */
export function LayerSettings({ layer }: { layer: Layer }) {
  const send = useSend()
  const section = useStore(s => s.view.section)
  const { settings } = SOURCE_VIEWS[layer.source.kind]
  const sections = [...(settings ? [{ id: 'source', ...settings } as const] : []), ...SECTIONS].filter(
    ({ id }) => id !== 'sound' || sourceKind(layer.source).hasSound(layer.source),
  )
  const open = sections.find(({ id }) => id === section)
  const readOnly = useStore(s => s.view.readOnly)
  return (
    <section className="border-t border-line px-3 pt-1.5 pb-2">
      <div className="flex items-center gap-3">
        <div role="tablist" aria-label="Settings of the layer" className="flex items-center gap-3">
          {sections.map(({ id, name }) => (
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
        <Menu
          trigger={
            <button
              type="button"
              aria-label={layer.tag === 'none' ? 'Tag: none' : `Tag: ${layer.tag}`}
              title="Tag"
              disabled={readOnly || layer.locked}
              className="mr-1 p-1"
            >
              <Swatch tag={layer.tag} />
            </button>
          }
        >
          {TAGS.map(tag => (
            <MenuItem key={tag} onSelect={() => send(edit('tagLayers', [layer.id], tag))}>
              <Swatch tag={tag} /> {tag === 'none' ? 'No tag' : tag}
            </MenuItem>
          ))}
        </Menu>
        <IconButton
          icon={Trash2}
          size="tiny"
          label="Delete the layer"
          disabled={readOnly || layer.locked}
          onClick={() => removeLayers([layer.id])}
        />
      </div>
      {open && <open.Section layer={layer} />}
    </section>
  )
}
