// Strips against many samples of each pixel: thin ones and wide ones, hard and soft.

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { corner, curveFrom, insertPoint, mixOutlines, type OutlinePoint, pointOn } from '../../core/outline'
import type { Kernels } from '../../core/render'
import { type Feather, openShape } from '../../core/shape'
import { flat } from '../../testing/flat'
import { testKernels } from '../../testing/kernels'
import { anyPoint, ramp } from '../../testing/outlines'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIDE = 20
const HARD: Feather = { grow: 0, inside: 0, outside: 0 }

const covered = (points: OutlinePoint[], feather: Feather): number[] =>
  k.scope(() => {
    const row = k.alloc(SIDE * 4)
    const coverage = openShape(k, { kind: 'strip', points }, feather, flat({ width: SIDE, height: SIDE }))
    return Array.from({ length: SIDE }, (_, y) => {
      if (y < coverage.top || y >= coverage.bottom) return new Array<number>(SIDE).fill(0)
      coverage.row(y, row)
      return [...k.floats(row, SIDE)]
    }).flat()
  })

/** Places along a line with half its width there. */
const spine = (points: OutlinePoint[]) =>
  points.slice(0, -1).flatMap((p, i) =>
    Array.from({ length: 65 }, (_, n) => {
      const t = n / 64
      const [from, to] = [p.width!, points[i + 1]!.width!]
      return { ...pointOn(curveFrom(points, i), t), half: (from + (to - from) * t) / 2 }
    }),
  )

function sampled(along: ReturnType<typeof spine>, x: number, y: number, feather: Feather): number {
  const N = 10
  let sum = 0
  for (let j = 0; j < N; j++) {
    for (let i = 0; i < N; i++) {
      const [sx, sy] = [x + (i + 0.5) / N, y + (j + 0.5) / N]
      let depth = Number.NEGATIVE_INFINITY
      for (const p of along) depth = Math.max(depth, p.half - Math.hypot(p.x - sx, p.y - sy))
      sum += ramp(depth, feather)
    }
  }
  return sum / N ** 2
}

const wide = (x: number, y: number, width: number): OutlinePoint => ({ ...corner({ x, y }), width })
const bow = (width: number, end = width): OutlinePoint[] => [
  { ...wide(3, 15, width), outX: 2, outY: -8 },
  { ...wide(17, 6, end), inX: -6, inY: -4 },
]

describe('a strip', () => {
  it.each([
    ['a hair', bow(0.6), HARD, 0.08],
    ['one that tapers', bow(6, 0), HARD, 0.13],
    ['a soft one', bow(5), { grow: 0, inside: 2, outside: 3 }, 0.02],
    ['one that has grown', bow(1), { grow: 2, inside: 1, outside: 2 }, 0.02],
    ['one that has shrunk to nothing', bow(3), { grow: -2, inside: 0, outside: 0 }, 0.001],
  ] as const)('is as its samples: %s', (_, points, feather, most) => {
    const along = spine([...points])
    const differ = covered([...points], feather).map((c, i) =>
      Math.abs(c - sampled(along, i % SIDE, Math.floor(i / SIDE), feather)),
    )
    expect(Math.max(...differ)).toBeLessThan(most)
    expect(differ.reduce((a, b) => a + b) / differ.length).toBeLessThan(most / 10)
  })

  it('of no, one or many points, of any width, anywhere, is something sensible', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(anyPoint(SIDE, 60), fc.constantFrom(0, 1, 40, 4000)), { maxLength: 6 }),
        fc.constantFrom(1, 1e8),
        fc.constantFrom(HARD, { grow: 5, inside: 4000, outside: 3 }, { grow: -40, inside: 0, outside: 30 }),
        (parts, times, feather) => {
          const points = parts.map(([p, width]) => ({ ...p, x: p.x * times, y: p.y * times, width }))
          for (const c of covered(points, feather)) expect(c >= 0 && c <= 1).toBe(true)
        },
      ),
    )
    expect(covered([wide(10, 10, 8)], HARD)[10 * SIDE + 10]).toBe(1)
  })

  it('keeps its form where a point is added, and its width is mixed between keys', () => {
    const points = bow(6, 2)
    const more = insertPoint(points, 0, 0.3)
    expect(more[1]!.width).toBeCloseTo(6 - 4 * 0.3, 9)
    const soft = { grow: 0, inside: 1, outside: 1 }
    const before = covered(points, soft)
    for (const [i, c] of covered(more, soft).entries()) expect(Math.abs(c - before[i]!)).toBeLessThan(0.02)
    expect(mixOutlines(bow(6, 2), bow(2, 6), 0.5).map(p => p.width)).toEqual([4, 4])
  })
})
