// What a free outline costs: the coverage of one of 60 points in a frame of 1080p, where it covers a tenth of it and all of it.

import { corner, type OutlinePoint } from '../src/core/outline'
import type { Kernels } from '../src/core/render'
import { openShape } from '../src/core/shape'
import { flat } from '../src/testing/flat'
import { fineChords, sampledCoverage } from '../src/testing/outlines'
import { atMost, median, type Row } from './measure'
import { outlineKeyRows } from './outline-keys'

const FRAME = { width: 1920, height: 1080 }
const POINTS = 60
/** 12 px in all. */
const FEATHER = { grow: 0, inside: 6, outside: 6 }

/** A closed line with bulges, as somebody's outline has, smooth at every point. */
function bulging(halfWidth: number, halfHeight: number): OutlinePoint[] {
  const places = Array.from({ length: POINTS }, (_, i) => {
    const a = (i / POINTS) * 2 * Math.PI
    const far = 1 + 0.15 * Math.sin(a * 7)
    return corner({ x: 960 + halfWidth * far * Math.cos(a), y: 540 + halfHeight * far * Math.sin(a) })
  })
  return places.map((p, i) => {
    const before = places[(i + POINTS - 1) % POINTS]!
    const after = places[(i + 1) % POINTS]!
    const [x, y] = [(after.x - before.x) / 6, (after.y - before.y) / 6]
    return { ...p, inX: -x, inY: -y, outX: x, outY: y }
  })
}

/** Milliseconds to open it and to read every row. */
const cover = (k: Kernels, points: OutlinePoint[], feather = FEATHER): Promise<number> => {
  const row = k.alloc(FRAME.width * 4)
  // The first dozen are made by kernels that are not yet at their best.
  return median(45, () =>
    k.scope(() => {
      const coverage = openShape(k, { kind: 'outline', points }, feather, flat(FRAME))
      for (let y = coverage.top; y < coverage.bottom; y++) coverage.row(y, row)
    }),
  ).finally(() => k.free(row))
}

/** Every so many px, either way, are sampled; a prime, so that no side of the outline is favoured. */
const STRIDE = 13

/** By how much its coverage differs from that of 16 x 16 samples of each pixel: at most, and in the mean of the frame, 0..1. */
function differences(k: Kernels, points: OutlinePoint[], feather = FEATHER): { most: number; mean: number } {
  const ends = fineChords(points)
  let [most, sum, count] = [0, 0, 0]
  k.scope(() => {
    const row = k.alloc(FRAME.width * 4)
    const coverage = openShape(k, { kind: 'outline', points }, feather, flat(FRAME))
    for (let y = 0; y < FRAME.height; y += STRIDE) {
      const isRow = y >= coverage.top && y < coverage.bottom
      if (isRow) coverage.row(y, row)
      const got = k.floats(row, FRAME.width)
      for (let x = 0; x < FRAME.width; x += STRIDE) {
        const differ = Math.abs((isRow ? got[x]! : 0) - sampledCoverage(ends, x, y, feather, 16))
        most = Math.max(most, differ)
        sum += differ
        count++
      }
    }
  })
  return { most, mean: sum / count }
}

function accuracy(k: Kernels, points: OutlinePoint[]): Row[] {
  const { most, mean } = differences(k, points)
  const hard = differences(k, points, { grow: 0, inside: 0, outside: 0 })
  const inHard = (part: number) =>
    `without feather ${(part * 100).toFixed(3)}%, to which samples that lie in rows and columns add their own`
  return [
    atMost(
      'its coverage against 16 × 16 samples of a pixel, largest difference',
      0.5,
      most * 100,
      '%',
      inHard(hard.most),
    ),
    atMost('the same, mean of the frame', 2, mean * 1e4, 'in 10,000', inHard(hard.mean)),
  ]
}

export async function outlineRows(k: Kernels): Promise<Row[]> {
  const [tenth, all] = [bulging(250, 260), bulging(1000, 600)]
  const hard = { grow: 0, inside: 0, outside: 0 }
  const detail = async (points: OutlinePoint[]) => `without feather ${(await cover(k, points, hard)).toFixed(1)} ms`
  return [
    atMost(
      'outline of 60 points, feather 12 px, over a tenth of 1080p',
      4,
      await cover(k, tenth),
      'ms',
      await detail(tenth),
    ),
    atMost('the same over all of it', 15, await cover(k, all), 'ms', await detail(all)),
    ...accuracy(k, tenth),
    ...outlineKeyRows(tenth),
  ]
}
