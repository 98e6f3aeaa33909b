// A layer's picture brought to its place in the output: read as it lies where that is possible, resampled where not.
import type { Affine, Box } from '../affine'
import type { Plan, PlannedLayer } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import type { Planes } from './picture'
import { resampledRows } from './resample'
import type { Rows } from './rows'
import { spunRows } from './spin'
import type { Shared } from './tiles'

/** A picture at its place, read by rows of the output: `codes` only inside the picture, `linear` anywhere. */
export interface PlacedPicture extends Pick<Rows, 'opaque' | 'open' | 'codes' | 'linear'> {
  /** n f32 of row y: how much of each output pixel the picture covers; null where it covers all of them. */
  inside: ((y: number, out: number) => void) | null
  /** The decoder's own planes, where the output shows them as they lie, with their corner at (x, y). */
  planes?: { picture: Planes; x: number; y: number }
}

const whole = (v: number): boolean => Math.abs(v - Math.round(v)) < 1e-9
const upright = ({ b, c }: Affine): boolean => Math.abs(b) < 1e-9 && Math.abs(c) < 1e-9
/** Whether the picture's pixels fall on the output's one by one. */
const sits = (m: Affine): boolean =>
  upright(m) && Math.abs(m.a - 1) < 1e-9 && Math.abs(m.d - 1) < 1e-9 && whole(m.x) && whole(m.y)

const boxOf = ({ width, height }: Size, { a, d, x, y }: Affine): Box => ({
  left: Math.min(x, x + a * width),
  right: Math.max(x, x + a * width),
  top: Math.min(y, y + d * height),
  bottom: Math.max(y, y + d * height),
})

/** The frame's px that an upright picture may show something in, whole ones; null where it may be all of its own. */
function seenOf({ extent }: Rows, { a, d, x, y }: Affine): Box | null {
  if (!extent) return null
  const { left, top, right, bottom } = extent
  return {
    left: Math.floor(Math.min(x + a * left, x + a * right)) - 2,
    top: Math.floor(Math.min(y + d * top, y + d * bottom)) - 2,
    right: Math.ceil(Math.max(x + a * left, x + a * right)) + 2,
    bottom: Math.ceil(Math.max(y + d * top, y + d * bottom)) + 2,
  }
}

/** Whether a picture at its place reaches every border of the frame. Nearly, as an odd size halved does, counts. */
function fillsFrame(picture: Size, place: Affine, { width, height }: Size): boolean {
  if (!upright(place)) return false
  const { left, top, right, bottom } = boxOf(picture, place)
  return left < 0.51 && top < 0.51 && right > width - 0.51 && bottom > height - 0.51
}

/** Whether nothing behind a layer can show, whatever its picture is like: it may still be smaller than the frame. */
export const mayHide = ({ opacity, blend, matte }: PlannedLayer): boolean =>
  opacity >= 1 && blend === 'normal' && matte.length === 0

/** Whether nothing behind a layer with this picture shows. */
export const hides = (plan: Plan, layer: PlannedLayer, picture: Size & { opaque: boolean }): boolean =>
  mayHide(layer) && picture.opaque && fillsFrame(picture, layer.place, plan.size)

/** Rows of a picture that lies with its corner on (ox, oy), whole px. */
function laid(k: Kernels, rows: Rows, ox: number, oy: number): Omit<PlacedPicture, 'inside'> {
  // Rows are of many shapes: what is called for every run of every row is not looked up in them each time.
  const { width, height, opaque, open: openRow, codes: rowCodes, linear: rowLinear } = rows
  let beside = true
  return {
    opaque,
    open(y) {
      beside = y < oy || y >= oy + height
      if (!beside) openRow(y - oy)
    },
    codes: (x, n, dst) => rowCodes(x - ox, n, dst),
    linear(x, n, dst, spare) {
      const from = Math.max(x, ox)
      const to = beside ? from : Math.min(x + n, ox + width)
      if (to <= from) {
        k.fillRow(dst, n, 0, 0, 0, 0)
        return
      }
      if (from > x) k.fillRow(dst, from - x, 0, 0, 0, 0)
      if (to < x + n) k.fillRow(dst + (to - x) * 16, x + n - to, 0, 0, 0, 0)
      rowLinear(from - ox, to - from, dst + (from - x) * 16, spare)
    },
  }
}

/** A picture at its place in an output of some size. */
export function placePicture(
  k: Kernels,
  picture: Rows,
  layer: Pick<PlannedLayer, 'picture' | 'looks' | 'place'>,
  size: Size,
  shared: Shared,
): PlacedPicture {
  const m = layer.place
  const { width, height } = size
  const fills = fillsFrame(picture, m, size)
  if (upright(m)) {
    const { left, top, right, bottom } = boxOf(picture, m)
    const shown = seenOf(picture, m)
    const inside = shown
      ? (y: number, out: number) => k.frameRectRow(out, width, y, shown.left, shown.top, shown.right, shown.bottom)
      : fills
        ? null
        : (y: number, out: number) => k.frameRectRow(out, width, y, left, top, right, bottom)
    // An odd size halved may lack a sliver at the border: then it has to be stretched over it.
    const reaches = !fills || (left <= 0 && top <= 0 && right >= width && bottom >= height)
    if (sits(m) && reaches) {
      const [x, y] = [Math.round(m.x), Math.round(m.y)]
      const planes = picture.planes && { picture: picture.planes, x, y }
      return { inside, ...laid(k, picture, x, y), ...(planes && { planes }) }
    }
    const made = resampledRows(k, picture, { width, height, x: m.x, y: m.y, scaleX: m.a, scaleY: m.d })
    return { inside, ...laid(k, made, 0, 0) }
  }
  const middle = { x: picture.width / 2, y: picture.height / 2 }
  const cx = m.a * middle.x + m.c * middle.y + m.x
  const cy = m.b * middle.x + m.d * middle.y + m.y
  const scale = Math.hypot(m.a, m.b)
  const hw = middle.x * scale
  const hh = middle.y * scale
  return {
    inside: (y, out) => k.boxRow(out, width, y, cx, cy, hw, hh, m.a / scale, m.b / scale, 0, 0, 0),
    ...laid(k, spunRows(k, picture, layer, size, shared), 0, 0),
  }
}
