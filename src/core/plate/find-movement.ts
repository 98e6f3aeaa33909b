// Finding how the camera of a take stands against that of its plate.
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import { farBetween, type Movement, STILL, sampleAt } from './movement'

/** Tiles of the picture, of which each gives the place where the plate changes most; their sides are within bounds, px. */
const TILES = 5000
const [LEAST_TILE, MOST_TILE] = [4, 40]
/** The same of tiles of cells, each of so many px. */
const MIDDLE_TILE = 10
const CELL = 2
/** Fewer places tell nothing. */
const FEW = 12
/** Codes left in the middle of the places at which the camera is looked for elsewhere: so far, cells, at so many places, by differences of so many codes at most. */
const DOUBTFUL = 3
const REACH = 20
const SOUGHT = 400
const UNLIKE = 24
/** Codes a cell by which the plate has to change there. */
const LEAST_SLOPE = 3
const ROUNDS = 12
/** Steps are small enough at so much of a sample. */
const STILL_ENOUGH = 0.002
/** What is left where the steps end may be so much more than the least, by chance. */
const AS_GOOD = 1.05
/** px by which the corners have to go farther than the middle for a turn or a scale to be told. */
const LEAST_TURN = 0.2
/** σ of a normal distribution, in its median of |x|. */
const MAD = 1.4826

interface Plane extends Size {
  y: Float32Array
}

/** A place of the plate, in cells about its middle, with its slopes. */
interface Anchor {
  x: number
  y: number
  gx: number
  gy: number
}

function anchorsOf(plane: Plane, tile: number): Anchor[] {
  const { width, height, y: v } = plane
  const found: Anchor[] = []
  for (let ty = 3; ty < height - 3; ty += tile) {
    for (let tx = 3; tx < width - 3; tx += tile) {
      let best: Anchor | null = null
      let most = LEAST_SLOPE ** 2
      for (let y = ty; y < Math.min(ty + tile, height - 3); y++) {
        for (let x = tx; x < Math.min(tx + tile, width - 3); x++) {
          const i = y * width + x
          const gx = (v[i + 1]! - v[i - 1]!) / 2
          const gy = (v[i + width]! - v[i - width]!) / 2
          const size = gx * gx + gy * gy
          if (size <= most) continue
          most = size
          best = { x, y, gx, gy }
        }
      }
      if (best) found.push(best)
    }
  }
  return found
}

/** Solves a symmetric system of `n` equations by elimination; null where it says too little. */
function solved(a: number[][], b: number[]): number[] | null {
  const n = b.length
  for (let i = 0; i < n; i++) {
    const d = a[i]![i]!
    if (!(Math.abs(d) > 1e-9)) return null
    for (let j = i + 1; j < n; j++) {
      const f = a[j]![i]! / d
      for (let c = i; c < n; c++) a[j]![c]! -= f * a[i]![c]!
      b[j]! -= f * b[i]!
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let j = i + 1; j < n; j++) b[i]! -= a[i]![j]! * b[j]!
    b[i]! /= a[i]![i]!
  }
  return b
}

interface Refined {
  movement: Movement
  /** Codes by which frame and plate differ in the middle of the places. */
  left: number
}

/**
 * Gauss–Newton steps on the places where the plate changes most, weighted by Tukey's biweight so that people count little
 * (Baker and Matthews 2004; Huber 1981). Of all that was tried, what leaves least in the middle is what it comes to. `px`: px that a cell of the plane has.
 */
function refine(
  seen: (a: Anchor) => number,
  plate: Plane,
  anchors: readonly Anchor[],
  from: Movement,
  px: number,
  isShift = false,
): Refined {
  const [cx, cy] = [(plate.width - 1) / 2, (plate.height - 1) / 2]
  const reach = Math.hypot(cx, cy)
  let { x: mx, y: my, turn, scale } = from
  const shown = Float64Array.from(anchors, seen)
  const residuals = new Float64Array(anchors.length)
  const sizes = new Float64Array(anchors.length)
  let best = from
  let least = Number.POSITIVE_INFINITY
  for (let round = 0; round <= ROUNDS; round++) {
    for (const [i, { x, y }] of anchors.entries()) {
      const [dx, dy] = [x - cx, y - cy]
      const sx = cx + scale * (dx - turn * dy) + mx / px
      const sy = cy + scale * (dy + turn * dx) + my / px
      // Of what the plate does not show nothing is told.
      const isIn = sx > 1 && sy > 1 && sx < plate.width - 2 && sy < plate.height - 2
      residuals[i] = isIn ? sampleAt(plate, plate.y, sx, sy) - shown[i]! : UNLIKE * 10
      sizes[i] = Math.abs(residuals[i]!)
    }
    const middle = sizes.slice().sort()[anchors.length >> 1]!
    if (middle < least) {
      least = middle
      best = { x: mx, y: my, turn, scale }
    }
    const spread = Math.max(1, MAD * middle)
    const a = [0, 1, 2, 3].map(() => [0, 0, 0, 0])
    const b = [0, 0, 0, 0]
    for (const [i, { x, y, gx, gy }] of anchors.entries()) {
      const t = residuals[i]! / (4 * spread)
      if (Math.abs(t) >= 1) continue
      const w = (1 - t * t) ** 2
      const [dx, dy] = [(x - cx) / reach, (y - cy) / reach]
      const j = [gx, gy, gy * dx - gx * dy, gx * dx + gy * dy]
      for (let p = 0; p < 4; p++) {
        b[p]! -= w * j[p]! * residuals[i]!
        for (let q = 0; q < 4; q++) a[p]![q]! += w * j[p]! * j[q]!
      }
    }
    // Turn and scale only where they are told.
    for (let p = 0; p < 4; p++) a[p]![p]! += p < 2 ? 1e-3 : isShift ? 1e12 : 1
    const step = solved(a, b)
    if (!step) break
    mx += step[0]! * px
    my += step[1]! * px
    turn += step[2]! / reach
    scale += step[3]! / reach
    const isThere = Math.hypot(step[0]!, step[1]!, step[2]!, step[3]!) < STILL_ENOUGH
    if (isThere && middle <= least * AS_GOOD) return { movement: { x: mx, y: my, turn, scale }, left: middle }
    if (isThere) break
  }
  return { movement: best, left: least }
}

/** Smoothed by a binomial of three either way: what is finer than cells would be taken for movement. */
function smoothed({ width, height, y: v }: Plane): Plane {
  const room = new Float32Array(v.length)
  const out = new Float32Array(v.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++)
      room[i] = (v[i - (x > 0 ? 1 : 0)]! + 2 * v[i]! + v[i + (x < width - 1 ? 1 : 0)]!) / 4
  }
  for (let y = 0; y < height; y++) {
    const [up, down] = [y > 0 ? width : 0, y < height - 1 ? width : 0]
    for (let x = 0, i = y * width; x < width; x++, i++) out[i] = (room[i - up]! + 2 * room[i]! + room[i + down]!) / 4
  }
  return { width, height, y: out }
}

/** A plane at places, smoothed as `smoothed` does. */
const smoothAt =
  (plane: Float32Array, width: number, share: number) =>
  ({ x, y }: Anchor): number => {
    const i = y * width + x
    const row = (j: number) => plane[j - 1]! + 2 * plane[j]! + plane[j + 1]!
    return ((row(i - width) + 2 * row(i) + row(i + width)) / 16) * share
  }

export interface MovementFinder {
  /** How a frame stands against the plate; `share` brings its codes to the plate's light, `near` is where it is looked for first. */
  find(frame: Cells, share: number, near: Movement): Movement
}

/** The shift in whole samples at which most places look alike, within REACH either way. */
function search(seen: (a: Anchor) => number, plate: Plane, anchors: readonly Anchor[]): { x: number; y: number } {
  const { width, height, y: plane } = plate
  const few = anchors.filter((_, i) => i % Math.ceil(anchors.length / SOUGHT) === 0)
  const shown = few.map(seen)
  let best = { x: 0, y: 0 }
  let least = Number.POSITIVE_INFINITY
  for (let dy = -REACH; dy <= REACH; dy++) {
    for (let dx = -REACH; dx <= REACH; dx++) {
      let sum = 0
      for (const [i, { x, y }] of few.entries()) {
        const px = Math.max(0, Math.min(width - 1, x + dx))
        const py = Math.max(0, Math.min(height - 1, y + dy))
        sum += Math.min(UNLIKE, Math.abs(plane[py * width + px]! - shown[i]!))
      }
      if (sum >= least) continue
      least = sum
      best = { x: dx, y: dy }
    }
  }
  return best
}

/** Prepares a plate for telling how frames stand against it. Movement of up to some 40 px is found. */
export function movementFinder(plate: Cells): MovementFinder {
  const { width, height } = plate.full
  const middle = smoothed(plate)
  const middleAnchors = anchorsOf(middle, MIDDLE_TILE)
  const fine = smoothed({ ...plate.full, y: plate.luma })
  const tile = Math.round(Math.sqrt((width * height) / TILES))
  const fineAnchors = anchorsOf(fine, Math.max(LEAST_TILE, Math.min(MOST_TILE, tile)))
  return {
    find(frame, share, near) {
      if (fineAnchors.length < FEW || middleAnchors.length < FEW) return near
      const inCells = smoothAt(frame.y, frame.width, share)
      let closer = refine(inCells, middle, middleAnchors, near, CELL, true)
      if (closer.left > DOUBTFUL) {
        const { x, y } = search(inCells, middle, middleAnchors)
        const other = refine(inCells, middle, middleAnchors, { ...STILL, x: x * CELL, y: y * CELL }, CELL, true)
        if (other.left < closer.left) closer = other
      }
      const shown = smoothAt(frame.luma, width, share)
      const { movement } = refine(shown, fine, fineAnchors, closer.movement, 1)
      // A turn of less than can be told is none.
      const turned = farBetween({ ...movement, x: 0, y: 0 }, STILL, frame.full)
      if (turned === 0 || turned >= LEAST_TURN) return movement
      return refine(shown, fine, fineAnchors, { ...movement, turn: 0, scale: 1 }, 1, true).movement
    },
  }
}
