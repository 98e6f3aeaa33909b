// The coverage of a shape that moves while the shutter is open: the mean of where it is meanwhile.
import type { Kernels } from '../render/kernels'
import { type Composing, type Coverage, type Feather, openShape, type PlannedShape } from '../shape'

/**
 * Opens the mean coverage of a power of two of shapes, so that what all of them cover is covered wholly, to the bit. What it reserves
 * belongs to the present scope. Throws OutOfMemory.
 */
export function openSweep(k: Kernels, shapes: readonly PlannedShape[], feather: Feather, making: Composing): Coverage {
  const { width, height } = making.size
  const stride = (width * 4 + 127) & ~63
  const sum = k.alloc(stride * height)
  const row = k.alloc(stride)
  k.fillCoverage(sum, (stride / 4) * height, 0)
  k.fillCoverage(row, stride / 4, 0)
  let [first, last] = [height, 0]
  for (const shape of shapes) {
    k.scope(() => {
      const { top, bottom, row: read } = openShape(k, shape, feather, making)
      const [from, to] = [Math.max(0, top), Math.min(height, bottom)]
      for (let y = from; y < to; y++) {
        read(y, row)
        k.accumulateRow(sum + y * stride, row, stride / 16, 1 / shapes.length)
      }
      if (to > from) [first, last] = [Math.min(first, from), Math.max(last, to)]
    })
  }
  return { top: first, bottom: last, row: (y, out) => k.copyBytes(out, sum + y * stride, width * 4) }
}
