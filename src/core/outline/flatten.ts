// An outline as straight chords.
import { type Curve, curveCount, curveFrom } from './curve'
import type { OutlinePoint } from './point'

/** Chords of one curve at most: what is larger than any picture need not be finer. */
const FINEST = 1024
/** Chords of an outline at most, about: no hand needs more, and none may keep a machine for minutes. */
const MOST = 2 ** 16

/** How far a handle's end lies from the straight between the ends of its curve. */
function strays({ a, d }: Curve, { x, y }: { x: number; y: number }): number {
  const [dx, dy] = [d.x - a.x, d.y - a.y]
  const length = dx * dx + dy * dy
  const t = length > 0 ? Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / length)) : 0
  return Math.hypot(a.x + t * dx - x, a.y + t * dy - y)
}

/**
 * How many chords of equal shares of a curve keep within `tolerance` of it: a chord strays by an eighth at most of how far the curve's second
 * derivative carries it in its time (as in Sederberg's notes on curves).
 */
function chordsFor(curve: Curve, tolerance: number, longest: number, most: number): number {
  const { a, b, c, d } = curve
  const least = Math.min(most, Math.ceil(1 / longest))
  // A curve strays from the straight between its ends by three quarters at most of what its handles do.
  if (!(0.75 * Math.max(strays(curve, b), strays(curve, c)) > tolerance)) return least
  const bend = Math.max(
    Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y),
    Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y),
  )
  return Math.max(least, Math.min(most, Math.ceil(Math.sqrt((0.75 * bend) / tolerance))))
}

/** Where a chord begins, and how far along its curve that is, 0..1. */
type Visit = (x: number, y: number, t: number) => void

function along({ a, b, c, d }: Curve, count: number, visit: Visit): void {
  for (let i = 0; i < count; i++) {
    const t = i / count
    const u = 1 - t
    const [pa, pb, pc, pd] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
    visit(pa * a.x + pb * b.x + pc * c.x + pd * d.x, pa * a.y + pb * b.y + pc * c.y + pd * d.y, t)
  }
}

const mostOf = (curves: number): number => Math.min(FINEST, Math.max(1, Math.floor(MOST / Math.max(1, curves))))

/**
 * The ends of chords round an outline, (x, y) after (x, y), the last joined to the first; none is farther than `tolerance` px from the curve
 * between its ends.
 */
export function flatten(points: readonly OutlinePoint[], tolerance: number): Float64Array {
  const ends: number[] = []
  if (points.length === 1) ends.push(points[0]!.x, points[0]!.y)
  const count = curveCount(points)
  for (let i = 0; i < count; i++) {
    const curve = curveFrom(points, i)
    along(curve, chordsFor(curve, tolerance, 1, mostOf(count)), (x, y) => void ends.push(x, y))
  }
  return Float64Array.from(ends)
}

/**
 * The ends of chords along an outline, or along a line that does not close: x, y, and how far along it that is, counted in points, one after the
 * other. The last of a line that does not close is its end. No chord is longer than `longest` of its curve.
 */
export function flattenAlong(
  points: readonly OutlinePoint[],
  tolerance: number,
  isOpen: boolean,
  longest = 1,
): Float64Array {
  const ends: number[] = []
  const count = curveCount(points, isOpen)
  for (let i = 0; i < count; i++) {
    const curve = curveFrom(points, i)
    along(curve, chordsFor(curve, tolerance, longest, mostOf(count)), (x, y, t) => void ends.push(x, y, i + t))
  }
  const last = points.at(-1)
  if (last && (isOpen || points.length === 1)) ends.push(last.x, last.y, count)
  return Float64Array.from(ends)
}
