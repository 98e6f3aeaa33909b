// Pictures in the kernels' memory.
import type { Box } from '../affine'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { codesOf, pictureRows } from './rows'

/** ITU-T H.273 names. Anything else is read as BT.709. */
export type Matrix = 'bt709' | 'bt601' | 'bt2020' | 'smpte240m'

/** Where samples of halved chroma lie: on the even columns or between two; between two rows, or on the even or odd ones. */
export interface ChromaPlace {
  across: 'even' | 'between'
  down: 'between' | 'even' | 'odd'
}

export interface Planes extends Size {
  kind: 'planes'
  ptr: number
  /** Byte offsets from ptr and row strides of Y, U, V. */
  offsets: readonly [number, number, number]
  strides: readonly [number, number, number]
  /** 1 where chroma has half the columns or rows. */
  halfColumns: 0 | 1
  halfRows: 0 | 1
  chroma: ChromaPlace
  matrix: Matrix
  fullRange: boolean
}

/** Straight (not premultiplied) sRGB codes. */
export interface Codes extends Size {
  kind: 'codes'
  ptr: number
  opaque: boolean
  /** What lies beyond is clear; left out: nothing is known. */
  extent?: Box
}

export type Picture = Planes | Codes

/** Whether every pixel hides what is behind it. */
export const isOpaque = (picture: Picture): boolean => picture.kind === 'planes' || picture.opaque

/** The whole picture as straight RGBA8, in a fresh buffer of kernel memory that the caller frees. */
export const toCodesPicture = (k: Kernels, picture: Picture): Codes =>
  k.scope(() => codesOf(k, pictureRows(k, picture), isOpaque(picture)))

/** The picture turned clockwise by quarters, in a fresh buffer that the caller frees. */
export function turned(k: Kernels, picture: Codes, quarters: 1 | 2 | 3): Codes {
  const ptr = k.alloc(picture.width * picture.height * 4)
  k.turnPicture(picture.ptr, ptr, picture.width, picture.height, quarters)
  const across = quarters !== 2
  return {
    ...picture,
    ptr,
    width: across ? picture.height : picture.width,
    height: across ? picture.width : picture.height,
  }
}
