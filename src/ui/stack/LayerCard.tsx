import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { ChevronDown, ChevronRight, Eye, EyeOff } from 'lucide-react'
import { memo } from 'react'
import { useInView } from 'react-intersection-observer'
import { edit, layerChosen, layerOf, layerToggled, useSend, useStore } from '../../app/store'
import { type Layer, sourceKind } from '../../core/shot'
import { IconButton } from '../common/Button'
import { useCalm } from '../common/use-calm'
import { LayerName } from './LayerName'
import { LayerSettings } from './LayerSettings'
import { Matte } from './Matte'
import { Thumbnail } from './Thumbnail'

function lateness({ span }: Layer): string {
  if (span.from === 0) return 'from the start'
  return span.from > 0 ? `${span.from} f late` : `${-span.from} f early`
}

interface PlaceProps {
  id: string
  scroller: Element | null
  /** Whether a hand carries the card, maybe far from its place. */
  carried: boolean
}

/** A layer's place in the stack. Its card is made while it is in sight, open or carried: a shot may have hundreds. */
export const LayerCard = memo(function LayerCard({ id, scroller, carried }: PlaceProps) {
  const layer = useCalm(useStore(s => layerOf(s, id)))
  const chosen = useStore(s => s.view.layer === id)
  const { ref, inView } = useInView({ root: scroller, rootMargin: '120px 0px' })
  if (!layer) return null
  return (
    <li ref={ref} data-layer={layer.name} className="min-h-[55px] pl-5">
      {(inView || chosen || carried) && <Card layer={layer} chosen={chosen} />}
    </li>
  )
})

/** A layer: what it contributes, and opened in place, everything about it. */
const Card = memo(function Card({ layer, chosen }: { layer: Layer; chosen: boolean }) {
  const send = useSend()
  const among = useStore(s => s.view.others.includes(layer.id))
  const readOnly = useStore(s => s.view.readOnly)
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: layer.id,
    disabled: readOnly,
  })
  return (
    <div
      ref={setNodeRef}
      className="relative"
      style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 10 : undefined }}
    >
      <span
        className={`absolute top-[26px] -left-5 size-[9px] rounded-full ${chosen ? 'bg-lime' : among ? 'border-2 border-lime bg-panel' : 'border border-quiet bg-panel'}`}
      />
      <div
        className={`rounded-xl bg-card ${chosen ? 'outline-2 outline-lime/60' : ''} ${isDragging ? 'shadow-2xl shadow-black' : ''}`}
      >
        <div className="flex items-center gap-2 p-1.5">
          {/* The whole head carries the card to another depth; a press without movement chooses it. */}
          {/* biome-ignore lint/a11y/noStaticElementInteractions: the library gives it its role */}
          {/* biome-ignore lint/a11y/useAriaPropsSupportedByRole: the library gives it its role */}
          {/* biome-ignore lint/a11y/useKeyWithClickEvents: the chevron beside it chooses by keyboard */}
          <div
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            aria-label={`${layer.name}: choose, or drag to another depth`}
            className="flex min-w-0 flex-1 cursor-grab touch-none items-center gap-2 rounded-lg"
            onClick={event => send(event.ctrlKey || event.metaKey ? layerToggled(layer.id) : layerChosen(layer.id))}
          >
            <Thumbnail layer={layer} />
            <div className="min-w-0 flex-1">
              <LayerName layer={layer} />
              <span className="block truncate text-quiet">
                {sourceKind(layer.source).name} · {lateness(layer)}
              </span>
            </div>
          </div>
          <IconButton
            icon={layer.on ? Eye : EyeOff}
            size="small"
            label={layer.on ? `Hide ${layer.name}` : `Show ${layer.name}`}
            disabled={readOnly}
            onClick={() => send(edit('showLayers', [layer.id], !layer.on))}
          />
          <IconButton
            icon={chosen ? ChevronDown : ChevronRight}
            size="small"
            label={chosen ? `Fold ${layer.name}` : `Open ${layer.name}`}
            aria-expanded={chosen}
            onClick={() => send(layerChosen(chosen ? null : layer.id))}
          />
        </div>
        {chosen && (
          <>
            <Matte layer={layer} />
            <LayerSettings layer={layer} />
          </>
        )}
      </div>
    </div>
  )
})
