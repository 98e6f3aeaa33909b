// Part of a picture by itself: what is told of it costs what the part is large.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import { type Part, type Plane, partAt, pxOf, roomFor } from './plane'

const isAll = (part: Part, { width, height }: Size): boolean => part.width === width && part.height === height

/** Part of a plane of such a size, rows close together; all of it: the plane itself. Throws OutOfMemory. */
export function cropPlane(k: Kernels, plane: Plane, size: Size, part: Part): Plane {
  if (isAll(part, size)) return plane
  const out = roomFor(k, part.width * part.height)
  const [fromStep, toStep] = [size.width * 4, part.width * 4]
  k.copyRows({
    src: partAt(plane, size.width, part),
    fromStep,
    dst: out.byteOffset,
    toStep,
    n: toStep,
    rows: part.height,
  })
  return out
}

/** Part of a picture's cells. Throws OutOfMemory. */
export function cropCells(cells: Cells, part: Part): Cells {
  const { k, full, chroma } = cells
  if (isAll(part, cells)) return cells
  const px = pxOf(part, full)
  const [y, u, v] = [cells.y, cells.u, cells.v].map(plane => cropPlane(k, plane, cells, part)) as [Plane, Plane, Plane]
  const { width, height } = part
  const luma = cropPlane(k, cells.luma, full, px)
  return { k, full: { width: px.width, height: px.height }, chroma, width, height, y, u, v, luma }
}

/** Part of numbers of such a size, rows close together in `out`. */
export function crop<T extends Float32Array | Uint8Array>(of: T, size: Size, part: Part, out: T): T {
  const { x, width, height } = part
  for (let row = 0, at = part.y * size.width + x; row < height; row++, at += size.width)
    out.set(of.subarray(at, at + width), row * width)
  return out
}

/** Puts a part back where it belongs; the rest is left alone. */
export function paste<T extends Float32Array | Uint8Array>(of: T, part: Part, out: T, size: Size): void {
  const { x, width, height } = part
  for (let row = 0; row < height; row++)
    out.set(of.subarray(row * width, (row + 1) * width), (part.y + row) * size.width + x)
}

/** Puts part of a plane back where it belongs, both in the memory of the kernels. */
export function pastePlane(k: Kernels, of: Plane, part: Part, out: Plane, size: Size): void {
  if (of === out) return
  const [fromStep, toStep] = [part.width * 4, size.width * 4]
  k.copyRows({
    src: of.byteOffset,
    fromStep,
    dst: partAt(out, size.width, part),
    toStep,
    n: fromStep,
    rows: part.height,
  })
}

/** Makes all of a part the same. */
export function fillPart(out: Float32Array, part: Part, size: Size, value: number): void {
  const { x, y, width, height } = part
  for (let row = y; row < y + height; row++) out.fill(value, row * size.width + x, row * size.width + x + width)
}
