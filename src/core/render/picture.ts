// Pictures in the kernels' memory, and how their rows become 8-bit codes.
import type { Kernels } from './kernels'

/** ITU-T H.273 names. Anything else is read as BT.709. */
export type Matrix = 'bt709' | 'bt601' | 'bt2020'

export interface Planes {
  kind: 'planes'
  width: number
  height: number
  ptr: number
  /** Byte offsets from ptr and row strides of Y, U, V. */
  offsets: readonly [number, number, number]
  strides: readonly [number, number, number]
  /** 1 where chroma has half the columns or rows. */
  halfColumns: 0 | 1
  halfRows: 0 | 1
  /** Whether chroma samples lie between columns rather than on the even ones. */
  centred: boolean
  matrix: Matrix
  fullRange: boolean
}

/** Straight (not premultiplied) sRGB codes. */
export interface Codes {
  kind: 'codes'
  width: number
  height: number
  ptr: number
  opaque: boolean
}

/** Premultiplied linear light, four f32 a pixel: what a group renders to. */
export interface Linear {
  kind: 'linear'
  width: number
  height: number
  ptr: number
}

export type Picture = Planes | Codes | Linear

interface Coefficients {
  black: number
  y: number
  rv: number
  gu: number
  gv: number
  bu: number
}

/** Luma shares of red and blue, H.273 table 4. */
const SHARES: Readonly<Record<Matrix, readonly [number, number]>> = {
  bt709: [0.2126, 0.0722],
  bt601: [0.299, 0.114],
  bt2020: [0.2627, 0.0593],
}

/** Matrix coefficients times 8192, for codes of the given range. */
export function coefficients(matrix: Matrix, fullRange: boolean): Coefficients {
  const [kr, kb] = SHARES[matrix]
  const kg = 1 - kr - kb
  const fix = (v: number) => Math.round(v * 8192)
  const chroma = fullRange ? 1 : 255 / 224
  return {
    black: fullRange ? 0 : 16,
    y: fix(fullRange ? 1 : 255 / 219),
    rv: fix(2 * (1 - kr) * chroma),
    gu: fix((-2 * (1 - kb) * kb * chroma) / kg),
    gv: fix((-2 * (1 - kr) * kr * chroma) / kg),
    bu: fix(2 * (1 - kb) * chroma),
  }
}

/** Reads runs of a row as codes: `open(y)` once a row, then any number of `read`s. Call `close` when done. */
export interface RowReader {
  open(y: number): void
  /** n straight RGBA8 pixels from column x on, at dst. */
  read(x: number, n: number, dst: number): void
  close(): void
}

function planesReader(k: Kernels, picture: Planes): RowReader {
  const c = coefficients(picture.matrix, picture.fullRange)
  const rows = k.alloc((picture.width + 32) * 4)
  const u = rows
  const v = rows + (picture.width + 32) * 2
  const chromaWidth = (picture.width + picture.halfColumns) >> picture.halfColumns
  const chromaHeight = (picture.height + picture.halfRows) >> picture.halfRows
  let luma = 0
  let opened = -1
  return {
    open(y) {
      luma = picture.ptr + picture.offsets[0] + y * picture.strides[0]
      if (opened === y) return
      opened = y
      const near = y >> picture.halfRows
      const far = picture.halfRows ? Math.max(0, Math.min(chromaHeight - 1, y & 1 ? near + 1 : near - 1)) : near
      const weight = picture.halfRows ? 3 : 4
      for (const [plane, out] of [
        [1, u],
        [2, v],
      ] as const) {
        const base = picture.ptr + picture.offsets[plane]
        const stride = picture.strides[plane]
        const half = picture.halfColumns
        const centred = picture.centred ? 1 : 0
        k.chromaRow(base + near * stride, base + far * stride, weight, chromaWidth, picture.width, half, centred, out)
      }
    },
    read: (x, n, dst) => k.yuvRow(luma + x, u + x * 2, v + x * 2, dst, n, c.black, c.y, c.rv, c.gu, c.gv, c.bu),
    close: () => k.free(rows),
  }
}

/** A reader of a picture's rows as straight 8-bit codes. */
export function rowReader(k: Kernels, picture: Picture): RowReader {
  if (picture.kind === 'planes') return planesReader(k, picture)
  const { width, ptr } = picture
  let row = 0
  if (picture.kind === 'linear') {
    return {
      open: y => {
        row = ptr + y * width * 16
      },
      read: (x, n, dst) => k.toCodes(row + x * 16, dst, n),
      close: () => {},
    }
  }
  return {
    open: y => {
      row = ptr + y * width * 4
    },
    read: (x, n, dst) => {
      k.bytes(dst, n * 4).set(k.bytes(row + x * 4, n * 4))
    },
    close: () => {},
  }
}

/** The whole picture as straight RGBA8, in a fresh buffer of kernel memory that the caller frees. */
export function toCodesPicture(k: Kernels, picture: Picture): Codes {
  const { width, height } = picture
  const ptr = k.alloc(width * height * 4)
  const rows = rowReader(k, picture)
  for (let y = 0; y < height; y++) {
    rows.open(y)
    rows.read(0, width, ptr + y * width * 4)
  }
  rows.close()
  return { kind: 'codes', width, height, ptr, opaque: isOpaque(picture) }
}

/** Whether every pixel hides what is behind it. */
export const isOpaque = (picture: Picture): boolean =>
  picture.kind === 'planes' || (picture.kind === 'codes' && picture.opaque)

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
