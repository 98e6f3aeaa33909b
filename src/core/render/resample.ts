// Enlarging and reducing in linear light: area-true when reducing, bicubic when enlarging
// (Keys, Cubic Convolution Interpolation for Digital Image Processing, 1981, a = -1/2).
import type { Kernels } from './kernels'
import type { Codes, Picture } from './picture'
import { codesOf, floatReads, pictureRows, type Rows } from './rows'

/** For each output pixel the first source pixel and its weights, which sum to 1. */
export interface Taps {
  count: number
  first: Int32Array
  weights: Float32Array
}

function cubic(x: number): number {
  const t = Math.abs(x)
  if (t < 1) return (1.5 * t - 2.5) * t * t + 1
  return t < 2 ? ((-0.5 * t + 2.5) * t - 4) * t + 2 : 0
}

/** The same taps seen in a mirror. */
function mirrored({ count, first, weights }: Taps): Taps {
  const back = new Float32Array(weights.length)
  const to = first.length
  for (let i = 0; i < to; i++) back.set(weights.subarray((to - 1 - i) * count, (to - i) * count), i * count)
  return { count, first: first.slice().reverse(), weights: back }
}

/**
 * Taps that carry `from` source pixels to `to` output pixels, where output pixel 0 begins at `-offset` pixels of the
 * enlarged picture and one source pixel is `scale` output pixels wide. What lies outside repeats the border. A negative
 * scale mirrors the picture, which then ends at `offset`.
 */
export function makeTaps(from: number, to: number, scale: number, offset: number): Taps {
  if (scale < 0) return mirrored(makeTaps(from, to, -scale, to - offset))
  const reducing = scale < 1
  const wanted = reducing ? Math.ceil(1 / scale) + 1 : 4
  const count = Math.min(from, wanted)
  const first = new Int32Array(to)
  const weights = new Float32Array(to * count)
  for (let i = 0; i < to; i++) {
    const left = (i - offset) / scale
    const right = (i + 1 - offset) / scale
    const centre = (left + right) / 2
    const start = reducing ? Math.floor(left) : Math.floor(centre - 0.5) - 1
    const base = Math.max(0, Math.min(from - count, start))
    first[i] = base
    let sum = 0
    const own = new Float64Array(count)
    for (let k = 0; k < wanted; k++) {
      const at = start + k
      const w = reducing ? Math.max(0, Math.min(right, at + 1) - Math.max(left, at)) : cubic(centre - (at + 0.5))
      own[Math.max(0, Math.min(count - 1, Math.max(0, Math.min(from - 1, at)) - base))]! += w
      sum += w
    }
    for (let k = 0; k < count; k++) weights[i * count + k] = own[k]! / sum
  }
  return { count, first, weights }
}

/** Where a picture goes: px of the output. scaleX and scaleY differ for pixels that are not square and for mirrored pictures. */
export interface Fit {
  width: number
  height: number
  x: number
  y: number
  scaleX: number
  scaleY: number
}

/** Columns that are made together where rows can be read in any order: of a cut-out few of them show. */
const ACROSS = 128

/** A picture resampled. Only as many rows of the source are held as one row of the result needs, and only what is read of them is made. */
export function resampledRows(k: Kernels, source: Rows, fit: Fit): Rows {
  const { width, height } = fit
  const across = makeTaps(source.width, width, fit.scaleX, fit.x)
  const down = makeTaps(source.height, height, fit.scaleY, fit.y)
  const taps = k.alloc(across.first.byteLength)
  k.ints(taps, width).set(across.first)
  const weights = k.alloc(across.weights.byteLength)
  k.floats(weights, across.weights.length).set(across.weights)
  const codes = k.alloc(source.width * 4)
  const linear = k.alloc(source.width * 16)
  const wide = source.steady ? ACROSS : width
  const blocks = Math.ceil(width / wide)
  // A ring of source rows already filtered across; `held` says which source row each block of each slot carries.
  const slots = down.count + 1
  const ring = k.alloc(width * 16 * slots)
  const held = new Int32Array(slots * blocks).fill(-1)
  const sum = k.alloc(width * 16)
  const shown = new Int32Array(blocks).fill(-1)
  const [rowsAt, sharesAt] = [k.alloc(down.count * 4), k.alloc(down.count * 4)]
  const [rows, shares] = [k.ints(rowsAt, down.count), k.floats(sharesAt, down.count)]
  let opened = -1

  /** Where columns x to x + n of a row of the source lie, filtered across. */
  function filtered(y: number, block: number, x: number, n: number): number {
    const slot = y % slots
    const at = ring + (slot * width + x) * 16
    if (held[slot * blocks + block] === y) return at
    const [one, other] = [across.first[x]!, across.first[x + n - 1]!]
    const from = Math.min(one, other)
    source.open(y)
    source.linear(from, Math.max(one, other) + across.count - from, linear, codes)
    k.filterRow(linear - from * 16, at, n, taps + x * 4, weights + x * across.count * 4, across.count)
    held[slot * blocks + block] = y
    return at
  }

  function ensure(from: number, to: number): void {
    for (let block = Math.floor(from / wide); block * wide < to; block++) {
      if (shown[block] === opened) continue
      shown[block] = opened
      const x = block * wide
      const n = Math.min(width, x + wide) - x
      let count = 0
      for (let i = 0; i < down.count; i++) {
        const w = down.weights[opened * down.count + i]!
        if (w === 0) continue
        rows[count] = filtered(down.first[opened]! + i, block, x, n)
        shares[count++] = w
      }
      k.combineRows(rowsAt, sharesAt, count, n, sum + x * 16)
    }
  }

  const read = floatReads(k, () => sum)
  return {
    width,
    height,
    opaque: source.opaque,
    open(y) {
      opened = y
      // Those behind cannot be returned to where they are read in order alone.
      if (!source.steady) ensure(0, width)
    },
    codes(x, n, dst) {
      ensure(x, x + n)
      read.codes(x, n, dst)
    },
    linear(x, n, dst, spare) {
      ensure(x, x + n)
      read.linear(x, n, dst, spare)
    },
  }
}

/** The same for a whole picture, in a fresh buffer that the caller frees. */
export const resample = (k: Kernels, picture: Picture, fit: Fit): Codes =>
  k.scope(() => codesOf(k, resampledRows(k, pictureRows(k, picture), fit)))
