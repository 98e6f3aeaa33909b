// How something flat moved, told by points of it: as it turns away, it is seen in perspective.
import type { Point } from '../affine'
import {
  canHold,
  depthAt,
  type Projective,
  pinMap,
  project,
  projectAfter,
  projective,
  type Quad,
  unproject,
} from '../projective'
import { solved } from './equations'
import { middle, moveOf } from './move'

/** Points without which perspective is no better than a guess. */
const LEAST = 8
/** Fours of points that are tried. */
const FOURS = 200
/** px by which points may be off, at least, and count in full; rounds of weighing. */
const CLOSE = 0.3
const ROUNDS = 10

const SQUARE = { left: 0, top: 0, right: 1, bottom: 1 }

const offBy = (map: Projective, p: Point, q: Point): number => {
  if (!(depthAt(map, p) > 0)) return Number.POSITIVE_INFINITY
  const at = project(map, p)
  return Math.hypot(at.x - q.x, at.y - q.y)
}

/** What brings the corners of one quad to those of another; null where nothing flat does. */
export function planeBetween(from: Quad, to: Quad): Projective | null {
  const there = pinMap(SQUARE, to)
  const here = pinMap(SQUARE, from)
  return there && here && projectAfter(there, unproject(here))
}

/** Points in their order round the middle of them. */
function inRound(points: readonly Point[]): number[] {
  const [mx, my] = [points.reduce((s, p) => s + p.x, 0) / 4, points.reduce((s, p) => s + p.y, 0) / 4]
  const angle = (i: number) => Math.atan2(points[i]!.y - my, points[i]!.x - mx)
  return [0, 1, 2, 3].sort((i, j) => angle(i) - angle(j))
}

/** Of what fours of points tell, that which most of the others agree with best (least median of squares: Rousseeuw 1984). */
function firstGuess(from: readonly Point[], to: readonly Point[]): { map: Projective; off: number } {
  const simple = moveOf(from, to)!
  let map = projective(simple)
  let off = middle(from.map((p, i) => offBy(map, p, to[i]!)))
  // The same fours for the same number of points, so that a measurement can be made again.
  let seed = from.length
  const next = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
    return Math.floor((seed / 2 ** 32) * from.length)
  }
  for (let four = 0; four < FOURS; four++) {
    const chosen = new Set([next(), next(), next(), next()])
    if (chosen.size < 4) continue
    const some = [...chosen]
    const round = inRound(some.map(i => from[i]!)).map(i => some[i]!)
    const [here, there] = [from, to].map(of => round.map(i => of[i]!) as unknown as Quad)
    const plane = canHold(here!) && planeBetween(here!, there!)
    if (!plane) continue
    const own = middle(from.map((p, i) => offBy(plane, p, to[i]!)))
    if (own < off) [map, off] = [plane, own]
  }
  return { map, off }
}

/** Brings points about nought, at about 1 from it on the mean (Hartley, In Defense of the Eight-Point Algorithm, 1997). */
function centred(points: readonly Point[]) {
  const n = points.length
  const [mx, my] = [points.reduce((s, p) => s + p.x, 0) / n, points.reduce((s, p) => s + p.y, 0) / n]
  const far = points.reduce((s, p) => s + Math.hypot(p.x - mx, p.y - my), 0) / n || 1
  return projective({ a: 1 / far, b: 0, c: 0, d: 1 / far, x: -mx / far, y: -my / far })
}

/** The perspective that brings weighted points onto others with least squares, px being weighed by how far off they are under the map known so far. */
function fitted(from: readonly Point[], to: readonly Point[], weights: readonly number[], known: Projective) {
  const [one, other] = [centred(from), centred(to)]
  const sums = Array.from({ length: 8 }, () => new Array<number>(9).fill(0))
  from.forEach((raw, i) => {
    const p = project(one, raw)
    const q = project(other, to[i]!)
    // Depths tell how much an error of the equation is in px.
    const depth = depthAt(known, raw)
    const w = weights[i]! / (depth * depth)
    if (!(w > 0) || !Number.isFinite(w)) return
    for (const row of [
      [p.x, p.y, 1, 0, 0, 0, -q.x * p.x, -q.x * p.y, q.x],
      [0, 0, 0, p.x, p.y, 1, -q.y * p.x, -q.y * p.y, q.y],
    ]) {
      for (let j = 0; j < 8; j++) for (let m = 0; m < 9; m++) sums[j]![m]! += w * row[j]! * row[m]!
    }
  })
  const found = solved(sums)
  if (!found) return null
  const [a, c, x, b, d, y, g, h] = found as [number, number, number, number, number, number, number, number]
  return projectAfter(unproject(other), projectAfter({ a, b, c, d, x, y, g, h, w: 1 }, one))
}

/**
 * How most of some points of a flat thing moved, those that go another way counting little (iterated reweighting, Tukey's biweight). With fewer than eight points
 * it is told as a turn, a scale and a shift. null without any.
 */
export function planeMoveOf(from: readonly Point[], to: readonly Point[]): Projective | null {
  if (from.length < LEAST) {
    const move = moveOf(from, to)
    return move && projective(move)
  }
  let { map } = firstGuess(from, to)
  for (let round = 0; round < ROUNDS; round++) {
    const off = from.map((p, i) => offBy(map, p, to[i]!))
    const spread = 4 * Math.max(CLOSE, 1.4826 * middle(off))
    const weights = off.map(r => (r < spread ? (1 - (r / spread) ** 2) ** 2 : 0))
    if (weights.filter(w => w > 0).length < LEAST) break
    const next = fitted(from, to, weights, map)
    if (!next) break
    map = next
  }
  return map
}
