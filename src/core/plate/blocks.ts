// Where squares of a picture went to in the next one.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { type Plane, roomFor } from './plane'

/** Cells of a square's side, and of what is looked at about it to each side. */
export const BLOCK = 8
const AROUND = 2
/** By how much the picture is made smaller to look far at once, twice by two, and how far is looked there. */
const SMALLER = 4
const FAR = 5
/** Cells to each side in which it is made exact. */
const NEAR = 4
/** Codes a cell by which a place has to be better for each cell that it lies farther. */
const LAZY = 0.06

type Tones = Size & { y: Plane }

/** The means of 2×2 cells, the last ones repeated. */
function halved(k: Kernels, { width, height, y }: Tones): Tones {
  const half = { width: (width + 1) >> 1, height: (height + 1) >> 1 }
  const out = roomFor(k, half.width * half.height)
  for (let v = 0; v < half.height; v++) {
    const top = y.byteOffset + 2 * v * width * 4
    const bottom = 2 * v + 1 < height ? top + width * 4 : top
    k.halfRow(top, bottom, out.byteOffset + v * half.width * 4, width)
  }
  return { ...half, y: out }
}

/** The squares of a picture. */
export const squaresOf = ({ width, height }: Size): Size => ({
  width: Math.ceil(width / BLOCK),
  height: Math.ceil(height / BLOCK),
})

/** 1 of each square in which some cell times `sign` is above nought. Throws OutOfMemory. */
export function squaresWith(k: Kernels, size: Size, plane: Plane, sign: 1 | -1): Uint8Array {
  const { width, height } = squaresOf(size)
  return k.scope(() => {
    const out = k.alloc(width * height)
    k.squaresWith(plane.byteOffset, size.width, size.height, BLOCK, sign, out)
    return k.bytes(out, width * height).slice()
  })
}

/** Of each square of BLOCK² cells, row by row: where in the old picture it comes from, in cells; x and y in turns. */
export type Shifts = Int32Array

/**
 * Tells where squares of a picture come from, by their brightness: first far and roughly, then exactly. Those that are not `wanted` (1 a square), and those that differ by less
 * than `calm` codes a cell, stay where they are. All of it lies in the memory of `k`. Throws OutOfMemory.
 */
export function shiftsOf(k: Kernels, now: Tones, old: Tones, wanted: Uint8Array, calm = 0): Shifts {
  const { width, height } = now
  return k.scope(() => {
    const [small, smallOld] = [now, old].map(tones => halved(k, halved(k, tones))) as [Tones, Tones]
    const [pictures, asked, out] = [k.alloc(16), k.alloc(wanted.length), k.alloc(wanted.length * 8)]
    k.ints(pictures, 4).set([now, old, small, smallOld].map(tones => tones.y.byteOffset))
    k.bytes(asked, wanted.length).set(wanted)
    const { width: w, height: h } = small
    k.squareShifts({
      pictures,
      width,
      height,
      smallWidth: w,
      smallHeight: h,
      wanted: asked,
      block: BLOCK,
      around: AROUND,
      smaller: SMALLER,
      far: FAR,
      near: NEAR,
      lazy: LAZY,
      calm,
      out,
    })
    return k.ints(out, wanted.length * 2).slice()
  })
}

/** A plane of cells as it comes to lie after such shifts. */
export function shifted(size: Size, plane: Float32Array, shifts: Shifts, out: Float32Array): void {
  const { width, height } = size
  const columns = squaresOf(size).width
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / BLOCK) * columns
    for (let x = 0; x < width; x++) {
      const at = 2 * (row + Math.floor(x / BLOCK))
      const fx = Math.max(0, Math.min(width - 1, x + shifts[at]!))
      const fy = Math.max(0, Math.min(height - 1, y + shifts[at + 1]!))
      out[y * width + x] = plane[fy * width + fx]!
    }
  }
}
