import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { restrictToVerticalAxis } from '@dnd-kit/modifiers'
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { Plus } from 'lucide-react'
import { memo } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { edit, useSend, useStore } from '../../app/store'
import { SHAPE_KINDS, SHAPES } from '../../core/shape'
import type { Layer } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { Toggle } from '../common/Toggle'
import { useEngine } from '../stage/engine-context'
import { SHAPE_VIEWS } from '../stage/shape-views'
import { nearestToHand } from './nearest-to-hand'
import { PieceCard } from './PieceCard'

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
          {SHAPE_KINDS.map(kind => {
            const { keys, run } = commandOf(kind)
            const { icon: Icon } = SHAPE_VIEWS[kind]
            return (
              <MenuItem key={kind} keys={shownKeys(keys)} onSelect={() => engine && run(engine)}>
                <Icon size={15} /> {SHAPES[kind].name}
              </MenuItem>
            )
          })}
        </Menu>
      </header>
      {layer.matte.length === 0 ? (
        <p className="px-1 text-quiet">The whole picture shows. Add an edge, a box or an oval.</p>
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
