// Pictures read row by row: however a picture is made, no more of it is ever there than the rows at hand.
import type { Box } from '../affine'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import type { Codes, Matrix, Picture, Planes } from './picture'

/**
 * A picture by rows. `open(y)` once a row, then any number of reads from it. What it reserves belongs to the scope in
 * which it was made.
 */
export interface Rows extends Size {
  /** Whether every pixel hides what is behind it. */
  opaque: boolean
  /** Whether rows can be read in any order at no more than their own cost. */
  steady?: true
  /** What lies beyond is seen through; left out: nothing is known. */
  extent?: Box
  /** The picture as its decoder gave it, where these are its rows. */
  planes?: Planes
  open(y: number): void
  /** n straight RGBA8 pixels from column x on, at dst. */
  codes(x: number, n: number, dst: number): void
  /** n premultiplied linear pixels from column x on, at dst; `spare` is room for n codes. */
  linear(x: number, n: number, dst: number, spare: number): void
}

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
  smpte240m: [0.212, 0.087],
}

/** The shares of red and blue in luma, by a matrix. */
export const lumaShares = (matrix: Matrix): readonly [number, number] => SHARES[matrix]

/** Matrix coefficients times 8192, for codes of the given range. */
export function coefficients(matrix: Matrix, fullRange: boolean): Coefficients {
  const [kr, kb] = lumaShares(matrix)
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

/** The two rows of chroma about row y of a picture, and how many quarters the first counts. */
function chromaRows({ height, halfRows, chroma }: Planes, y: number): { near: number; far: number; weight: number } {
  if (!halfRows) return { near: y, far: y, weight: 4 }
  const last = ((height + 1) >> 1) - 1
  const near = y >> 1
  const odd = (y & 1) === 1
  const within = (row: number) => Math.max(0, Math.min(last, row))
  if (chroma.down === 'between') return { near, far: within(odd ? near + 1 : near - 1), weight: 3 }
  if (odd === (chroma.down === 'odd')) return { near, far: near, weight: 4 }
  return { near, far: within(odd ? near + 1 : near - 1), weight: 2 }
}

function planesRows(k: Kernels, picture: Planes): Rows {
  const { width, height } = picture
  const c = coefficients(picture.matrix, picture.fullRange)
  const u = k.alloc((width + 32) * 4)
  const v = u + (width + 32) * 2
  const chromaWidth = (width + picture.halfColumns) >> picture.halfColumns
  const centred = picture.chroma.across === 'between' ? 1 : 0
  let luma = 0
  let opened = -1
  /** Where the rows of chroma are, and the columns for which chroma is made: often it is wanted along an edge only. */
  let about = chromaRows(picture, 0)
  let madeFrom = 0
  let madeTo = 0
  const makePlane = (plane: 1 | 2, first: number, samples: number, from: number, to: number, out: number) => {
    const base = picture.ptr + picture.offsets[plane] + first
    const near = base + about.near * picture.strides[plane]
    const far = base + about.far * picture.strides[plane]
    k.chromaRow(near, far, about.weight, samples, to - from, picture.halfColumns, centred, out + from * 2)
  }
  const makeChroma = (x: number, n: number) => {
    const some = n < width >> 2
    // Some columns more at either side, since there the kernel takes the border of what it is given for the picture's.
    const from = some ? Math.max(0, (x & ~1) - 2) : 0
    const to = some ? Math.min(width, x + n + 2) : width
    const first = from >> picture.halfColumns
    const samples = Math.min(chromaWidth - first, ((to - from) >> picture.halfColumns) + 2)
    makePlane(1, first, samples, from, to, u)
    makePlane(2, first, samples, from, to, v)
    madeFrom = some ? x : 0
    madeTo = some ? x + n : width
  }
  const codes = (x: number, n: number, dst: number) => {
    if (x < madeFrom || x + n > madeTo) makeChroma(x, n)
    k.yuvRow(luma + x, u + x * 2, v + x * 2, dst, n, c.black, c.y, c.rv, c.gu, c.gv, c.bu)
  }
  return {
    width,
    height,
    opaque: true,
    steady: true,
    planes: picture,
    open(y) {
      if (opened === y) return
      opened = y
      luma = picture.ptr + picture.offsets[0] + y * picture.strides[0]
      about = chromaRows(picture, y)
      madeFrom = 0
      madeTo = 0
    },
    codes,
    linear(x, n, dst, spare) {
      codes(x, n, spare)
      k.toLinear(spare, dst, n)
    },
  }
}

/** Rows of straight codes that lie close together at ptr. */
export function codesRows(k: Kernels, { width, height, ptr, opaque, extent }: Codes): Rows {
  let row = 0
  return {
    width,
    height,
    opaque,
    ...(extent && { extent }),
    steady: true,
    open: y => {
      row = ptr + y * width * 4
    },
    codes: (x, n, dst) => {
      k.copyBytes(dst, row + x * 4, n * 4)
    },
    linear: (x, n, dst) => k.toLinear(row + x * 4, dst, n),
  }
}

/** How a row of premultiplied linear pixels is read. */
export const floatReads = (k: Kernels, row: () => number): Pick<Rows, 'codes' | 'linear'> => ({
  codes: (x, n, dst) => k.toCodes(row() + x * 16, dst, n),
  linear: (x, n, dst) => {
    k.copyBytes(dst, row() + x * 16, n * 16)
  },
})

/** Rows of premultiplied linear pixels that lie whole in memory. */
export function floatRows(k: Kernels, { width, height }: Size, ptr: number, stride: number, opaque: boolean): Rows {
  let row = ptr
  return {
    width,
    height,
    opaque,
    steady: true,
    open: y => {
      row = ptr + y * stride
    },
    ...floatReads(k, () => row),
  }
}

export const pictureRows = (k: Kernels, picture: Picture): Rows =>
  picture.kind === 'planes' ? planesRows(k, picture) : codesRows(k, picture)

/** `#rrggbb` as a little-endian RGBA8 word, opaque. */
export const word = (colour: string): number => {
  const n = Number.parseInt(colour.slice(1), 16)
  return (0xff000000 | ((n & 255) << 16) | (n & 0xff00) | (n >> 16)) >>> 0
}

export function fillCodes(k: Kernels, value: number, n: number, dst: number): void {
  new Uint32Array(k.bytes(dst, n * 4).buffer, dst, n).fill(value)
}

/** One colour everywhere. */
export function colourRows(k: Kernels, colour: string, { width, height }: Size): Rows {
  const value = word(colour)
  return {
    width,
    height,
    opaque: true,
    open() {},
    codes: (_, n, dst) => fillCodes(k, value, n, dst),
    linear(_, n, dst, spare) {
      fillCodes(k, value, n, spare)
      k.toLinear(spare, dst, n)
    },
  }
}

/** Two pictures of one size as one, the other with a share: in linear light, as a shutter would have mixed them. */
export function mixedRows(k: Kernels, one: Rows, other: Rows, share: number): Rows {
  const { width, height } = one
  const codes = k.alloc(width * 4)
  const sum = k.alloc(width * 16)
  const linear = k.alloc(width * 16)
  const parts = [
    { rows: one, weight: 1 - share },
    { rows: other, weight: share },
  ]
  let opened = -1
  return {
    width,
    height,
    opaque: one.opaque && other.opaque,
    open(y) {
      if (opened === y) return
      opened = y
      k.fillRow(sum, width, 0, 0, 0, 0)
      for (const { rows, weight } of parts) {
        rows.open(y)
        rows.linear(0, width, linear, codes)
        k.accumulateRow(sum, linear, width, weight)
      }
    },
    ...floatReads(k, () => sum),
  }
}

/** Every row as straight codes, in a fresh buffer that outlasts the present scope; the caller frees it. */
export function codesOf(k: Kernels, rows: Rows, opaque = rows.opaque): Codes {
  const { width, height } = rows
  const ptr = k.alloc(width * height * 4)
  for (let y = 0; y < height; y++) {
    rows.open(y)
    rows.codes(0, width, ptr + y * width * 4)
  }
  return { kind: 'codes', width, height, ptr: k.keep(ptr), opaque }
}
