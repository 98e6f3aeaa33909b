// A picture in perspective: its corners brought to four points of the output.
import { type Box, boundsOf, type Point } from '../affine'
import {
  largestAt,
  type Projective,
  pinMap,
  project,
  projectAfter,
  projective,
  type Quad,
  quadOf,
  unproject,
} from '../projective'
import { openPolygons } from '../shape/rings'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { resampledRows } from './resample'
import type { Rows } from './rows'
import { type Shared, steady, tiledRows } from './tiles'

const HARD = { grow: 0, inside: 0, outside: 0 } as const
/** px about a tile in which samples for it may lie, and px about the samples that the filter reads. */
const ABOUT = 1
const MARGIN = 3
/** Rows of coverage that are remembered: no fewer than a tile has. */
const HELD = 32

/** What of a polygon lies in a box (Sutherland and Hodgman, Reentrant Polygon Clipping, 1974). */
export function clipped(polygon: readonly Point[], { left, top, right, bottom }: Box): Point[] {
  const sides: readonly ((p: Point) => number)[] = [
    p => p.x - left,
    p => right - p.x,
    p => p.y - top,
    p => bottom - p.y,
  ]
  return sides.reduce<readonly Point[]>(
    (points, within) =>
      points.flatMap((p, i) => {
        const q = points[(i + 1) % points.length]!
        const [a, b] = [within(p), within(q)]
        const t = a / (a - b)
        const cut = a >= 0 === b >= 0 ? [] : [{ x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) }]
        return a >= 0 ? [p, ...cut] : cut
      }),
    polygon,
  ) as Point[]
}

const numbersOf = ({ a, b, c, d, x, y, g, h, w }: Projective): number[] => [a, c, x, b, d, y, g, h, w]

/**
 * What of a picture lies in a box, in px of it, seen so that its corners come to lie at those of a quad, in px of an output of some size; null where nothing flat looks like
 * that. `digest` says what the picture is made from. Where all of it becomes smaller it is reduced first. Throws OutOfMemory.
 */
export function pinnedRows(
  k: Kernels,
  picture: Rows,
  box: Box,
  corners: Quad,
  size: Size,
  digest: () => string,
  shared: Shared,
): Rows | null {
  const to = pinMap(box, corners)
  if (!to) return null
  const scale = Math.max(...quadOf(box).map(corner => largestAt(to, corner)))
  let source = picture
  let back = unproject(to)
  let seen = box
  if (scale < 1) {
    const width = Math.max(1, Math.round(picture.width * scale))
    const height = Math.max(1, Math.round(picture.height * scale))
    const [across, down] = [width / picture.width, height / picture.height]
    source = steady(k, shared, `${width}x${height} ${digest()}`, () =>
      resampledRows(k, picture, { width, height, x: 0, y: 0, scaleX: across, scaleY: down }),
    )
    back = projectAfter(projective({ a: across, b: 0, c: 0, d: down, x: 0, y: 0 }), back)
    seen = { left: box.left * across, right: box.right * across, top: box.top * down, bottom: box.bottom * down }
  } else if (!picture.steady) source = steady(k, shared, digest(), () => picture)
  const { width, height } = source
  const within: Box = {
    left: Math.max(0, seen.left),
    top: Math.max(0, seen.top),
    right: Math.min(width, seen.right),
    bottom: Math.min(height, seen.bottom),
  }
  if (!(within.left < within.right && within.top < within.bottom)) return null
  const coverage = openPolygons(k, [Float64Array.from(corners.flatMap(p => [p.x, p.y]))], HARD, size)
  const stride = size.width * 4
  const covers = k.alloc(stride * HELD)
  const held = new Int32Array(HELD).fill(-1)
  const coverAt = (y: number): number => {
    const slot = y % HELD
    const at = covers + slot * stride
    if (held[slot] !== y) coverage.row(y, at)
    held[slot] = y
    return at
  }
  const map = k.alloc(13 * 8)
  k.doubles(map, 9).set(numbersOf(back))
  const looked = (tile: Box): Box | null => {
    const top = Math.max(tile.top, coverage.top)
    const bottom = Math.min(tile.bottom, coverage.bottom)
    if (top >= bottom) return null
    const about = { left: tile.left - ABOUT, right: tile.right + ABOUT, top: top - ABOUT, bottom: bottom + ABOUT }
    const points = clipped(corners, about)
    if (points.length === 0) return null
    const under = boundsOf(points.map(p => project(back, p)))
    return {
      left: Math.min(Math.max(under.left, within.left), within.right),
      top: Math.min(Math.max(under.top, within.top), within.bottom),
      right: Math.max(Math.min(under.right, within.right), within.left),
      bottom: Math.max(Math.min(under.bottom, within.bottom), within.top),
    }
  }
  return tiledRows(k, source, {
    ...size,
    opaque: false,
    extent: boundsOf(corners),
    partUnder(tile) {
      const at = looked(tile)
      if (!at) return null
      k.doubles(map + 9 * 8, 4).set([at.left, at.top, at.right, at.bottom])
      return {
        left: Math.max(0, Math.floor(at.left) - MARGIN),
        top: Math.max(0, Math.floor(at.top) - MARGIN),
        right: Math.min(width, Math.ceil(at.right) + MARGIN),
        bottom: Math.min(height, Math.ceil(at.bottom) + MARGIN),
      }
    },
    row(origin, across, x, y, n, out) {
      if (y < coverage.top || y >= coverage.bottom) k.fillRow(out, n, 0, 0, 0, 0)
      else k.warpRow(origin, across, width, height, out, coverAt(y) + x * 4, n, map, x + 0.5, y + 0.5)
    },
  })
}
