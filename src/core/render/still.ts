// Pictures that are composed as a whole: made once where they stand still, else row by row.
import type { Box } from '../affine'
import type { Size } from '../shot'
import { keptRows } from './kept'
import type { Kernels } from './kernels'
import { floatReads, floatRows, type Rows } from './rows'

/**
 * Rows of premultiplied linear pixels, made by what `open` gives: row y, at out. What has a digest is kept while it goes on being asked for; with
 * null each row is made as it is asked for. `extent` is what they show something in.
 */
export function stillRows(
  k: Kernels,
  size: Size,
  digest: string | null,
  open: () => (y: number, out: number) => void,
  extent?: Box,
): Rows {
  const { width, height } = size
  const stride = width * 16
  const still = digest === null ? null : keptRows(k, { digest, stride, height, rows: open })
  if (still) return { ...floatRows(k, size, still.ptr, stride, false), ...(extent && { extent }) }
  const row = k.alloc(stride)
  const make = open()
  let opened = -1
  return {
    width,
    height,
    opaque: false,
    ...(extent && { extent }),
    open(y) {
      if (opened === y) return
      opened = y
      make(y, row)
    },
    ...floatReads(k, () => row),
  }
}
