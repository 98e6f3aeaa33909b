import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { restrictToVerticalAxis } from '@dnd-kit/modifiers'
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { Plus } from 'lucide-react'
import { memo, useState } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { placeMatte } from '../../app/engine/place'
import { edit, projectOf, useSend, useStore } from '../../app/store'
import { SHAPE_KINDS, SHAPES } from '../../core/shape'
import type { Layer } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { Toggle } from '../common/Toggle'
import { useEngine } from '../stage/engine-context'
import { SHAPE_VIEWS } from '../stage/shape-views'
import { EmptyMatte } from './EmptyMatte'
import { KeptPieces } from './KeptPieces'
import { nearestToHand } from './nearest-to-hand'
import { PieceCard } from './PieceCard'

/** What a take is called while it is dragged. */
const TAKE = 'application/x-take'
const MODIFIERS = [restrictToVerticalAxis]

/** A layer changes with every frame of a drag; its matte as a rule does not. */
const sameMatte = ({ layer: a }: { layer: Layer }, { layer: b }: { layer: Layer }): boolean =>
  a.id === b.id && a.matte === b.matte && a.matteOn === b.matteOn && a.locked === b.locked && a.source === b.source

/** The pieces of a layer's matte, and whether it is used. */
export const Matte = memo(function Matte({ layer }: { layer: Layer }) {
  const send = useSend()
  const engine = useEngine()
  // By keyboard a piece is brought elsewhere from the list of commands.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }))
  const readOnly = useStore(s => s.view.readOnly)
  const takes = useStore(s => projectOf(s)?.takes)
  const films = takes?.filter(t => t.picture !== null) ?? []
  const [isOver, setOver] = useState(false)
  return (
    <section
      aria-label="Matte"
      className={`flex flex-col gap-1 border-t border-line px-2 py-2 ${isOver ? 'bg-ghost/10' : ''}`}
      onDragOver={event => {
        if (readOnly || !event.dataTransfer.types.includes(TAKE)) return
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={event => {
        setOver(false)
        const take = films.find(t => t.digest === event.dataTransfer.getData(TAKE))
        if (!take || readOnly) return
        event.preventDefault()
        event.stopPropagation()
        placeMatte(take, layer)
      }}
    >
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
          {SHAPE_KINDS.map(kind => {
            const { keys, run } = commandOf(kind)
            const { icon: Icon } = SHAPE_VIEWS[kind]
            return (
              <MenuItem key={kind} keys={shownKeys(keys)} onSelect={() => engine && run(engine)}>
                <Icon size={15} /> {SHAPES[kind].name}
              </MenuItem>
            )
          })}
          <KeptPieces layer={layer} />
          {films.length > 0 && <p className="px-2.5 pt-1.5 pb-0.5 text-xs text-quiet">A take, as bright as it is</p>}
          {films.map(take => (
            <MenuItem key={take.digest} onSelect={() => placeMatte(take, layer)}>
              <span className="max-w-56 truncate">{take.name}</span>
            </MenuItem>
          ))}
        </Menu>
      </header>
      {layer.matte.length === 0 ? (
        <EmptyMatte layer={layer} />
      ) : (
        <DndContext
          sensors={sensors}
          collisionDetection={nearestToHand}
          modifiers={MODIFIERS}
          onDragEnd={({ active, over }) => {
            const to = layer.matte.findIndex(p => p.id === over?.id)
            if (over && active.id !== over.id) send(edit('reorderPiece', layer.id, String(active.id), to))
          }}
        >
          <SortableContext items={layer.matte} strategy={verticalListSortingStrategy}>
            <ul className={`flex flex-col gap-1 ${layer.matteOn ? '' : 'opacity-50'}`}>
              {layer.matte.map(piece => (
                <PieceCard key={piece.id} layer={layer} piece={piece} />
              ))}
            </ul>
          </SortableContext>
        </DndContext>
      )}
    </section>
  )
}, sameMatte)
