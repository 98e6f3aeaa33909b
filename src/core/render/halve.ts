// Pictures at half their size, for looking at: those that a decoder gave are halved as they are, not in linear light.
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import type { Picture, Planes } from './picture'
import { resampledRows } from './resample'
import { pictureRows, type Rows } from './rows'

/** Half as many px either way, an odd one counted as a whole. */
export const halfOf = ({ width, height }: Size): Size => ({ width: (width + 1) >> 1, height: (height + 1) >> 1 })

/**
 * Planes at half their size, in memory of the present scope. Each code is the mean of two by two, so that edges between bright and dark come out a little darker than in
 * linear light, and colour may lie a quarter of a px aside.
 */
function halvedPlanes(k: Kernels, picture: Planes): Planes {
  const { width, height, ptr, offsets, strides, halfColumns, halfRows } = picture
  const whole = { width, height }
  const chroma = { width: (width + halfColumns) >> halfColumns, height: (height + halfRows) >> halfRows }
  const [luma, colour] = [halfOf(whole), halfOf(chroma)]
  // Each row is read in whole registers: the gaps keep those inside the reservation.
  const sizes = [luma, colour, colour].map(({ width, height }) => width * height + 32)
  const to = [0, sizes[0]!, sizes[0]! + sizes[1]!] as const
  const own = k.alloc(to[2] + sizes[2]!)
  for (const [plane, of] of [whole, chroma, chroma].entries()) {
    const [from, stride] = [ptr + offsets[plane]!, strides[plane]!]
    k.halveCodes(from, stride, of.width, of.height, own + to[plane]!, halfOf(of).width)
  }
  return { ...picture, ...luma, ptr: own, offsets: to, strides: [luma.width, colour.width, colour.width] }
}

/** A picture's rows at half its size. */
export function halvedRows(k: Kernels, picture: Picture): Rows {
  if (picture.kind === 'planes') return pictureRows(k, halvedPlanes(k, picture))
  return resampledRows(k, pictureRows(k, picture), { ...halfOf(picture), x: 0, y: 0, scaleX: 0.5, scaleY: 0.5 })
}
