// Numbers of cells in the kernels' memory; a plane's address is where it lies there.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'

export type Plane = Float32Array<ArrayBuffer>

/** n numbers, nought at first. Throws OutOfMemory. */
export function planeIn(k: Kernels, n: number): Plane {
  const plane = k.floats(k.alloc(n * 4), n)
  plane.fill(0)
  return plane
}

/** Where numbers lie until the present scope is left. Throws OutOfMemory. */
export function placed(k: Kernels, numbers: ArrayLike<number>): number {
  const ptr = k.alloc(numbers.length * 4)
  k.floats(ptr, numbers.length).set(numbers)
  return ptr
}

/** The mean over (2r + 1)² cells round each, those outside left out; `out` may be the plane. Throws OutOfMemory. */
export function boxMean(k: Kernels, { width, height }: Size, plane: Plane, r: number, out: Plane): void {
  k.scope(() => {
    const room = k.alloc(width * height * 4)
    const sums = k.alloc(width * 4)
    k.boxMean(plane.byteOffset, width, height, r, out.byteOffset, room, sums)
  })
}
