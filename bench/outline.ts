// What a free outline costs: the coverage of one of 60 points in a frame of 1080p, where it covers a tenth of it and all of it.

import { corner, type OutlinePoint } from '../src/core/outline'
import type { Kernels } from '../src/core/render'
import { openShape } from '../src/core/shape'
import { flat } from '../src/testing/flat'
import { atMost, median, type Row } from './measure'

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
  return median(15, () =>
    k.scope(() => {
      const coverage = openShape(k, { kind: 'outline', points }, feather, flat(FRAME))
      for (let y = coverage.top; y < coverage.bottom; y++) coverage.row(y, row)
    }),
  ).finally(() => k.free(row))
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
  ]
}
