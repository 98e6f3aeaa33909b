// Codes -> planes for an encoder: BT.709, limited range, 4:2:0 with chroma on even columns.
import type { Kernels } from './kernels'
import type { Codes } from './picture'

/** Bytes of the three planes of a picture, close together. */
export const planesLength = (width: number, height: number): number =>
  width * height + 2 * ((width + 1) >> 1) * ((height + 1) >> 1)

/** Writes Y, U and V planes, close together, at out. */
export function writePlanes(k: Kernels, picture: Codes, out: number): void {
  const { width, height, ptr } = picture
  const halfWidth = (width + 1) >> 1
  const u = out + width * height
  const v = u + halfWidth * ((height + 1) >> 1)
  for (let y = 0; y < height; y++) k.lumaRow(ptr + y * width * 4, out + y * width, width)
  for (let y = 0; y < height; y += 2) {
    const top = ptr + y * width * 4
    const bottom = ptr + Math.min(y + 1, height - 1) * width * 4
    k.chromaPairRow(top, bottom, u + (y >> 1) * halfWidth, v + (y >> 1) * halfWidth, width)
  }
}
