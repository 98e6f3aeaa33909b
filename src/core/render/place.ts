// A layer's picture brought to its place in the output: read as it lies where that is possible, resampled where not.
import type { Matrix } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { type Codes, isOpaque, type Linear, type Picture, rowReader } from './picture'
import { resample } from './resample'

/** A picture at its place, read by rows of the output. */
export interface PlacedPicture {
  opaque: boolean
  /** n f32 of row y: how much of each output pixel the picture covers; null where it covers all of them. */
  inside: ((y: number, out: number) => void) | null
  /** n straight codes of row y from column x on, all of them inside the picture. */
  codes(y: number, x: number, n: number, dst: number): void
  /** n premultiplied linear pixels, transparent outside; `spare` is room for n codes. */
  linear(y: number, x: number, n: number, dst: number, spare: number): void
  close(): void
}

const whole = (v: number): boolean => Math.abs(v - Math.round(v)) < 1e-9
const upright = ({ b, c }: Matrix): boolean => Math.abs(b) < 1e-9 && Math.abs(c) < 1e-9
/** Whether the picture's pixels fall on the output's one by one. */
const sits = (m: Matrix): boolean =>
  upright(m) && Math.abs(m.a - 1) < 1e-9 && Math.abs(m.d - 1) < 1e-9 && whole(m.x) && whole(m.y)

interface Box {
  left: number
  top: number
  right: number
  bottom: number
}

const boxOf = ({ width, height }: Size, { a, d, x, y }: Matrix): Box => ({
  left: Math.min(x, x + a * width),
  right: Math.max(x, x + a * width),
  top: Math.min(y, y + d * height),
  bottom: Math.max(y, y + d * height),
})

/** Whether a picture at its place reaches every border of the frame. Nearly, as an odd size halved does, counts. */
export function fillsFrame(picture: Size, place: Matrix, { width, height }: Size): boolean {
  if (!upright(place)) return false
  const { left, top, right, bottom } = boxOf(picture, place)
  return left < 0.51 && top < 0.51 && right > width - 0.51 && bottom > height - 0.51
}

/** Rows of a picture that lies with its corner on (ox, oy), whole px. */
function laid(k: Kernels, picture: Picture, ox: number, oy: number, done: () => void): Omit<PlacedPicture, 'inside'> {
  const rows = rowReader(k, picture)
  const { width, height } = picture
  const isLinear = picture.kind === 'linear'
  return {
    opaque: isOpaque(picture),
    codes(y, x, n, dst) {
      rows.open(y - oy)
      rows.read(x - ox, n, dst)
    },
    linear(y, x, n, dst, spare) {
      const from = Math.max(x, ox)
      const to = y < oy || y >= oy + height ? from : Math.min(x + n, ox + width)
      if (to <= from) {
        k.fillRow(dst, n, 0, 0, 0, 0)
        return
      }
      if (from > x) k.fillRow(dst, from - x, 0, 0, 0, 0)
      if (to < x + n) k.fillRow(dst + (to - x) * 16, x + n - to, 0, 0, 0, 0)
      const at = dst + (from - x) * 16
      if (isLinear) {
        k.bytes(at, (to - from) * 16).set(k.bytes(picture.ptr + ((y - oy) * width + from - ox) * 16, (to - from) * 16))
        return
      }
      rows.open(y - oy)
      rows.read(from - ox, to - from, spare)
      k.toLinear(spare, at, to - from)
    },
    close() {
      rows.close()
      done()
    },
  }
}

/** The picture as premultiplied linear light in a fresh buffer. */
function toLinearPicture(k: Kernels, picture: Picture): Linear {
  const { width, height } = picture
  const ptr = k.alloc(width * height * 16)
  const spare = k.alloc(width * 4)
  const rows = rowReader(k, picture)
  for (let y = 0; y < height; y++) {
    rows.open(y)
    rows.read(0, width, spare)
    k.toLinear(spare, ptr + y * width * 16, width)
  }
  rows.close()
  k.free(spare)
  return { kind: 'linear', width, height, ptr }
}

/** A turned picture, the size of the output: reduced first where it shrinks, so that no detail is skipped. */
function spun(k: Kernels, picture: Picture, m: Matrix, size: Size): Codes {
  const scale = Math.hypot(m.a, m.b)
  let source = picture
  let { a, b, c, d } = m
  if (scale < 1) {
    const width = Math.max(1, Math.round(picture.width * scale))
    const height = Math.max(1, Math.round(picture.height * scale))
    const across = width / picture.width
    const down = height / picture.height
    source = resample(k, picture, { width, height, x: 0, y: 0, scaleX: across, scaleY: down })
    a /= across
    b /= across
    c /= down
    d /= down
  }
  const linear = source.kind === 'linear' ? source : toLinearPicture(k, source)
  if (source !== picture) k.free(source.ptr)
  const { width, height } = size
  const ptr = k.alloc(width * height * 4)
  const row = k.alloc(width * 16)
  const det = a * d - b * c
  for (let y = 0; y < height; y++) {
    const px = 0.5 - m.x
    const py = y + 0.5 - m.y
    const u = (d * px - c * py) / det - 0.5
    const v = (a * py - b * px) / det - 0.5
    k.spinRow(linear.ptr, linear.width, linear.height, row, width, u, v, d / det, -b / det)
    k.toCodes(row, ptr + y * width * 4, width)
  }
  k.free(row)
  if (linear !== picture) k.free(linear.ptr)
  return { kind: 'codes', width, height, ptr, opaque: isOpaque(picture) }
}

/** A picture at its place in an output of some size. `close` frees what was made for it. */
export function placePicture(k: Kernels, picture: Picture, m: Matrix, size: Size): PlacedPicture {
  const { width, height } = size
  const fills = fillsFrame(picture, m, size)
  if (upright(m)) {
    const { left, top, right, bottom } = boxOf(picture, m)
    const inside = fills ? null : (y: number, out: number) => k.frameRectRow(out, width, y, left, top, right, bottom)
    // An odd size halved may lack a sliver at the border: then it has to be stretched over it.
    const reaches = !fills || (left <= 0 && top <= 0 && right >= width && bottom >= height)
    if (sits(m) && reaches) return { inside, ...laid(k, picture, Math.round(m.x), Math.round(m.y), () => {}) }
    const made = resample(k, picture, { width, height, x: m.x, y: m.y, scaleX: m.a, scaleY: m.d })
    return { inside, ...laid(k, made, 0, 0, () => k.free(made.ptr)) }
  }
  const made = spun(k, picture, m, size)
  const middle = { x: picture.width / 2, y: picture.height / 2 }
  const cx = m.a * middle.x + m.c * middle.y + m.x
  const cy = m.b * middle.x + m.d * middle.y + m.y
  const scale = Math.hypot(m.a, m.b)
  const hw = middle.x * scale
  const hh = middle.y * scale
  return {
    inside: (y, out) => k.boxRow(out, width, y, cx, cy, hw, hh, m.a / scale, m.b / scale, 0, 0, 0),
    ...laid(k, made, 0, 0, () => k.free(made.ptr)),
  }
}
