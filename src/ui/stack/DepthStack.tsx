import { DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { restrictToFirstScrollableAncestor, restrictToVerticalAxis } from '@dnd-kit/modifiers'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { Aperture, BrickWall } from 'lucide-react'
import { useCallback, useMemo, useState } from 'react'
import { edit, shotOf, useSend, useStore } from '../../app/store'
import { AddMenu } from './AddMenu'
import { LayerCard } from './LayerCard'
import { nearestToHand } from './nearest-to-hand'

// A card that is carried past the end would make the stack longer, and scroll on for ever.
const MODIFIERS = [restrictToVerticalAxis, restrictToFirstScrollableAncestor]

/** The layers on their rail from lens to wall. */
export function DepthStack() {
  const send = useSend()
  // Told anew only when the order changes: each card looks after its own layer.
  const order = useStore(
    s =>
      shotOf(s)
        ?.layers.map(l => l.id)
        .join(' ') ?? '',
  )
  const ids = useMemo(() => order.split(' ').filter(Boolean), [order])
  const [scroller, setScroller] = useState<Element | null>(null)
  const [carried, setCarried] = useState<string | null>(null)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Enter'], cancel: ['Escape'], end: ['Enter'] },
    }),
  )
  const onDragEnd = useCallback(
    ({ active, over }: DragEndEvent) => {
      setCarried(null)
      const to = ids.indexOf(String(over?.id))
      if (over && active.id !== over.id) send(edit('reorderLayer', String(active.id), to))
    },
    [ids, send],
  )
  return (
    <section
      ref={setScroller}
      aria-label="Depth stack"
      className="flex h-full flex-col overflow-x-hidden overflow-y-auto bg-panel py-2 pl-3 [scrollbar-gutter:stable] contain-strict"
    >
      <header className="flex items-center gap-2">
        <h2 className="flex flex-1 items-center gap-2 text-sm font-normal text-quiet">
          <Aperture size={16} /> nearest the lens
        </h2>
        <AddMenu />
      </header>
      <div className="relative my-2 flex-1">
        <span className="absolute inset-y-0 left-1 w-px bg-line" />
        <DndContext
          sensors={sensors}
          collisionDetection={nearestToHand}
          modifiers={MODIFIERS}
          onDragStart={({ active }) => setCarried(String(active.id))}
          onDragCancel={() => setCarried(null)}
          onDragEnd={onDragEnd}
        >
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            <ol className="flex flex-col gap-2">
              {ids.map(id => (
                <LayerCard key={id} id={id} scroller={scroller} carried={id === carried} />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
        {ids.length === 0 && <p className="pl-5 text-quiet">No layers. Place a take from the left.</p>}
      </div>
      <h2 className="flex items-center gap-2 text-sm font-normal text-quiet">
        <BrickWall size={16} /> farthest
      </h2>
    </section>
  )
}
