// One side of a straight line.
import { carry, radians, turn } from '../affine'
import { corner } from '../outline'
import type { ShapeKind } from './kind'

/** A line through (x, y) in px, turned by angle degrees from upright; at 0 it keeps what is right of it. */
export type Line = { x: number; y: number; angle: number }

/** The normal is of unit length and points to what is kept. */
export interface PlannedEdge {
  kind: 'edge'
  x: number
  y: number
  nx: number
  ny: number
}

/** px from the point of an edge to its end in a picture, as a rule. */
const LONG = 1000

export const EDGE: ShapeKind<Line, PlannedEdge> = {
  name: 'Edge',
  letter: 'e',
  field: 'line',
  word: 'line',
  make: ({ width, height }) => ({ x: width / 2, y: height / 2, angle: 0 }),
  schema: ({ px, degrees, record }) => record({ x: px, y: px, angle: degrees }),
  carried: (line, map) => ({ ...line, ...carry(map, line) }),
  outlined(line, { width, height }) {
    const a = radians(line.angle)
    // As far as any picture needs: the side that is kept.
    const far = 2 * (width + height)
    const at = (along: number, kept: number) =>
      corner({
        x: line.x + far * (kept * Math.cos(a) - along * Math.sin(a)),
        y: line.y + far * (kept * Math.sin(a) + along * Math.cos(a)),
      })
    return [at(-1, 0), at(-1, 1), at(1, 1), at(1, 0)]
  },
  plan(line, to) {
    const { x, y } = carry(to, line)
    const a = radians(line.angle)
    const along = turn(to, { x: Math.cos(a), y: Math.sin(a) })
    return { kind: 'edge', x, y, nx: along.x, ny: along.y }
  },
  // As far as the largest picture reaches it turns about its point.
  travel: (from, to) =>
    Math.abs((to.x - from.x) * from.nx + (to.y - from.y) * from.ny) +
    LONG * Math.hypot(to.nx - from.nx, to.ny - from.ny),
  extent: () => Number.POSITIVE_INFINITY,
  open: (k, { x, y: at, nx, ny }, { grow, inside, outside }, { size: { width } }) => ({
    top: Number.NEGATIVE_INFINITY,
    bottom: Number.POSITIVE_INFINITY,
    row: (y, out) => k.edgeRow(out, width, y, x, at, nx, ny, grow, inside, outside),
  }),
}
