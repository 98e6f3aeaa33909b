// Pictures made in tiles: a tile needs only what lies under it, wherever the rows of its source run.
import type { Box } from '../affine'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { floatReads, floatRows, type Rows } from './rows'

/** Columns of a tile, and its rows where there is room for a band of so many. */
const ACROSS = 64
const DOWN = 32
/** What part of the free memory's upper half one picture may take for its band: the lower half is for all else. */
const BAND_SHARE = 1 / 32

/** Sources of such pictures that are made once a frame, by what they were made from. */
export type Shared = Map<string, Rows>

/** A source that can be read in any order at no more than its own cost: the whole of it, made once a frame. */
export function steady(k: Kernels, shared: Shared, key: string, make: () => Rows): Rows {
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

export interface Tiling extends Size {
  opaque: boolean
  /** What lies beyond is seen through; left out: nothing is known. */
  extent?: Box
  /** The whole px of the source, within it, that a tile looks at; null where it looks past it. */
  partUnder(tile: Box): Box | null
  /**
   * n pixels of row y from column x on, at out; `origin` is where the source's first pixel would lie if all of it were there, `across` pixels a row: only the part
   * that lies under the tile is. Rows of a tile are made right after its part was asked for.
   */
  row(origin: number, across: number, x: number, y: number, n: number, out: number): void
}

/** Rows of what is made in tiles from a source that can be read in any order. */
export function tiledRows(k: Kernels, source: Rows, tiling: Tiling): Rows {
  const { width, height, opaque, extent, partUnder } = tiling
  const room = Math.floor(((k.largestFree() - k.total / 2) * BAND_SHARE) / (width * 16))
  const band = Math.max(1, Math.min(height, DOWN, room))
  const made = k.alloc(width * 16 * band)
  const ready = new Uint8Array(Math.ceil(width / ACROSS))
  let first = Number.NaN
  let row = made

  function makeTile(left: number): void {
    const tile = { left, top: first, right: Math.min(width, left + ACROSS), bottom: Math.min(height, first + band) }
    const n = tile.right - left
    const part = partUnder(tile)
    const target = (y: number) => made + ((y - first) * width + left) * 16
    if (!part) {
      for (let y = first; y < tile.bottom; y++) k.fillRow(target(y), n, 0, 0, 0, 0)
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
      const origin = linear - (part.top * w + part.left) * 16
      for (let y = first; y < tile.bottom; y++) {
        tiling.row(origin, w, left, y, n, target(y))
        k.boundRow(target(y), n)
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
    opaque,
    ...(extent && { extent }),
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
