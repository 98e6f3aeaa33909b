import { type Affine, type Point, radians } from '../../../core/affine'
import type { Drag } from '../../common/use-drag'
import { Handle } from '../Handle'

/** px round what is framed, and from there up to what turns it. */
const ROOM = 16
const ARM = 26

/** As a drag begins. */
interface Held<T> {
  from: T
  middle: Point
  /** Of the handle. */
  at: Point
}

export interface Turned {
  /** Clockwise, in radians. */
  angle: number
  scale: number
}

/** A map about a point: turned and enlarged. */
export function about({ x, y }: Point, { angle, scale }: Turned): Affine {
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale]
  return { a: cos, b: sin, c: -sin, d: cos, x: x - cos * x + sin * y, y: y - sin * x - cos * y }
}

interface Props<T> {
  /** What it is round, on the screen. */
  points: readonly Point[]
  middle: Point
  /** What is turned, for the words: “the chosen points”. */
  what: string
  start: () => T
  turn: (from: T, middle: Point, by: Turned, gesture: string) => void
  /** Shifts it, where it has a handle of its own for that. */
  shift?: (from: T, by: Point, gesture: string) => void
  onActive: (active: boolean) => void
}

/** A frame with what scales, turns and shifts all that is in it, about its middle. */
export function TurnFrame<T>({ points, middle, what, start, turn, shift, onActive }: Props<T>) {
  const left = Math.min(...points.map(p => p.x)) - ROOM
  const right = Math.max(...points.map(p => p.x)) + ROOM
  const top = Math.min(...points.map(p => p.y)) - ROOM
  const bottom = Math.max(...points.map(p => p.y)) + ROOM
  const hold = (x: number, y: number) => (): Held<T> => ({ from: start(), middle, at: { x, y } })
  const to = ({ at, middle: m }: Held<T>, { dx, dy }: Drag) => ({ x: at.x + dx - m.x, y: at.y + dy - m.y })
  return (
    <>
      <rect
        x={left}
        y={top}
        width={right - left}
        height={bottom - top}
        fill="none"
        stroke="currentColor"
        strokeOpacity="0.6"
        strokeDasharray="2 4"
      />
      <Handle<Held<T>>
        label={`Scale ${what}`}
        x={right}
        y={bottom}
        form="square"
        cursor="nwse-resize"
        start={hold(right, bottom)}
        move={(held, drag) => {
          const now = to(held, drag)
          const was = Math.hypot(held.at.x - held.middle.x, held.at.y - held.middle.y)
          const scale = Math.max(0.01, Math.hypot(now.x, now.y) / was)
          turn(held.from, held.middle, { angle: 0, scale }, drag.gesture)
        }}
        onActive={onActive}
      />
      <Handle<Held<T>>
        label={`Turn ${what}`}
        x={middle.x}
        y={top - ARM}
        form="disc"
        cursor="grab"
        start={hold(middle.x, top - ARM)}
        move={(held, drag) => {
          const now = to(held, drag)
          const angle = Math.atan2(now.x, -now.y)
          const step = radians(15)
          turn(
            held.from,
            held.middle,
            { angle: drag.shift ? Math.round(angle / step) * step : angle, scale: 1 },
            drag.gesture,
          )
        }}
        onActive={onActive}
      />
      {shift && (
        <Handle<T>
          label={`Move ${what}`}
          x={middle.x}
          y={middle.y}
          form="square"
          cursor="move"
          start={start}
          move={(from, { dx, dy, gesture }) => shift(from, { x: dx, y: dy }, gesture)}
          onActive={onActive}
        />
      )}
    </>
  )
}
