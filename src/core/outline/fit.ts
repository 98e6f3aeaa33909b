// A line drawn freely, as few curves (Schneider, An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems, 1990).
import type { Point } from '../affine'
import { type Curve, pointOn } from './curve'
import { corner, type OutlinePoint } from './point'

const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y })
const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y
const size = (a: Point): number => Math.hypot(a.x, a.y)
const along = (from: Point, way: Point, by: number): Point => ({ x: from.x + way.x * by, y: from.y + way.y * by })

function unit(a: Point): Point {
  const length = size(a)
  return length > 0 ? { x: a.x / length, y: a.y / length } : { x: 0, y: 0 }
}

/** Shares of the way at which each place is passed, by the length of the chords between. */
function byLength(places: readonly Point[]): number[] {
  const at = [0]
  for (let i = 1; i < places.length; i++) at.push(at[i - 1]! + size(minus(places[i]!, places[i - 1]!)))
  const whole = at.at(-1)!
  return at.map(v => (whole > 0 ? v / whole : 0))
}

/** The curve with given tangents at its ends that passes nearest to places at given shares of it, by least squares. */
function bestCurve(places: readonly Point[], at: readonly number[], out: Point, inward: Point): Curve {
  const [a, d] = [places[0]!, places.at(-1)!]
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0]
  places.forEach((place, i) => {
    const t = at[i]!
    const s = 1 - t
    const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t]
    const one = { x: out.x * b1, y: out.y * b1 }
    const two = { x: inward.x * b2, y: inward.y * b2 }
    const rest = minus(place, { x: a.x * (b0 + b1) + d.x * (b2 + b3), y: a.y * (b0 + b1) + d.y * (b2 + b3) })
    c00 += dot(one, one)
    c01 += dot(one, two)
    c11 += dot(two, two)
    x0 += dot(one, rest)
    x1 += dot(two, rest)
  })
  const det = c00 * c11 - c01 * c01
  let [left, right] = det > 1e-9 ? [(x0 * c11 - x1 * c01) / det, (x1 * c00 - x0 * c01) / det] : [0, 0]
  const far = size(minus(d, a))
  // Handles that point the wrong way or run far off are worse than a third of the chord.
  if (!(left > 1e-3 * far && left < 3 * far && right > 1e-3 * far && right < 3 * far)) left = right = far / 3
  return { a, b: along(a, out, left), c: along(d, inward, right), d }
}

/** A better share of a curve for a place, by one step of Newton's. */
function nearer(curve: Curve, place: Point, t: number): number {
  const e = 1e-3
  const [low, high] = [Math.max(0, t - e), Math.min(1, t + e)]
  const on = pointOn(curve, t)
  const way = minus(pointOn(curve, high), pointOn(curve, low))
  const step = dot(minus(place, on), way) / Math.max(1e-12, dot(way, way))
  return Math.max(0, Math.min(1, t + step * (high - low)))
}

function worstOf(curve: Curve, places: readonly Point[], at: readonly number[]): { index: number; far: number } {
  let worst = { index: Math.floor(places.length / 2), far: 0 }
  for (let i = 1; i < places.length - 1; i++) {
    const far = size(minus(pointOn(curve, at[i]!), places[i]!))
    if (far > worst.far) worst = { index: i, far }
  }
  return worst
}

const ROUNDS = 4

/** The one curve with given tangents at its ends that passes nearest to places, from the first to the last. */
export function oneCurve(places: readonly Point[], out: Point, inward: Point): Curve {
  let at = byLength(places)
  let curve = bestCurve(places, at, out, inward)
  for (let round = 0; round < ROUNDS; round++) {
    at = places.map((place, i) => nearer(curve, place, at[i]!))
    curve = bestCurve(places, at, out, inward)
  }
  return curve
}

function fitted(places: readonly Point[], out: Point, inward: Point, tolerance: number): Curve[] {
  let at = byLength(places)
  let curve = bestCurve(places, at, out, inward)
  let worst = worstOf(curve, places, at)
  for (let round = 0; round < ROUNDS && worst.far > tolerance && worst.far < 6 * tolerance; round++) {
    at = places.map((place, i) => nearer(curve, place, at[i]!))
    curve = bestCurve(places, at, out, inward)
    worst = worstOf(curve, places, at)
  }
  if (worst.far <= tolerance || places.length < 4) return [curve]
  const { index } = worst
  const way = unit(minus(places[Math.max(0, index - 2)]!, places[Math.min(places.length - 1, index + 2)]!))
  const back = { x: -way.x, y: -way.y }
  return [
    ...fitted(places.slice(0, index + 1), out, way, tolerance),
    ...fitted(places.slice(index), back, inward, tolerance),
  ]
}

/** Where a line turns so sharply that a corner is meant: cosine of the turn. */
const CORNER = 0.3
/** Places on either side by which a turn is judged. */
const REACH = 3

/** The places at which a line that was drawn freely has its ends and corners. */
function corners(places: readonly Point[]): number[] {
  const sharp = [0]
  for (let i = REACH; i < places.length - REACH; i++) {
    const before = unit(minus(places[i]!, places[i - REACH]!))
    const after = unit(minus(places[i + REACH]!, places[i]!))
    if (dot(before, after) < CORNER && i - sharp.at(-1)! > REACH) sharp.push(i)
  }
  return [...sharp, places.length - 1]
}

/** Points with handles whose curves pass no farther than about `tolerance` px from places that a hand went through, few as can be. */
export function fitPoints(hand: readonly Point[], tolerance: number): OutlinePoint[] {
  const places = hand.filter((p, i) => i === 0 || size(minus(p, hand[i - 1]!)) > 0.5)
  if (places.length < 2) return places.map(corner)
  const ends = corners(places)
  const curves = ends.slice(1).flatMap((end, i) => {
    const part = places.slice(ends[i]!, end + 1)
    const step = Math.min(REACH, part.length - 1)
    return fitted(part, unit(minus(part[step]!, part[0]!)), unit(minus(part.at(-1 - step)!, part.at(-1)!)), tolerance)
  })
  const points = [corner(places[0]!), ...curves.map(({ d }) => corner(d))]
  curves.forEach(({ a, b, c, d }, i) => {
    Object.assign(points[i]!, { outX: b.x - a.x, outY: b.y - a.y })
    Object.assign(points[i + 1]!, { inX: c.x - d.x, inY: c.y - d.y })
  })
  return points
}
