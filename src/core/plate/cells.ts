// A picture as what empty sets are compared by: cells of 2×2 px, in codes in which light is a factor.
import type { Kernels, Picture, Planes } from '../render'
import { planesLength, toCodesPicture, writePlanes } from '../render'
import type { Size } from '../shot/types'
import { type Plane, planeIn } from './plane'

/**
 * sRGB codes grow by a factor where light does once so much is added to them: 255 · 0.055, and the same in the range of luma.
 * (IEC 61966-2-1: code = 1.055 · light^(1/2.4) − 0.055.)
 */
export const LIFT = 14.025
const LIMITED = 219 / 255

/** Of a picture of `full` px, in the memory of `k`. Rows close together; y lifted, u and v about nought, in codes of full range. */
export interface Cells extends Size {
  k: Kernels
  full: Size
  y: Plane
  u: Plane
  v: Plane
  /** Luma of each px, in codes of full range, lifted. */
  luma: Plane
}

/** Throws OutOfMemory. */
export function blankCells(k: Kernels, full: Size): Cells {
  const width = (full.width + 1) >> 1
  const height = (full.height + 1) >> 1
  const plane = () => planeIn(k, width * height)
  return { k, full, width, height, y: plane(), u: plane(), v: plane(), luma: planeIn(k, full.width * full.height) }
}

/** What u and v add to red, green and blue (ITU-R BT.709, codes of full range). */
const [RED_V, GREEN_U, GREEN_V, BLUE_U] = [1.5748, -0.1873, -0.4681, 1.8556] as const

/** Cells as straight RGBA8, rows close together. */
export function cellsToRgba({ full, width, u, v, luma }: Cells): Uint8ClampedArray {
  const out = new Uint8ClampedArray(full.width * full.height * 4)
  for (let y = 0, p = 0; y < full.height; y++) {
    const row = (y >> 1) * width
    for (let x = 0; x < full.width; x++, p++) {
      const i = row + (x >> 1)
      const grey = luma[p]! - LIFT
      out[p * 4] = grey + RED_V * v[i]!
      out[p * 4 + 1] = grey + GREEN_U * u[i]! + GREEN_V * v[i]!
      out[p * 4 + 2] = grey + BLUE_U * u[i]!
      out[p * 4 + 3] = 255
    }
  }
  return out
}

/** Copies all planes. */
export function copyCells(from: Cells, to: Cells): void {
  for (const name of ['y', 'u', 'v', 'luma'] as const) to[name].set(from[name])
}

const isPlain = (picture: Picture): picture is Planes =>
  picture.kind === 'planes' && picture.halfColumns === 1 && picture.halfRows === 1

/** Reads a picture of the size of `out`, in the memory of `from`, into it. Throws OutOfMemory. */
export function readCells(from: Kernels, picture: Picture, out: Cells): void {
  if (isPlain(picture)) readPlanes(from, picture, out)
  else readOther(from, picture, out)
}

/** Whether `readSmaller` can read a picture: planes of at least that size. */
export const canShrink = (picture: Picture, { full }: Cells): picture is Planes =>
  isPlain(picture) && picture.width >= full.width && picture.height >= full.height

/** Reads a picture that is larger on both sides into `out`, each px the mean of the codes that it covers. Throws OutOfMemory. */
export function readSmaller(from: Kernels, picture: Planes, out: Cells): void {
  const { lumaScale, lumaLift, chromaScale } = scalesOf(picture)
  const half = { width: (picture.width + 1) >> 1, height: (picture.height + 1) >> 1 }
  const shrink = (plane: 0 | 1 | 2, size: Size, to: Float32Array, small: Size, scale: number, lift: number) =>
    from.scope(() => {
      const { width: w, height: h } = small
      const taps = 4 * Math.ceil((Math.ceil(size.width / w) + 1) / 4)
      const [row, made] = [from.alloc((size.width + 12 + taps) * 4), from.alloc(to.byteLength)]
      const [firsts, weights] = [from.alloc(w * 4), from.alloc(w * taps * 4)]
      const src = picture.ptr + picture.offsets[plane]
      const [stride, { width, height }] = [picture.strides[plane], size]
      from.shrinkPlane({
        src,
        stride,
        width,
        height,
        dst: made,
        toWidth: w,
        toHeight: h,
        scale,
        lift,
        row,
        firsts,
        weights,
        taps,
      })
      to.set(from.floats(made, to.length))
    })
  shrink(0, picture, out.luma, out.full, lumaScale, lumaLift)
  shrink(1, half, out.u, out, chromaScale, -128 * chromaScale)
  shrink(2, half, out.v, out, chromaScale, -128 * chromaScale)
  halveLuma(out)
}

/** By way of codes and planes of even sides. */
function readOther(k: Kernels, picture: Picture, out: Cells): void {
  const { width, height } = picture
  const even = { width: (width + 1) & ~1, height: (height + 1) & ~1 }
  k.scope(() => {
    const codes = picture.kind === 'codes' ? picture : toCodesPicture(k, picture)
    if (picture.kind !== 'codes') k.keep(codes.ptr)
    const padded = k.alloc(even.width * even.height * 4)
    for (let y = 0; y < even.height; y++) {
      const from = codes.ptr + Math.min(y, height - 1) * width * 4
      k.copyBytes(padded + y * even.width * 4, from, width * 4)
      if (even.width > width) k.copyBytes(padded + (y * even.width + width) * 4, from + (width - 1) * 4, 4)
    }
    if (picture.kind !== 'codes') k.free(codes.ptr)
    const ptr = k.alloc(planesLength(even.width, even.height))
    writePlanes(k, { kind: 'codes', ...even, ptr: padded, opaque: true }, ptr)
    const chroma = (even.width >> 1) * (even.height >> 1)
    const planes: Planes = {
      kind: 'planes',
      width,
      height,
      ptr,
      offsets: [0, even.width * even.height, even.width * even.height + chroma],
      strides: [even.width, even.width >> 1, even.width >> 1],
      halfColumns: 1,
      halfRows: 1,
      chroma: { across: 'even', down: 'between' },
      matrix: 'bt709',
      fullRange: false,
    }
    readPlanes(k, planes, out)
  })
}

/** What codes of a picture are multiplied by, and what is added to those of luma then. */
function scalesOf({ fullRange }: Planes) {
  const [lumaScale, black, chromaScale] = fullRange ? [1, 0, 1] : [1 / LIMITED, 16, 255 / 224]
  return { lumaScale, lumaLift: LIFT - black * lumaScale, chromaScale }
}

/** A plane of a picture in the memory of the cells, until the present scope is left. */
function brought(from: Kernels, picture: Planes, plane: 0 | 1 | 2, bytes: number, k: Kernels): number {
  const ptr = k.alloc(bytes)
  k.bytes(ptr, bytes).set(from.bytes(picture.ptr + picture.offsets[plane], bytes))
  return ptr
}

/** The mean luma of each cell. */
function halveLuma({ k, full, luma, width, height, y: cells }: Cells): void {
  for (let y = 0; y < height; y++) {
    const top = luma.byteOffset + y * 2 * full.width * 4
    const bottom = y * 2 + 1 < full.height ? top + full.width * 4 : top
    k.halfRow(top, bottom, cells.byteOffset + y * width * 4, full.width)
  }
}

function readPlanes(from: Kernels, picture: Planes, out: Cells): void {
  const { k, full, width, height, luma } = out
  const [strideY, strideC] = picture.strides
  const { lumaScale, lumaLift, chromaScale } = scalesOf(picture)
  k.scope(() => {
    const rows = brought(from, picture, 0, strideY * full.height, k)
    for (let y = 0; y < full.height; y++) {
      k.liftRow(rows + y * strideY, luma.byteOffset + y * full.width * 4, full.width, lumaScale, lumaLift)
    }
    for (const [plane, to] of [
      [1, out.u],
      [2, out.v],
    ] as const) {
      const chroma = brought(from, picture, plane, strideC * height, k)
      for (let y = 0; y < height; y++) {
        k.liftRow(chroma + y * strideC, to.byteOffset + y * width * 4, width, chromaScale, -128 * chromaScale)
      }
    }
    halveLuma(out)
  })
}
