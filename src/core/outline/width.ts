// How wide a strip is at its points, and how soft an outline.
import type { Point } from '../affine'
import type { Breadth, OutlinePoint } from './point'

/** px that a border is told from its point at least, so that a hand can get at it. */
const NEAR = 9

/** Which way a line goes at a point of it, of length 1. */
function wayAt(points: readonly OutlinePoint[], i: number): Point {
  const p = points[i]!
  const [before, after] = [points[i - 1], points[i + 1]]
  const ways = [
    { x: p.outX - p.inX, y: p.outY - p.inY },
    { x: (after ?? p).x - (before ?? p).x, y: (after ?? p).y - (before ?? p).y },
  ]
  const way = ways.find(({ x, y }) => Math.hypot(x, y) > 1e-6) ?? { x: 1, y: 0 }
  const length = Math.hypot(way.x, way.y)
  return { x: way.x / length, y: way.y / length }
}

/** What of a point is shown by a border: nothing where a strip's width is meant and it has none. */
const breadthOf = (p: OutlinePoint | undefined, of: Breadth): number | undefined =>
  of === 'soft' ? p && (p.soft ?? 0) : p?.width

/** Where the border of a strip, or of what an outline is softer, lies beside a point, on one side of it; null where there is none. In px of the screen. */
export function borderOf(
  points: readonly OutlinePoint[],
  i: number,
  side: 1 | -1,
  of: Breadth,
  least = NEAR,
): Point | null {
  const p = points[i]
  const breadth = breadthOf(p, of)
  if (!p || breadth === undefined) return null
  const { x, y } = wayAt(points, i)
  const far = side * Math.max(least, breadth / 2)
  return { x: p.x - y * far, y: p.y + x * far }
}

/** Chosen points with more or less of a breadth. */
export const widenPoints = (
  points: readonly OutlinePoint[],
  chosen: readonly number[],
  by: number,
  of: Breadth,
): OutlinePoint[] =>
  points.map((p, i) => {
    const breadth = chosen.includes(i) ? breadthOf(p, of) : undefined
    return breadth === undefined ? p : { ...p, [of]: Math.max(0, breadth + by) }
  })

/** How much softer an outline is i + t points along it: it goes over from point to point without a bend. */
export function softAlong(points: readonly OutlinePoint[], along: number): number {
  const i = Math.min(points.length - 1, Math.floor(along))
  const [from, to] = [points[i]!.soft ?? 0, points[(i + 1) % points.length]!.soft ?? 0]
  const t = along - i
  return from + (to - from) * t * t * (3 - 2 * t)
}
