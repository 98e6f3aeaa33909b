// Cells as a picture that can be seen.
import { type Codes, toCodesPicture } from '../render'
import { type Cells, LIFT } from './cells'

/** Codes of planes as a decoder would give them: each in whole registers' reach. */
const SLACK = 32

/** Cells as a picture of their full size, in fresh memory of their kernels that the caller frees; chroma lies where it did in what was read. Throws OutOfMemory. */
export function cellsPicture({ k, full, chroma, width, height, luma, u, v }: Cells): Codes {
  return k.scope(() => {
    const [y, c] = [luma.length + SLACK, width * height + SLACK]
    const ptr = k.alloc(y + 2 * c)
    const bytes = k.bytes(ptr, y + 2 * c)
    const fill = (at: number, plane: Float32Array, by: number) => {
      for (let i = 0; i < plane.length; i++) bytes[at + i] = Math.max(0, Math.min(255, Math.round(plane[i]! + by)))
    }
    fill(0, luma, -LIFT)
    fill(y, u, 128)
    fill(y + c, v, 128)
    return toCodesPicture(k, {
      kind: 'planes',
      ...full,
      ptr,
      offsets: [0, y, y + c],
      strides: [full.width, width, width],
      halfColumns: 1,
      halfRows: 1,
      chroma,
      matrix: 'bt709',
      fullRange: true,
    })
  })
}
