// An outline as straight chords.
import { type Curve, curveCount, curveFrom, split } from './curve'
import type { OutlinePoint } from './point'

/** Halvings of one curve at most: what is larger than any picture need not be finer. */
const DEEPEST = 10
/** Chords of an outline at most, about: no hand needs more, and none may keep a machine for minutes. */
const MOST = 2 ** 16

/** How far a handle's end lies from the straight between the ends of its curve. */
function strays({ a, d }: Curve, { x, y }: { x: number; y: number }): number {
  const [dx, dy] = [d.x - a.x, d.y - a.y]
  const length = dx * dx + dy * dy
  const t = length > 0 ? Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / length)) : 0
  return Math.hypot(a.x + t * dx - x, a.y + t * dy - y)
}

/** Where a chord begins, and how far along its curve that is, 0..1. */
type Visit = (x: number, y: number, t: number) => void

function halve(curve: Curve, tolerance: number, longest: number, left: number, visit: Visit, from = 0, to = 1): void {
  // A curve strays from its chord by three quarters at most of what its handles do.
  const far = 0.75 * Math.max(strays(curve, curve.b), strays(curve, curve.c))
  if (left <= 0 || (!(far > tolerance) && to - from <= longest)) {
    visit(curve.a.x, curve.a.y, from)
    return
  }
  const [before, after] = split(curve, 0.5)
  const middle = (from + to) / 2
  halve(before, tolerance, longest, left - 1, visit, from, middle)
  halve(after, tolerance, longest, left - 1, visit, middle, to)
}

const deepestOf = (curves: number): number => Math.min(DEEPEST, Math.floor(Math.log2(MOST / Math.max(1, curves))))

/**
 * The ends of chords round an outline, (x, y) after (x, y), the last joined to the first; none is farther than `tolerance` px from the curve
 * between its ends.
 */
export function flatten(points: readonly OutlinePoint[], tolerance: number): Float64Array {
  const ends: number[] = []
  if (points.length === 1) ends.push(points[0]!.x, points[0]!.y)
  const count = curveCount(points)
  for (let i = 0; i < count; i++)
    halve(curveFrom(points, i), tolerance, 1, deepestOf(count), (x, y) => void ends.push(x, y))
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
  for (let i = 0; i < count; i++)
    halve(curveFrom(points, i), tolerance, longest, deepestOf(count), (x, y, t) => void ends.push(x, y, i + t))
  const last = points.at(-1)
  if (last && (isOpen || points.length === 1)) ends.push(last.x, last.y, count)
  return Float64Array.from(ends)
}
