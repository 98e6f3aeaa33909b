// Finding how the camera of a take stands against that of its plate.
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import { farBetween, type Movement, STILL, sampleWithin } from './movement'

/** Tiles of the picture, of which each gives the place where the plate changes most; their sides are within bounds, px. */
const TILES = 3600
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
/** px that a camera may have gone and is told at once. */
const NEXT_TO = 0.5
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

/** Places of a plane, and its slopes there. */
interface Anchors {
  count: number
  x: Float64Array
  y: Float64Array
  gx: Float64Array
  gy: Float64Array
}

function anchorsOf(plane: Plane, tile: number): Anchors {
  const { width, height, y: v } = plane
  const found: [number, number, number, number][] = []
  for (let ty = 3; ty < height - 3; ty += tile) {
    for (let tx = 3; tx < width - 3; tx += tile) {
      let best: (typeof found)[0] | null = null
      let most = LEAST_SLOPE ** 2
      for (let y = ty; y < Math.min(ty + tile, height - 3); y++) {
        for (let x = tx; x < Math.min(tx + tile, width - 3); x++) {
          const i = y * width + x
          const gx = (v[i + 1]! - v[i - 1]!) / 2
          const gy = (v[i + width]! - v[i - width]!) / 2
          const size = gx * gx + gy * gy
          if (size <= most) continue
          most = size
          best = [x, y, gx, gy]
        }
      }
      if (best) found.push(best)
    }
  }
  const [x, y, gx, gy] = [0, 1, 2, 3].map(c => Float64Array.from(found, one => one[c]!)) as Four
  return { count: found.length, x, y, gx, gy }
}

type Four = [Float64Array, Float64Array, Float64Array, Float64Array]

/** The middle one of values in order, which are moved about (Hoare's selection). */
function middleOf(values: Float64Array): number {
  const at = values.length >> 1
  let [low, high] = [0, values.length - 1]
  while (low < high) {
    const pivot = values[at]!
    let [i, j] = [low, high]
    while (i <= j) {
      while (values[i]! < pivot) i++
      while (values[j]! > pivot) j--
      if (i > j) break
      const one = values[i]!
      values[i++] = values[j]!
      values[j--] = one
    }
    if (j < at) low = i
    if (i > at) high = j
  }
  return values[at]!
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
  shown: Float64Array,
  plate: Plane,
  anchors: Anchors,
  from: Movement,
  px: number,
  isShift = false,
): Refined {
  const { width, height, y: values } = plate
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2]
  const reach = Math.hypot(cx, cy)
  const { count, x: xs, y: ys, gx: gxs, gy: gys } = anchors
  let { x: mx, y: my, turn, scale } = from
  const residuals = new Float64Array(count)
  const sizes = new Float64Array(count)
  let best = from
  let least = Number.POSITIVE_INFINITY
  for (let round = 0; round <= ROUNDS; round++) {
    for (let i = 0; i < count; i++) {
      const [dx, dy] = [xs[i]! - cx, ys[i]! - cy]
      const sx = cx + scale * (dx - turn * dy) + mx / px
      const sy = cy + scale * (dy + turn * dx) + my / px
      // Of what the plate does not show nothing is told.
      const isIn = sx > 1 && sy > 1 && sx < width - 2 && sy < height - 2
      residuals[i] = isIn ? sampleWithin(values, width, sx, sy) - shown[i]! : UNLIKE * 10
      sizes[i] = Math.abs(residuals[i]!)
    }
    const middle = middleOf(sizes)
    if (middle < least) {
      least = middle
      best = { x: mx, y: my, turn, scale }
    }
    const spread = Math.max(1, MAD * middle)
    let [axx, axy, ayy, axt, ayt, axs, ays, att, ats, ass, bx, by, bt, bs] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]
    for (let i = 0; i < count; i++) {
      const r = residuals[i]!
      const t = r / (4 * spread)
      if (t >= 1 || t <= -1) continue
      const w = (1 - t * t) ** 2
      const [gx, gy] = [gxs[i]!, gys[i]!]
      const [dx, dy] = [(xs[i]! - cx) / reach, (ys[i]! - cy) / reach]
      const [jt, js] = [gy * dx - gx * dy, gx * dx + gy * dy]
      const [wx, wy, wt, ws] = [w * gx, w * gy, w * jt, w * js]
      axx += wx * gx
      axy += wx * gy
      ayy += wy * gy
      axt += wx * jt
      ayt += wy * jt
      axs += wx * js
      ays += wy * js
      att += wt * jt
      ats += wt * js
      ass += ws * js
      bx -= wx * r
      by -= wy * r
      bt -= wt * r
      bs -= ws * r
    }
    const a = [
      [axx, axy, axt, axs],
      [axy, ayy, ayt, ays],
      [axt, ayt, att, ats],
      [axs, ays, ats, ass],
    ]
    // Turn and scale only where they are told.
    for (let p = 0; p < 4; p++) a[p]![p]! += p < 2 ? 1e-3 : isShift ? 1e12 : 1
    const step = solved(a, [bx, by, bt, bs])
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

const rowAt = (plane: Float32Array, i: number): number => plane[i - 1]! + 2 * plane[i]! + plane[i + 1]!

/** A plane at places, smoothed as `smoothed` does, its codes brought to another light. */
function smoothAt(plane: Float32Array, width: number, share: number, { count, x, y }: Anchors): Float64Array {
  const out = new Float64Array(count)
  for (let i = 0; i < count; i++) {
    const at = y[i]! * width + x[i]!
    out[i] = ((rowAt(plane, at - width) + 2 * rowAt(plane, at) + rowAt(plane, at + width)) / 16) * share
  }
  return out
}

export interface MovementFinder {
  /** How a frame stands against the plate; `share` brings its codes to the plate's light, `near` is where it is looked for first. */
  find(frame: Cells, share: number, near: Movement): Movement
}

/** The shift in whole samples at which most places look alike, within REACH either way. */
function search(shown: Float64Array, plate: Plane, anchors: Anchors): { x: number; y: number } {
  const { width, height, y: plane } = plate
  const step = Math.ceil(anchors.count / SOUGHT)
  let best = { x: 0, y: 0 }
  let least = Number.POSITIVE_INFINITY
  for (let dy = -REACH; dy <= REACH; dy++) {
    for (let dx = -REACH; dx <= REACH; dx++) {
      let sum = 0
      for (let i = 0; i < anchors.count; i += step) {
        const px = Math.max(0, Math.min(width - 1, anchors.x[i]! + dx))
        const py = Math.max(0, Math.min(height - 1, anchors.y[i]! + dy))
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

  /** By cells, which see farther. */
  function roughly(frame: Cells, share: number, near: Movement): Movement {
    const shown = smoothAt(frame.y, frame.width, share, middleAnchors)
    const closer = refine(shown, middle, middleAnchors, near, CELL, true)
    if (closer.left <= DOUBTFUL) return closer.movement
    const { x, y } = search(shown, middle, middleAnchors)
    const other = refine(shown, middle, middleAnchors, { ...STILL, x: x * CELL, y: y * CELL }, CELL, true)
    return other.left < closer.left ? other.movement : closer.movement
  }

  return {
    find(frame, share, near) {
      if (fineAnchors.count < FEW || middleAnchors.count < FEW) return near
      const shown = smoothAt(frame.luma, width, share, fineAnchors)
      const close = refine(shown, fine, fineAnchors, near, 1)
      // As a rule the camera stands next to where it stood.
      const isThere = close.left <= DOUBTFUL && farBetween(close.movement, near, frame.full) < NEXT_TO
      const { movement } = isThere ? close : refine(shown, fine, fineAnchors, roughly(frame, share, near), 1)
      // A turn of less than can be told is none.
      const turned = farBetween({ ...movement, x: 0, y: 0 }, STILL, frame.full)
      if (turned === 0 || turned >= LEAST_TURN) return movement
      const shift = refine(shown, fine, fineAnchors, { ...movement, turn: 0, scale: 1 }, 1, true).movement
      return { ...shift, turn: 0, scale: 1 }
    },
  }
}
