// A point of a picture, followed from frame to frame.
import type { Point } from '../affine'
import { type Grey, pyramid, squareAt } from './pyramid'

export interface Followed extends Point {
  /** 0..1: how alike the place looks to what was pointed at. */
  sure: number
  /** Whether it was found at all; where it was not, the place is the last one. */
  isLost: boolean
}

/** px to each side of the point that are looked at. */
const RADIUS = 10
const SIDE = 2 * RADIUS + 1
const LEVELS = 5
const ROUNDS = 20
const STILL = 0.003
/** How alike it has to look to be it; and to be brought back onto what was pointed at first, so that nothing adds up. */
const ALIKE = 0.6
const SAME = 0.75
/** Slopes that are too slight to hold on to: the smaller eigenvalue of their square, codes² a px. */
const SLIGHT = 2

/** What is looked for: a patch about a point, with its slopes, in one level of a picture. */
interface Patch {
  values: Float32Array
  gx: Float32Array
  gy: Float32Array
  /** Mean and spread of the values, by which light is told apart from movement. */
  mean: number
  spread: number
  /** The inverse of the sum of slopes squared. */
  inverse: readonly [number, number, number]
}

function spreadOf(values: Float32Array): { mean: number; spread: number } {
  let [sum, squares] = [0, 0]
  for (const value of values) {
    sum += value
    squares += value * value
  }
  const mean = sum / values.length
  return { mean, spread: Math.sqrt(Math.max(0, squares / values.length - mean * mean)) }
}

/** A patch with a px more on each side, by which its slopes are told. */
const WIDE = SIDE + 2
const around = new Float32Array(WIDE * WIDE)

function patchAt(picture: Grey, x: number, y: number): Patch | null {
  const values = new Float32Array(SIDE * SIDE)
  const [gx, gy] = [new Float32Array(SIDE * SIDE), new Float32Array(SIDE * SIDE)]
  squareAt(picture, x - RADIUS - 1, y - RADIUS - 1, WIDE, around)
  let [a, b, c] = [0, 0, 0]
  for (let v = 0, i = 0; v < SIDE; v++) {
    for (let u = 0, at = (v + 1) * WIDE + 1; u < SIDE; u++, i++, at++) {
      values[i] = around[at]!
      const [sx, sy] = [(around[at + 1]! - around[at - 1]!) / 2, (around[at + WIDE]! - around[at - WIDE]!) / 2]
      gx[i] = sx
      gy[i] = sy
      a += sx * sx
      b += sx * sy
      c += sy * sy
    }
  }
  const det = a * c - b * b
  const smaller = (a + c - Math.sqrt((a - c) ** 2 + 4 * b * b)) / 2
  if (smaller < SLIGHT * SIDE * SIDE || det <= 0) return null
  return { values, gx, gy, ...spreadOf(values), inverse: [c / det, -b / det, a / det] }
}

/** What is looked at just now. */
const seen = new Float32Array(SIDE * SIDE)

/** Brings a place onto where a patch lies (inverse compositional Lucas–Kanade, Baker and Matthews 2004), light apart. */
function settle(picture: Grey, { values, gx, gy, mean, spread, inverse: [ia, ib, ic] }: Patch, from: Point): Point {
  let { x, y } = from
  for (let round = 0; round < ROUNDS; round++) {
    squareAt(picture, x - RADIUS, y - RADIUS, SIDE, seen)
    const now = spreadOf(seen)
    const share = now.spread > 0 ? spread / now.spread : 1
    let [bx, by] = [0, 0]
    for (let i = 0; i < seen.length; i++) {
      const d = (seen[i]! - now.mean) * share - values[i]! + mean
      bx += gx[i]! * d
      by += gy[i]! * d
    }
    const [dx, dy] = [ia * bx + ib * by, ib * bx + ic * by]
    x -= dx
    y -= dy
    if (Math.hypot(dx, dy) < STILL) break
  }
  return { x, y }
}

/** How alike a place looks to a patch, −1..1: their normalised correlation. */
function likeness(picture: Grey, { values }: Patch, { x, y }: Point): number {
  squareAt(picture, x - RADIUS, y - RADIUS, SIDE, seen)
  let [sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0]
  for (let i = 0; i < seen.length; i++) {
    const [a, b] = [values[i]!, seen[i]!]
    sa += a
    sb += b
    saa += a * a
    sbb += b * b
    sab += a * b
  }
  const n = values.length
  const spread = (saa - (sa * sa) / n) * (sbb - (sb * sb) / n)
  return spread > 0 ? (sab - (sa * sb) / n) / Math.sqrt(spread) : 0
}

export interface PointFollower {
  /** Where the point is in the next picture (`levelsOf` it), px from its left top corner. */
  next(levels: readonly Grey[]): Followed
}

/** A picture as followers look at it; many of them share it. */
export const levelsOf = (picture: Grey): readonly Grey[] => pyramid(picture, LEVELS)

/**
 * Follows the point at (x, y), px from the left top corner, of a first picture (`levelsOf` it) through those that come next, forward or backward (pyramidal Lucas–Kanade,
 * Bouguet 2000): from picture to picture, then brought back onto what was pointed at first. null where there is too little to hold on to.
 */
export function followPoint(first: readonly Grey[], { x, y }: Point): PointFollower | null {
  // Of what lies on whole px nothing is lost by looking between them; the middle of the first px is half a px from the corner.
  const start = { x: Math.round(x - 0.5), y: Math.round(y - 0.5) }
  const off = { x: x - start.x, y: y - start.y }
  const model = patchAt(first[0]!, start.x, start.y)
  if (!model) return null
  let before = first
  let at: Point = start
  let speed: Point = { x: 0, y: 0 }
  let isLost = false
  return {
    next(now) {
      const picture = now[0]!
      let guess = { x: (at.x + speed.x) / 2 ** (now.length - 1), y: (at.y + speed.y) / 2 ** (now.length - 1) }
      for (let level = now.length - 1; level >= 0; level--) {
        const patch = patchAt(before[level]!, at.x / 2 ** level, at.y / 2 ** level)
        if (patch) guess = settle(now[level]!, patch, guess)
        if (level > 0) guess = { x: guess.x * 2, y: guess.y * 2 }
      }
      if (likeness(picture, model, guess) >= SAME) guess = settle(picture, model, guess)
      const sure = Math.max(0, likeness(picture, model, guess))
      const isIn = guess.x >= 0 && guess.y >= 0 && guess.x < picture.width && guess.y < picture.height
      isLost = !isIn || !(sure >= ALIKE)
      if (!isLost) {
        speed = { x: guess.x - at.x, y: guess.y - at.y }
        at = guess
        before = now
      }
      return { x: at.x + off.x, y: at.y + off.y, sure, isLost }
    },
  }
}
