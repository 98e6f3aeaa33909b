// The cubic Bézier curves between the points of an outline.
import type { Point } from '../affine'
import type { OutlinePoint } from './point'

/** From a to d, leaving towards b and arriving from c. */
export interface Curve {
  a: Point
  b: Point
  c: Point
  d: Point
}

/** How many curves there are: a closed outline has one back to its first point. */
export const curveCount = (points: readonly OutlinePoint[], isOpen = false): number =>
  points.length > 1 ? points.length - (isOpen ? 1 : 0) : 0

/** The curve that leaves point i; `i` counts round. */
export function curveFrom(points: readonly OutlinePoint[], i: number): Curve {
  const from = points[i]!
  const to = points[(i + 1) % points.length]!
  return {
    a: { x: from.x, y: from.y },
    b: { x: from.x + from.outX, y: from.y + from.outY },
    c: { x: to.x + to.inX, y: to.y + to.inY },
    d: { x: to.x, y: to.y },
  }
}

const between = (p: Point, q: Point, t: number): Point => ({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t })

/** Where a curve is, t of the way along its parameter, 0..1. */
export const pointOn = (curve: Curve, t: number): Point => split(curve, t)[0].d

/** The two curves that a curve consists of, before and after t (de Casteljau). */
export function split({ a, b, c, d }: Curve, t: number): [Curve, Curve] {
  const ab = between(a, b, t)
  const bc = between(b, c, t)
  const cd = between(c, d, t)
  const abc = between(ab, bc, t)
  const bcd = between(bc, cd, t)
  const on = between(abc, bcd, t)
  return [
    { a, b: ab, c: abc, d: on },
    { a: on, b: bcd, c: cd, d },
  ]
}

/** Places on a curve from which its nearest one is sought. */
const STEPS = 24

/** How far a curve is gone along, 0..1, where it comes nearest to a point; and how far that is, px. */
export function nearestOn(curve: Curve, point: Point): { t: number; distance: number } {
  const away = (t: number) => {
    const { x, y } = pointOn(curve, t)
    return Math.hypot(x - point.x, y - point.y)
  }
  let best = 0
  for (let i = 1; i <= STEPS; i++) if (away(i / STEPS) < away(best / STEPS)) best = i
  // Between the neighbours of the nearest step there is one nearest place: closed in on by thirds.
  let low = Math.max(0, best - 1) / STEPS
  let high = Math.min(STEPS, best + 1) / STEPS
  while (high - low > 1e-6) {
    const third = (high - low) / 3
    if (away(low + third) < away(high - third)) high -= third
    else low += third
  }
  const t = (low + high) / 2
  return { t, distance: away(t) }
}
