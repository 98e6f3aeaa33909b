// What shapes inside a frame have in common.
import { carry, radians, scaleOf, turn } from '../affine'
import { carryOutlinePoint, type OutlinePoint } from '../outline'
import type { ShapeKind } from './kind'

/** A rectangle round (x, y), in px, turned clockwise by angle degrees. */
export type Frame = { x: number; y: number; width: number; height: number; angle: number }

export interface PlannedFrame<K extends string> {
  kind: K
  x: number
  y: number
  halfWidth: number
  halfHeight: number
  cos: number
  sin: number
}

/** A kind of shape that fills a frame; `kernel` names what makes its rows, `points` are those of its outline about its middle. */
export const framed = <K extends string>(
  kind: K,
  name: string,
  letter: string,
  kernel: 'boxRow' | 'ovalRow',
  points: (halfWidth: number, halfHeight: number) => OutlinePoint[],
): ShapeKind<Frame, PlannedFrame<K>> => ({
  name,
  letter,
  field: 'frame',
  word: 'frame',
  make({ width, height }) {
    const side = Math.round(Math.min(width, height) / 2)
    return { x: width / 2, y: height / 2, width: side, height: side, angle: 0 }
  },
  schema: ({ px, extent, degrees, record }) => record({ x: px, y: px, width: extent, height: extent, angle: degrees }),
  carried: (frame, map) => ({
    ...frame,
    ...carry(map, frame),
    width: frame.width * scaleOf(map),
    height: frame.height * scaleOf(map),
  }),
  outlined({ x, y, width, height, angle }) {
    const a = radians(angle)
    const [cos, sin] = [Math.cos(a), Math.sin(a)]
    const map = { a: cos, b: sin, c: -sin, d: cos, x, y }
    return points(width / 2, height / 2).map(p => carryOutlinePoint(map, p))
  },
  plan(frame, to) {
    const { x, y } = carry(to, frame)
    const a = radians(frame.angle)
    const along = turn(to, { x: Math.cos(a), y: Math.sin(a) })
    const scale = scaleOf(to)
    const half = { halfWidth: (frame.width / 2) * scale, halfHeight: (frame.height / 2) * scale }
    return { kind, x, y, ...half, cos: along.x, sin: along.y }
  },
  travel: (from, to) =>
    Math.hypot(to.x - from.x, to.y - from.y) +
    Math.hypot(to.halfWidth - from.halfWidth, to.halfHeight - from.halfHeight) +
    Math.hypot(to.halfWidth, to.halfHeight) * Math.hypot(to.cos - from.cos, to.sin - from.sin),
  extent: ({ halfWidth, halfHeight }, grow) => Math.max(halfWidth, halfHeight) + Math.max(0, grow),
  open(k, { x, y: at, halfWidth, halfHeight, cos, sin }, { grow, inside, outside }, { size: { width } }) {
    const reach = Math.abs(sin) * halfWidth + Math.abs(cos) * halfHeight + Math.max(0, grow) + outside + 1
    return {
      top: Math.floor(at - reach),
      bottom: Math.ceil(at + reach) + 1,
      row: (y, out) => k[kernel](out, width, y, x, at, halfWidth, halfHeight, cos, sin, grow, inside, outside),
    }
  },
})
