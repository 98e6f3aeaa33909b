// Numbers of cells in the kernels' memory; a plane's address is where it lies there.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'

export type Plane = Float32Array<ArrayBuffer>

/** n numbers, nought at first. Throws OutOfMemory. */
export function planeIn(k: Kernels, n: number): Plane {
  const plane = roomFor(k, n)
  plane.fill(0)
  return plane
}

/** n numbers that are all written before they are read. Throws OutOfMemory. */
export const roomFor = (k: Kernels, n: number): Plane => k.floats(k.alloc(n * 4), n)

/** Where numbers lie until the present scope is left. Throws OutOfMemory. */
export function placed(k: Kernels, numbers: ArrayLike<number>): number {
  const ptr = k.alloc(numbers.length * 4)
  k.floats(ptr, numbers.length).set(numbers)
  return ptr
}

/** How many cells or px. */
export const area = ({ width, height }: Size): number => width * height

/** Part of a plane: its first column and row, and how many of both. */
export interface Part extends Size {
  x: number
  y: number
}

/** All of a plane. */
export const whole = ({ width, height }: Size): Part => ({ x: 0, y: 0, width, height })

/** The px of cells, in a picture of so many. */
export const pxOf = ({ x, y, width, height }: Part, full: Size): Part => ({
  x: 2 * x,
  y: 2 * y,
  width: Math.min(full.width, 2 * (x + width)) - 2 * x,
  height: Math.min(full.height, 2 * (y + height)) - 2 * y,
})

/** Where a part of a plane begins whose rows are `across` cells. */
export const partAt = (plane: Plane, across: number, { x, y }: Part): number => plane.byteOffset + (y * across + x) * 4

/** The mean over (2r + 1)² cells round each, those outside left out; `out` may be the plane. Of a part of it all else is outside, and left alone. Throws OutOfMemory. */
export function boxMean(k: Kernels, size: Size, plane: Plane, r: number, out: Plane, part = whole(size)): void {
  const { width, height } = part
  k.scope(() => {
    const row = (width + 3) * 4
    const room = k.alloc((2 * r + 2) * row)
    const sums = k.alloc(row)
    const [from, to] = [plane, out].map(p => partAt(p, size.width, part)) as [number, number]
    k.boxMean({ plane: from, step: size.width, width, height, r, out: to, room, sums })
  })
}
