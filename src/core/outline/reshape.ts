// What a hand does to the points of an outline as it is at one frame.
import type { Point } from '../affine'
import type { OutlinePoint } from './point'

export type Side = 'in' | 'out'

const OTHER = { in: 'out', out: 'in' } as const

/** Where a point's handle on one side ends, told from the point. */
export const handleOf = (p: OutlinePoint, side: Side): Point =>
  side === 'in' ? { x: p.inX, y: p.inY } : { x: p.outX, y: p.outY }

const withHandle = (p: OutlinePoint, side: Side, { x, y }: Point): OutlinePoint =>
  side === 'in' ? { ...p, inX: x, inY: y } : { ...p, outX: x, outY: y }

const size = ({ x, y }: Point): number => Math.hypot(x, y)

/** Sine of the angle up to which two handles count as lying in one line. */
const IN_LINE = 0.02

/** Whether the outline goes straight on at a point that has both handles: then they turn together. */
export function isSmooth(p: OutlinePoint): boolean {
  const [a, b] = [handleOf(p, 'in'), handleOf(p, 'out')]
  const both = size(a) * size(b)
  return both > 1e-9 && a.x * b.x + a.y * b.y < 0 && Math.abs(a.x * b.y - a.y * b.x) < IN_LINE * both
}

/** Chosen points, shifted. */
export const movePoints = (points: readonly OutlinePoint[], chosen: readonly number[], by: Point): OutlinePoint[] =>
  points.map((p, i) => (chosen.includes(i) ? { ...p, x: p.x + by.x, y: p.y + by.y } : p))

/** Brings the end of a handle somewhere, told from its point. The one across from it turns with it where the point is smooth, unless they are to part. */
export function moveHandle(
  points: readonly OutlinePoint[],
  i: number,
  side: Side,
  to: Point,
  part: boolean,
): OutlinePoint[] {
  return points.map((p, j) => {
    if (j !== i) return p
    const moved = withHandle(p, side, to)
    if (part || !isSmooth(p) || size(to) < 1e-9) return moved
    const across = size(handleOf(p, OTHER[side])) / size(to)
    return withHandle(moved, OTHER[side], { x: -to.x * across, y: -to.y * across })
  })
}

/** A share of the way to a neighbour that a new handle takes. */
const THIRD = 1 / 3

/** A smooth point becomes a corner; a corner gets handles along the line between its neighbours. */
export function toggleSmooth(
  points: readonly OutlinePoint[],
  chosen: readonly number[],
  isOpen = false,
): OutlinePoint[] {
  const count = points.length
  return points.map((p, i) => {
    if (!chosen.includes(i) || count < 2) return p
    if (size(handleOf(p, 'in')) + size(handleOf(p, 'out')) > 1e-9) return { ...p, inX: 0, inY: 0, outX: 0, outY: 0 }
    // The ends of a line that does not close have one neighbour.
    const before = isOpen && i === 0 ? p : points[(i + count - 1) % count]!
    const after = isOpen && i === count - 1 ? p : points[(i + 1) % count]!
    const [dx, dy] = [after.x - before.x, after.y - before.y]
    const length = Math.hypot(dx, dy)
    if (length < 1e-9) return p
    const back = (THIRD * Math.hypot(p.x - before.x, p.y - before.y)) / length
    const on = (THIRD * Math.hypot(after.x - p.x, after.y - p.y)) / length
    return { ...p, inX: -dx * back, inY: -dy * back, outX: dx * on, outY: dy * on }
  })
}

/** The middle of what chosen points lie within. */
export function middleOf(points: readonly OutlinePoint[], chosen: readonly number[]): Point {
  const of = chosen.flatMap(i => points[i] ?? [])
  const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2
  return of.length > 0 ? { x: middle(of.map(p => p.x)), y: middle(of.map(p => p.y)) } : { x: 0, y: 0 }
}
