// Finding how the camera of a take stands against that of its plate.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import { farBetween, type Movement, STILL } from './movement'
import { type Plane, planeIn, roomFor } from './plane'

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
/** Codes a cell by which the plate has to change there, and how far from its border. */
const LEAST_SLOPE = 2
const BORDER = 3
const ROUNDS = 12
/** px that a camera may have gone and is told at once. */
const NEXT_TO = 0.5
/** Steps are small enough at so much of a sample. */
const STILL_ENOUGH = 0.002
/** What is left where the steps end may be so much more than the least, by chance. */
const AS_GOOD = 1.05
/** px by which the corners have to go farther than the middle for a turn or a scale to be told. */
const LEAST_TURN = 0.2
/** Standard errors that a turn has to be; px of one from which on a set shows too little, so that a shift has to be as many, too. */
const SURE = 3
const LITTLE_SEEN = 0.05
/** σ of a normal distribution, in its median of |x|. */
const MAD = 1.4826

interface Smooth extends Size {
  k: Kernels
  y: Plane
}

/** Places of a plane; room for what is told of each: what is shown there, by how much the plate is off where they lie in it, and how it changes there. */
interface Anchors {
  count: number
  x: Plane
  y: Plane
  shown: Plane
  off: Plane
  gx: Plane
  gy: Plane
}

type Six = [Plane, Plane, Plane, Plane, Plane, Plane]

/** They are looked at by fours: what fills the last four up is off by more than could count. */
const FOUR = 4
const NOWHERE = 1e9

function anchorsOf({ k, width, height, y: plane }: Smooth, tile: number): Anchors {
  const most = Math.ceil(width / tile) * Math.ceil(height / tile)
  const found = k.scope(() => {
    const out = k.floats(k.alloc(most * 8), most * 2)
    const given = { plane: plane.byteOffset, width, height, border: BORDER, tile, least: LEAST_SLOPE }
    return out.slice(0, 2 * k.steepestPlaces({ ...given, out: out.byteOffset }))
  })
  const count = found.length / 2
  const room = Math.ceil(count / FOUR) * FOUR
  const [x, y, shown, off, gx, gy] = Array.from({ length: 6 }, () => planeIn(k, room)) as Six
  for (let i = 0; i < count; i++) {
    x[i] = found[2 * i]!
    y[i] = found[2 * i + 1]!
  }
  return { count, x, y, shown, off: off.fill(NOWHERE), gx, gy }
}

/** The middle one of values in order, which are moved about (Hoare's selection). */
function middleOf(values: Float32Array): number {
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
  /** Standard errors of the shift, and of how far turn and scale take the corners, px. */
  shiftError: number
  turnError: number
}

/** Variances of what normal equations are solved for, of residuals of unit variance; endless where they say too little. */
const variances = (a: readonly number[][]): number[] =>
  a.map((_, i) => {
    const unit = a.map((_, j) => (i === j ? 1 : 0))
    const column = solved(
      a.map(row => [...row]),
      unit,
    )
    return column && column[i]! > 0 ? column[i]! : Number.POSITIVE_INFINITY
  })

/**
 * Gauss–Newton steps on the places where the plate changes most, by how it changes where they lie in it, weighted by Tukey's biweight so that people count little
 * (Lucas and Kanade 1981; Huber 1981). Of all that was tried, what leaves least in the middle is what it comes to. `px`: px that a cell of the plane has.
 */
function refine(plate: Smooth, anchors: Anchors, from: Movement, px: number, isShift = false): Refined {
  const { k, width, height } = plate
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2]
  const reach = Math.hypot(cx, cy)
  const { count, x: xs, y: ys, gx: gxs, gy: gys, shown, off } = anchors
  const places = { xs: xs.byteOffset, ys: ys.byteOffset }
  const slopes = { gxs: gxs.byteOffset, gys: gys.byteOffset }
  const seen = { plane: plate.y.byteOffset, width, height, shown: shown.byteOffset }
  const compared = { ...seen, ...places, n: count, out: off.byteOffset, ...slopes }
  const summed = { ...places, ...slopes, off: off.byteOffset, n: off.length, cx, cy }
  const sizes = new Float32Array(count)
  let { x: mx, y: my, turn, scale } = from
  let best = from
  let least = Number.POSITIVE_INFINITY
  let [shiftError, turnError] = [0, 0]
  for (let round = 0; round <= ROUNDS; round++) {
    const [cos, sin] = [scale, scale * turn]
    const x0 = cx - cos * cx + sin * cy + mx / px
    const y0 = cy - sin * cx - cos * cy + my / px
    // Of what the plate does not show nothing is told.
    k.anchorsOff({ ...compared, x0, y0, cos, sin, beyond: UNLIKE * 10 })
    for (let i = 0; i < count; i++) sizes[i] = Math.abs(off[i]!)
    const middle = middleOf(sizes)
    if (middle < least) {
      least = middle
      best = { x: mx, y: my, turn, scale }
    }
    const spread = Math.max(1, MAD * middle)
    const sums = k.scope(() => {
      const out = k.floats(k.alloc(14 * 4), 14)
      k.anchorSums({ ...summed, reach: 4 * spread, per: 1 / reach, sums: out.byteOffset })
      return [...out]
    })
    const [axx = 0, axy = 0, ayy = 0, axt = 0, ayt = 0, axs = 0, ays = 0, att = 0, ats = 0, ass = 0, ...b] = sums
    const a = [
      [axx, axy, axt, axs],
      [axy, ayy, ayt, ays],
      [axt, ayt, att, ats],
      [axs, ays, ats, ass],
    ]
    // Turn and scale only where they are told.
    for (let p = 0; p < 4; p++) a[p]![p]! += p < 2 ? 1e-3 : isShift ? 1e12 : 1
    if (middle === least) {
      const [x = 0, y = 0, t = 0, s = 0] = variances(a)
      shiftError = spread * px * Math.sqrt(x + y)
      turnError = spread * px * Math.sqrt(t + s)
    }
    const step = solved(a, b)
    if (!step) break
    mx += step[0]! * px
    my += step[1]! * px
    turn += step[2]! / reach
    scale += step[3]! / reach
    const isThere = Math.hypot(step[0]!, step[1]!, step[2]!, step[3]!) < STILL_ENOUGH
    if (isThere && middle <= least * AS_GOOD)
      return { movement: { x: mx, y: my, turn, scale }, left: middle, shiftError, turnError }
    if (isThere) break
  }
  return { movement: best, left: least, shiftError, turnError }
}

/** Smoothed by a binomial of five either way (of three, twice): coding changes what is finer from frame to frame, which would be taken for movement. */
function smoothed({ k, width, height, y }: Smooth): Smooth {
  const out = roomFor(k, y.length)
  k.scope(() => {
    const [row, once] = [k.alloc((width + 4) * 4), roomFor(k, y.length)]
    k.smoothPlane({ src: y.byteOffset, width, height, row, out: once.byteOffset })
    k.smoothPlane({ src: once.byteOffset, width, height, row, out: out.byteOffset })
  })
  return { k, width, height, y: out }
}

/** What a plane shows at places, smoothed as `smoothed` does, its codes brought to another light. */
function show({ k, width, y: plane }: Smooth, share: number, { count: n, x, y, shown }: Anchors): void {
  const places = { xs: x.byteOffset, ys: y.byteOffset, n }
  k.smoothAnchors({ plane: plane.byteOffset, width, ...places, share, out: shown.byteOffset })
}

export interface MovementFinder {
  /** How a frame stands against the plate; `share` brings its codes to the plate's light, `near` is where it is looked for first. */
  find(frame: Cells, share: number, near: Movement): Movement
}

/** The shift in whole samples at which most places look alike, within REACH either way. */
function search(plate: Smooth, anchors: Anchors): { x: number; y: number } {
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
        sum += Math.min(UNLIKE, Math.abs(plane[py * width + px]! - anchors.shown[i]!))
      }
      if (sum >= least) continue
      least = sum
      best = { x: dx, y: dy }
    }
  }
  return best
}

/** Prepares a plate for telling how frames stand against it. Movement of up to some 40 px is found. Throws OutOfMemory, as finding it does. */
export function movementFinder(plate: Cells): MovementFinder {
  const { k } = plate
  const { width, height } = plate.full
  const middle = smoothed(plate)
  const middleAnchors = anchorsOf(middle, MIDDLE_TILE)
  const fine = smoothed({ k, ...plate.full, y: plate.luma })
  const tile = Math.round(Math.sqrt((width * height) / TILES))
  const fineAnchors = anchorsOf(fine, Math.max(LEAST_TILE, Math.min(MOST_TILE, tile)))

  /** By cells, which see farther. */
  function roughly(frame: Cells, share: number, near: Movement): Movement {
    show(frame, share, middleAnchors)
    const closer = refine(middle, middleAnchors, near, CELL, true)
    if (closer.left <= DOUBTFUL) return closer.movement
    const { x, y } = search(middle, middleAnchors)
    const other = refine(middle, middleAnchors, { ...STILL, x: x * CELL, y: y * CELL }, CELL, true)
    return other.left < closer.left ? other.movement : closer.movement
  }

  return {
    find(frame, share, near) {
      if (fineAnchors.count < FEW || middleAnchors.count < FEW) return near
      show({ k, ...plate.full, y: frame.luma }, share, fineAnchors)
      const close = refine(fine, fineAnchors, near, 1)
      // As a rule the camera stands next to where it stood.
      const isThere = close.left <= DOUBTFUL && farBetween(close.movement, near, frame.full) < NEXT_TO
      const { movement, turnError } = isThere ? close : refine(fine, fineAnchors, roughly(frame, share, near), 1)
      // A turn of less than can be told is none.
      const turned = farBetween({ ...movement, x: 0, y: 0 }, STILL, frame.full)
      if (turned === 0 || turned >= Math.max(LEAST_TURN, SURE * turnError)) return movement
      const shift = refine(fine, fineAnchors, { ...movement, turn: 0, scale: 1 }, 1, true)
      const moved = { ...shift.movement, turn: 0, scale: 1 }
      const isHardlySeen = shift.shiftError > LITTLE_SEEN
      return isHardlySeen && farBetween(moved, near, frame.full) < SURE * shift.shiftError ? near : moved
    },
  }
}
