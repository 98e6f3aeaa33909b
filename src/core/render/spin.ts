// Turned pictures, made in tiles: a tile needs only what lies under it, wherever the source's rows run.
import { digestOf, type PlannedLayer } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { resampledRows } from './resample'
import { floatReads, floatRows, type Rows } from './rows'

/** Columns of a tile, and its rows where there is room for a band of so many. */
const ACROSS = 64
const DOWN = 32
/** What part of the free memory's upper half one turned picture may take for its band: the lower half is for all else. */
const BAND_SHARE = 1 / 32
/** Px about the part of a source that a tile needs: the filter's reach and what `spinRow` repeats beyond the border. */
const MARGIN = 3

/** Sources of turned pictures that are made once a frame, by what they were made from. */
export type Shared = Map<string, Rows>

interface Part {
  left: number
  top: number
  right: number
  bottom: number
}

/** A source that can be read in any order at no more than its own cost: the whole of it, made once a frame. */
function steady(k: Kernels, shared: Shared, key: string, make: () => Rows): Rows {
  const known = shared.get(key)
  if (known) return known
  const rows = make()
  const { width, height } = rows
  const ptr = k.alloc(width * height * 16)
  const spare = k.alloc(width * 4)
  for (let y = 0; y < height; y++) {
    rows.open(y)
    rows.linear(0, width, ptr + y * width * 16, spare)
  }
  const made = floatRows(k, rows, ptr, width * 16, rows.opaque)
  shared.set(key, made)
  // It may be made for something that is kept, in a scope that ends before the frame does.
  k.atEnd(() => void shared.delete(key))
  return made
}

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

  /** The part of the source under columns [left, right) of rows [top, bottom); null where they look past it. */
  function partUnder({ left, top, right, bottom }: Part): Part | null {
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
  }

  const room = Math.floor(((k.largestFree() - k.total / 2) * BAND_SHARE) / (width * 16))
  const band = Math.max(1, Math.min(height, DOWN, room))
  const made = k.alloc(width * 16 * band)
  const ready = new Uint8Array(Math.ceil(width / ACROSS))
  let first = Number.NaN
  let row = made

  function makeTile(left: number): void {
    const tile = { left, top: first, right: Math.min(width, left + ACROSS), bottom: Math.min(height, first + band) }
    const across = tile.right - left
    const part = partUnder(tile)
    const target = (y: number) => made + ((y - first) * width + left) * 16
    if (!part) {
      for (let y = first; y < tile.bottom; y++) k.fillRow(target(y), across, 0, 0, 0, 0)
      return
    }
    k.scope(() => {
      const w = part.right - part.left
      const linear = k.alloc(w * (part.bottom - part.top) * 16)
      const spare = k.alloc(w * 4)
      for (let v = part.top; v < part.bottom; v++) {
        source.open(v)
        source.linear(part.left, w, linear + (v - part.top) * w * 16, spare)
      }
      // As if all of the source were there: what is read lies in the part, and the numbers do not depend on it.
      const origin = linear - (part.top * w + part.left) * 16
      for (let y = first; y < tile.bottom; y++) {
        const { u, v } = at(left, y)
        k.spinRow(origin, w, source.width, source.height, target(y), across, u, v, d / det, -b / det)
        k.boundRow(target(y), across)
      }
    })
  }

  const read = floatReads(k, () => row)

  /** Sees to it that n pixels from column x on are there. */
  function ensure(x: number, n: number): void {
    for (let i = Math.floor(x / ACROSS); i * ACROSS < x + n; i++) {
      if (ready[i]) continue
      makeTile(i * ACROSS)
      ready[i] = 1
    }
  }

  return {
    width,
    height,
    opaque: picture.opaque,
    open(y) {
      const from = y - (y % band)
      if (from !== first) {
        first = from
        ready.fill(0)
      }
      row = made + (y - from) * width * 16
    },
    codes: (x, n, dst) => {
      ensure(x, n)
      read.codes(x, n, dst)
    },
    linear: (x, n, dst, spare) => {
      ensure(x, n)
      read.linear(x, n, dst, spare)
    },
  }
}
