import { useVirtualizer } from '@tanstack/react-virtual'
import { type PointerEvent, useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { placeTake } from '../../app/engine/place'
import { editIn, layersChosen, shotOf, store, takeOf, useSend, useStore } from '../../app/store'
import { HEADS } from '../../app/time-scale'
import type { Layer } from '../../core/shot'
import { CommandMenu } from '../common/CommandMenu'
import { droppedFiles } from '../common/dropped-files'
import { useCalm } from '../common/use-calm'
import { useDrag } from '../common/use-drag'
import { useBringIn } from '../takes/use-bring-in'
import { type Box, BoxMark, boxBetween } from './Box'
import { MENU } from './bar-menu'
import { LaneRow, laneHeight } from './LaneRow'
import { LanesContext } from './lanes-context'
import { Playhead } from './Playhead'
import { Ruler } from './Ruler'
import { useLanesZoom } from './use-lanes-zoom'

const RULER = 26
/** Px above the first lane and below the last. */
const AIR = 4

/** Px left free below, where a box is begun or nothing is chosen. */
const FREE = 18

/** Px that all lanes take with their ruler, the open layer's rows of keys among them. */
export const lanesHeight = (layers: readonly Layer[], open: string | null): number =>
  layers.reduce((sum, layer) => sum + laneHeight(layer, layer.id === open), RULER + 2 * AIR + FREE)

/** One lane a layer, in the same order as the stack, under a ruler that moves the playhead. Only lanes in view are made. */
export function Lanes() {
  const send = useSend()
  const shot = useCalm(useStore(shotOf))
  const open = useStore(s => s.view.layer)
  const host = useRef<HTMLDivElement>(null)
  const [meeting, setMeeting] = useState<number | null>(null)
  const [box, setBox] = useState<Box | null>(null)
  const scale = useLanesZoom(host, shot?.length ?? 1)
  const bring = useBringIn()
  const shared = useMemo(() => ({ scale, showMeeting: setMeeting }), [scale])

  const layers = shot?.layers
  const lanes = useVirtualizer({
    count: layers?.length ?? 0,
    getScrollElement: () => host.current,
    getItemKey: i => layers![i]!.id,
    estimateSize: i => laneHeight(layers![i]!, layers![i]!.id === open),
    paddingStart: AIR,
    paddingEnd: AIR,
    scrollMargin: RULER,
    overscan: 1,
    useFlushSync: false,
  })
  // Lanes are as high as what is in them, which is known without measuring.
  const heights = layers?.map(layer => laneHeight(layer, layer.id === open)).join()
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it is told of is their heights
  useLayoutEffect(() => lanes.measure(), [lanes, heights])
  const tops = lanes.measurementsCache.map(({ start }) => start - RULER)

  const carried = useRef<{ gesture: string; from: number } | null>(null)
  const latest = useRef(tops)
  latest.current = tops
  const carry = useCallback(
    (id: string, dy: number, gesture: string) => {
      const all = shotOf(store.getState())?.layers ?? []
      if (carried.current?.gesture !== gesture) {
        carried.current = { gesture, from: latest.current[all.findIndex(l => l.id === id)] ?? 0 }
      }
      const at = carried.current.from + dy + 25
      const to = Math.max(
        0,
        latest.current.findLastIndex(top => top <= at),
      )
      if (all[to]?.id !== id) send(editIn(gesture, 'reorderLayer', id, to))
    },
    [send],
  )

  /** Where the pointer is among the lanes, time from the heads on. */
  const place = (x: number, y: number) => {
    const area = host.current!.getBoundingClientRect()
    return { x: x - area.left - HEADS, y: y - area.top - RULER + host.current!.scrollTop }
  }
  const boxing = useDrag<{ x: number; y: number }>({
    start: (event: PointerEvent) => (event.target === event.currentTarget ? place(event.clientX, event.clientY) : null),
    move(from, { x, y }) {
      const next = boxBetween(from, place(x, y))
      setBox(next)
      const touched = (layers ?? []).filter((l, i) => {
        const top = tops[i]!
        const over = top < next.bottom && top + 48 > next.top
        return over && scale.x(l.span.from) < next.right && scale.x(l.span.to) > next.left
      })
      send(layersChosen(touched.map(l => l.id)))
    },
    end(_, moved) {
      setBox(null)
      if (!moved) send(layersChosen([]))
    },
  })

  if (!shot || !layers) return null
  return (
    <LanesContext value={shared}>
      <section
        aria-label="Lanes"
        className="relative flex h-full min-h-0 flex-col bg-ground contain-strict"
        onDragOver={event => event.preventDefault()}
        onDrop={event => {
          event.preventDefault()
          const take = takeOf(store.getState(), event.dataTransfer.getData('application/x-take'))
          const at = Math.max(0, Math.round(scale.frame(place(event.clientX, event.clientY).x)))
          if (take) placeTake(take, { at })
          else void droppedFiles(event.dataTransfer).then(files => bring(files, true))
        }}
      >
        <div ref={host} className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
          <div className="sticky top-0 z-30 h-[26px] border-b border-line bg-ground">
            <div className="absolute inset-y-0 right-0 overflow-x-clip" style={{ left: HEADS }}>
              <Ruler />
            </div>
          </div>
          <CommandMenu commands={MENU}>
            <ol
              className="relative touch-none"
              style={{ height: lanes.getTotalSize(), minHeight: `calc(100% - ${RULER + 2}px)` }}
              {...boxing}
            >
              {lanes.getVirtualItems().map(({ index, key, start }) => {
                const layer = layers[index]
                return layer && <LaneRow key={key} layer={layer} top={start - RULER} onCarry={carry} />
              })}
              {box && <BoxMark box={box} left={HEADS} />}
            </ol>
          </CommandMenu>
          {layers.length === 0 && (
            <p className="absolute top-12 text-quiet" style={{ left: HEADS + 12 }}>
              Nothing lies in this shot yet. Place a take from the left.
            </p>
          )}
        </div>
        {meeting !== null && (
          <span
            className="pointer-events-none absolute inset-y-0 z-20 w-px bg-ink/80"
            style={{ left: HEADS + scale.x(meeting) }}
            data-testid="meeting"
          />
        )}
        <Playhead />
      </section>
    </LanesContext>
  )
}
