// Turned pictures.
import { digestOf, type PlannedLayer } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { resampledRows } from './resample'
import type { Rows } from './rows'
import { type Shared, steady, tiledRows } from './tiles'

/** Px about the part of a source that a tile needs: the filter's reach and what `spinRow` repeats beyond the border. */
const MARGIN = 3

/** A picture turned (and enlarged) by a matrix, the size of the output; where it shrinks it is reduced first, so that no detail is skipped. */
export function spunRows(
  k: Kernels,
  picture: Rows,
  { picture: planned, looks, place: m }: Pick<PlannedLayer, 'picture' | 'looks' | 'place'>,
  { width, height }: Size,
  shared: Shared,
): Rows {
  const scale = Math.hypot(m.a, m.b)
  const digest = () => digestOf(planned) + digestOf(looks)
  let source = picture
  let { a, b, c, d } = m
  if (scale < 1) {
    const reduced = {
      width: Math.max(1, Math.round(picture.width * scale)),
      height: Math.max(1, Math.round(picture.height * scale)),
    }
    const across = reduced.width / picture.width
    const down = reduced.height / picture.height
    source = steady(k, shared, `${reduced.width}x${reduced.height} ${digest()}`, () =>
      resampledRows(k, picture, { ...reduced, x: 0, y: 0, scaleX: across, scaleY: down }),
    )
    a /= across
    b /= across
    c /= down
    d /= down
  } else if (!picture.steady) source = steady(k, shared, digest(), () => picture)
  const det = a * d - b * c
  /** The source's px at a point of the output, whole numbers at pixel centres. */
  const at = (x: number, y: number) => {
    const px = x + 0.5 - m.x
    const py = y + 0.5 - m.y
    return { u: (d * px - c * py) / det - 0.5, v: (a * py - b * px) / det - 0.5 }
  }
  return tiledRows(k, source, {
    width,
    height,
    opaque: picture.opaque,
    partUnder({ left, top, right, bottom }) {
      const corners = [at(left, top), at(right - 1, top), at(left, bottom - 1), at(right - 1, bottom - 1)]
      const us = corners.map(p => p.u)
      const vs = corners.map(p => p.v)
      const part = {
        left: Math.max(0, Math.floor(Math.min(...us)) - MARGIN),
        right: Math.min(source.width, Math.ceil(Math.max(...us)) + MARGIN + 1),
        top: Math.max(0, Math.floor(Math.min(...vs)) - MARGIN),
        bottom: Math.min(source.height, Math.ceil(Math.max(...vs)) + MARGIN + 1),
      }
      return part.left < part.right && part.top < part.bottom ? part : null
    },
    row(origin, across, x, y, n, out) {
      const { u, v } = at(x, y)
      k.spinRow(origin, across, source.width, source.height, out, n, u, v, d / det, -b / det)
    },
  })
}
