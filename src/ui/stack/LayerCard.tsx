import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import {
  ChevronDown,
  ChevronRight,
  Circle,
  Eye,
  EyeOff,
  Plus,
  RectangleHorizontal,
  SeparatorVertical,
  Trash2,
} from 'lucide-react'
import { useState } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { edit, layerChosen, shotOf, useSend, useStore } from '../../app/store'
import { type Layer, SHAPE_NAMES } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { useEngine } from '../stage/engine-context'
import { PieceCard } from './PieceCard'
import { Thumbnail } from './Thumbnail'
import { ValueField } from './ValueField'

const PIECES = [
  ['edge', SeparatorVertical],
  ['box', RectangleHorizontal],
  ['oval', Circle],
] as const

function lateness({ span }: Layer): string {
  if (span.from === 0) return 'from the start'
  return span.from > 0 ? `${span.from} f late` : `${-span.from} f early`
}

function Name({ layer }: { layer: Layer }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const [typed, setTyped] = useState<string | null>(null)
  if (typed === null) {
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: renaming is also in the card's own field when opened by keyboard
      <span className="block truncate font-bold" onDoubleClick={() => !readOnly && setTyped(layer.name)}>
        {layer.name}
      </span>
    )
  }
  const commit = () => {
    if (typed.trim()) send(edit('renameLayer', layer.id, typed.trim()))
    setTyped(null)
  }
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: the person has just asked to type here
      autoFocus
      aria-label="Name of the layer"
      className="w-full rounded bg-ground px-1 font-bold"
      value={typed}
      onChange={event => setTyped(event.target.value)}
      onBlur={commit}
      onPointerDown={event => event.stopPropagation()}
      onKeyDown={event => {
        // The card's head would take these for carrying the card.
        event.stopPropagation()
        if (event.key === 'Enter') commit()
        if (event.key === 'Escape') setTyped(null)
      }}
    />
  )
}

function Matte({ layer }: { layer: Layer }) {
  const send = useSend()
  const engine = useEngine()
  const readOnly = useStore(s => s.view.readOnly)
  return (
    <section className="flex flex-col gap-1 border-t border-line px-2 py-2">
      <header className="flex items-center gap-2 px-1">
        <h3 className="flex-1 text-sm">Matte</h3>
        {layer.matte.length > 0 && (
          <Toggle
            label={layer.matteOn ? 'used' : 'taken away'}
            on={layer.matteOn}
            disabled={readOnly}
            onChange={on => send(edit('switchMatte', layer.id, on))}
          />
        )}
        <Menu trigger={<IconButton icon={Plus} label="Add a piece" size="small" disabled={readOnly || !engine} />}>
          {PIECES.map(([kind, Icon]) => {
            const { keys, run } = commandOf(kind)
            return (
              <MenuItem key={kind} keys={shownKeys(keys)} onSelect={() => engine && run(engine)}>
                <Icon size={15} /> {SHAPE_NAMES[kind]}
              </MenuItem>
            )
          })}
        </Menu>
      </header>
      {layer.matte.length === 0 ? (
        <p className="px-1 text-quiet">The whole picture shows. Add an edge, a box or an oval.</p>
      ) : (
        <ul className={`flex flex-col gap-1 ${layer.matteOn ? '' : 'opacity-50'}`}>
          {layer.matte.map(piece => (
            <PieceCard key={piece.id} layer={layer} piece={piece} />
          ))}
        </ul>
      )}
    </section>
  )
}

function Settings({ layer }: { layer: Layer }) {
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
        onChange={(from, gesture) => {
          const action = edit('slideLayer', layer.id, from)
          action.payload.gesture = gesture
          send(action)
        }}
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

/** A layer: what it contributes, and opened in place, everything about it. */
export function LayerCard({ layer }: { layer: Layer }) {
  const send = useSend()
  const chosen = useStore(s => s.view.layer === layer.id)
  const readOnly = useStore(s => s.view.readOnly)
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: layer.id,
    disabled: readOnly,
  })
  return (
    <li
      ref={setNodeRef}
      data-layer={layer.name}
      className="relative pl-5"
      style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 10 : undefined }}
    >
      <span
        className={`absolute top-[26px] left-0 size-[9px] rounded-full ${chosen ? 'bg-lime' : 'border border-quiet bg-panel'}`}
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
            onClick={() => send(layerChosen(layer.id))}
          >
            <Thumbnail layer={layer} />
            <div className="min-w-0 flex-1">
              <Name layer={layer} />
              <span className="block truncate text-quiet">
                {layer.source.kind} · {lateness(layer)}
              </span>
            </div>
          </div>
          <IconButton
            icon={layer.on ? Eye : EyeOff}
            size="small"
            label={layer.on ? `Hide ${layer.name}` : `Show ${layer.name}`}
            disabled={readOnly}
            onClick={() => send(edit('showLayer', layer.id, !layer.on))}
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
            <Settings layer={layer} />
          </>
        )}
      </div>
    </li>
  )
}
