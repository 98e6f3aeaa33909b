// Pictures read into cells, at their own size or smaller.
import type { Kernels, Picture, Planes } from '../render'
import { planesLength, toCodesPicture, writePlanes } from '../render'
import type { Size } from '../shot/types'
import { type Cells, LIFT } from './cells'
import { toBt709 } from './matrix'

const LIMITED = 219 / 255

const isPlain = (picture: Picture): picture is Planes =>
  picture.kind === 'planes' && picture.halfColumns === 1 && picture.halfRows === 1

/** Reads a picture of the size of `out`, in the memory of `from`, into it. Throws OutOfMemory. */
export function readCells(from: Kernels, picture: Picture, out: Cells): void {
  if (isPlain(picture)) readPlanes(from, picture, out)
  else withPlanes(from, picture, planes => readPlanes(from, planes, out))
}

/** Whether `readSmaller` can read a picture: it is larger on both sides, or as large. */
export const canShrink = ({ width, height }: Size, { full }: Cells): boolean =>
  width >= full.width && height >= full.height

/** Reads a picture that is larger on both sides into `out`, each px the mean of the codes that it covers. Throws OutOfMemory. */
export function readSmaller(from: Kernels, picture: Picture, out: Cells): void {
  if (isPlain(picture)) shrinkPlanes(from, picture, out)
  else withPlanes(from, picture, planes => shrinkPlanes(from, planes, out))
}

function shrinkPlanes(from: Kernels, picture: Planes, out: Cells): void {
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
  finish(out, picture)
}

/** A picture of any kind as planes of halved chroma, by way of codes and even sides. */
function withPlanes(k: Kernels, picture: Picture, use: (planes: Planes) => void): void {
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
    use({
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
    })
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

/** What follows once luma and chroma are read of a picture. What no picture can show is as it shows: a plate may be a still, which had to be. */
function finish(out: Cells, { matrix, chroma }: Planes): void {
  const { k, full, luma, u, v } = out
  out.chroma = chroma
  if (matrix !== 'bt709') toBt709(out, matrix)
  k.clipCells(luma.byteOffset, u.byteOffset, v.byteOffset, full.width, full.height, LIFT)
  halveLuma(out)
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
    finish(out, picture)
  })
}
