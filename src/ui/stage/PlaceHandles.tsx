import type { KeyboardEvent } from 'react'
import { type Camera, editIn, store, useSend } from '../../app/store'
import { carry, carryBy, degrees, inverse, radians } from '../../core/affine'
import { sample } from '../../core/keys'
import { type Layer, newId, type Place, type Point, placeMap, type Size } from '../../core/shot'
import type { Drag } from '../common/use-drag'
import { Handle } from './Handle'
import { nearAngle, onScreen, round } from './piece-space'

interface Props {
  layer: Layer
  /** What the layer's picture lies within, in px of its own. */
  box: { left: number; top: number; width: number; height: number }
  /** Of the shot. */
  shot: Size
  frame: number
  camera: Camera
  onActive: (active: boolean) => void
  /** Lines of the shot that the layer has met, in px: shown while it is dragged. */
  onMeeting: (lines: { x: number | null; y: number | null }) => void
  /** It was pressed twice. */
  onOpen?: () => void
}

const CORNERS = [
  [0, 0, 'top left', 'nwse-resize'],
  [1, 0, 'top right', 'nesw-resize'],
  [1, 1, 'bottom right', 'nwse-resize'],
  [0, 1, 'bottom left', 'nesw-resize'],
] as const

/** Screen px within which a layer meets a line. */
const REACH = 7

/** The lines of a side that things meet: edges, middle, thirds. */
const linesOf = (side: number): number[] => [0, side / 3, side / 2, (side * 2) / 3, side]

/** How far to move so that one of some places meets one of some lines; 0 and null where none is near. */
function meet(places: readonly number[], lines: readonly number[], reach: number): { by: number; line: number | null } {
  let best: { by: number; line: number | null; off: number } = { by: 0, line: null, off: reach }
  for (const place of places) {
    for (const line of lines) {
      const off = Math.abs(line - place)
      if (off < best.off) best = { by: line - place, line, off }
    }
  }
  return { by: best.by, line: best.line }
}

/** A layer's frame on the stage: what moves, turns and scales it, and the point it turns about. */
export function PlaceHandles({ layer, box, shot, frame, camera, onActive, onMeeting, onOpen }: Props) {
  const send = useSend()
  const place = sample(layer.place, frame)
  const screen = (p: Point): Point => carry(onScreen(camera), p)
  const at = (u: number, v: number, of: Place = place) =>
    carry(placeMap(layer, of), { x: box.left + u * box.width, y: box.top + v * box.height })
  const corners = CORNERS.map(([u, v]) => screen(at(u, v)))
  const middle = screen(place)
  const change = (next: Place, gesture: string) => {
    const { keying } = store.getState().view
    send(editIn(gesture, 'setValue', layer.id, { of: 'place' }, frame, next, keying))
  }
  const quiet = () => onMeeting({ x: null, y: null })
  const move = (from: Place, drag: Drag) => {
    let next = { ...from, x: from.x + drag.dx / camera.zoom, y: from.y + drag.dy / camera.zoom }
    if (store.getState().view.snapping && !drag.ctrl) {
      const points = [...CORNERS.map(([u, v]) => at(u, v, next)), at(0.5, 0.5, next)]
      const reach = REACH / camera.zoom
      const across = meet(
        points.map(p => p.x),
        linesOf(shot.width),
        reach,
      )
      const down = meet(
        points.map(p => p.y),
        linesOf(shot.height),
        reach,
      )
      next = { ...next, x: next.x + across.by, y: next.y + down.by }
      onMeeting({ x: across.line, y: down.line })
    } else quiet()
    change({ ...next, x: round(next.x), y: round(next.y) }, drag.gesture)
  }
  const reachOf = (u: number, v: number, of: Place) => {
    const p = screen(at(u, v, of))
    const m = screen(of)
    return { x: p.x - m.x, y: p.y - m.y }
  }
  const scale = (u: number, v: number) => (from: Place, drag: Drag) => {
    const arm = reachOf(u, v, from)
    const length = Math.hypot(arm.x, arm.y)
    if (length < 1) return
    const along = ((arm.x + drag.dx) * arm.x + (arm.y + drag.dy) * arm.y) / (length * length)
    const next = Math.max(0.001, Math.min(1000, from.scale * Math.max(0.01, along)))
    change({ ...from, scale: Math.round(next * 10_000) / 10_000 }, drag.gesture)
  }
  const turn = (from: Place, drag: Drag) => {
    const arm = { x: Math.sin(radians(from.angle)) * 60, y: -Math.cos(radians(from.angle)) * 60 }
    let angle = nearAngle(degrees(Math.atan2(arm.x + drag.dx, -(arm.y + drag.dy))), from.angle)
    if (drag.shift) angle = Math.round(angle / 15) * 15
    change({ ...from, angle: round(angle) }, drag.gesture)
  }
  const anchor = (from: Point, drag: Drag) => {
    const by = carryBy(inverse(placeMap(layer, place)), { x: drag.dx / camera.zoom, y: drag.dy / camera.zoom })
    send(editIn(drag.gesture, 'setAnchor', layer.id, { x: round(from.x + by.x), y: round(from.y + by.y) }))
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
    if (!way || event.altKey || event.ctrlKey) return
    event.preventDefault()
    event.stopPropagation()
    const by = event.shiftKey ? 10 : 1
    change(
      { ...place, x: place.x + way[0]! * by, y: place.y + way[1]! * by },
      event.repeat ? `nudge ${layer.id}` : newId(),
    )
  }
  const above = { x: Math.sin(radians(place.angle)) * 60, y: -Math.cos(radians(place.angle)) * 60 }
  const outline = corners.map(p => `${p.x},${p.y}`).join(' ')
  return (
    // biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the group as a whole is what arrows move
    <g
      data-place={layer.name}
      tabIndex={0}
      role="group"
      aria-label={`Place of ${layer.name}: arrows move it`}
      onKeyDown={onKeyDown}
      onDoubleClick={onOpen}
      className="pointer-events-auto outline-none"
    >
      <Handle<{ place: Place; anchor: Point | null }>
        label="Move the layer; with Alt the point it turns about"
        x={0}
        y={0}
        form="area"
        cursor="move"
        start={event => ({ place, anchor: event.altKey ? layer.anchor : null })}
        move={(from, drag) => (from.anchor ? anchor(from.anchor, drag) : move(from.place, drag))}
        onActive={active => {
          onActive(active)
          if (!active) quiet()
        }}
      >
        <polygon points={outline} fill="transparent" stroke="#000" strokeOpacity="0.5" strokeWidth="3.5" />
        <polygon points={outline} fill="transparent" stroke="#e9e6df" strokeWidth="1.2" />
      </Handle>
      <line
        className="pointer-events-none"
        x1={middle.x}
        y1={middle.y}
        x2={middle.x + above.x}
        y2={middle.y + above.y}
        stroke="#e9e6df"
        strokeOpacity="0.7"
      />
      {CORNERS.map(([u, v, name, cursor], i) => (
        <Handle<Place>
          key={name}
          label={`Scale from the ${name}`}
          x={corners[i]!.x}
          y={corners[i]!.y}
          form="square"
          cursor={cursor}
          start={() => place}
          move={scale(u, v)}
          onActive={onActive}
        />
      ))}
      <Handle<Place>
        label="Turn the layer"
        x={middle.x + above.x}
        y={middle.y + above.y}
        form="disc"
        cursor="grab"
        start={() => place}
        move={turn}
        onActive={onActive}
      />
      <g transform={`translate(${middle.x} ${middle.y})`} className="pointer-events-none" fill="none">
        <path d="M-9 0H-3M3 0H9M0-9V-3M0 3V9" stroke="#000" strokeOpacity="0.6" strokeWidth="4" />
        <path d="M-9 0H-3M3 0H9M0-9V-3M0 3V9" stroke="#a9ecd9" strokeWidth="1.6" />
      </g>
    </g>
  )
}
