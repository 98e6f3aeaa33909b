// How wide a strip is at its points.
import type { Point } from '../affine'
import type { OutlinePoint } from './point'

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

/** Where the border of a strip lies beside a point, on one side of it; null where there is no width. In px of the screen. */
export function borderOf(points: readonly OutlinePoint[], i: number, side: 1 | -1, least = NEAR): Point | null {
  const p = points[i]
  if (p?.width === undefined) return null
  const { x, y } = wayAt(points, i)
  const far = side * Math.max(least, p.width / 2)
  return { x: p.x - y * far, y: p.y + x * far }
}

/** Chosen points of a strip, wider or narrower by as much. */
export const widenPoints = (points: readonly OutlinePoint[], chosen: readonly number[], by: number): OutlinePoint[] =>
  points.map((p, i) => (chosen.includes(i) && p.width !== undefined ? { ...p, width: Math.max(0, p.width + by) } : p))
