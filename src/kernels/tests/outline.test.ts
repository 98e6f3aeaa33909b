// Free outlines against many samples of each pixel, and what is no proper outline.

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { corner, type OutlinePoint } from '../../core/outline'
import type { Kernels } from '../../core/render'
import { type Feather, openShape } from '../../core/shape'
import { flat } from '../../testing/flat'
import { testKernels } from '../../testing/kernels'
import { anyPoint, fineChords, roundOutline, sampledCoverage } from '../../testing/outlines'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIDE = 20
const HARD = { grow: 0, inside: 0, outside: 0 }

/** The coverage of every pixel, row after row. */
const covered = (points: OutlinePoint[], feather: Feather, width = SIDE, height = SIDE): number[] =>
  k.scope(() => {
    const row = k.alloc(width * 4)
    const coverage = openShape(k, { kind: 'outline', points }, feather, flat({ width, height }))
    return Array.from({ length: height }, (_, y) => {
      if (y < coverage.top || y >= coverage.bottom) return new Array<number>(width).fill(0)
      coverage.row(y, row)
      return [...k.floats(row, width)]
    }).flat()
  })

/** The largest and the mean difference to what samples say. */
function differences(points: OutlinePoint[], feather: Feather, samples: number): { most: number; mean: number } {
  const ends = fineChords(points)
  const differ = covered(points, feather).map((c, i) =>
    Math.abs(c - sampledCoverage(ends, i % SIDE, Math.floor(i / SIDE), feather, samples)),
  )
  return { most: Math.max(...differ), mean: differ.reduce((a, b) => a + b) / differ.length }
}

const square = (from: number, to: number) =>
  [
    [from, from],
    [to, from],
    [to, to],
    [from, to],
  ].map(([x, y]) => corner({ x: x!, y: y! }))

describe('an outline', () => {
  it('covers exactly its area where it has no feather', () => {
    const areas = covered(square(2.25, 9.5), HARD)
    expect(areas[2 * SIDE + 2]).toBeCloseTo(0.75 * 0.75, 6)
    expect(areas[2 * SIDE + 5]).toBeCloseTo(0.75, 6)
    expect(areas[9 * SIDE + 9]).toBeCloseTo(0.25, 6)
    expect(areas[5 * SIDE + 5]).toBe(1)
    expect(areas[5 * SIDE + 11]).toBe(0)
    expect(areas.reduce((a, b) => a + b)).toBeCloseTo(7.25 ** 2, 4)
  })

  it('that is softer at all its points is as one with a wider feather', () => {
    fc.assert(
      fc.property(
        roundOutline(SIDE),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 0, max: 1 }),
        (points, inside, outside) => {
          const whole = inside + outside
          const share = whole > 0 ? inside / whole : 0.5
          const wider = { grow: 1, inside: inside + 3 * share, outside: outside + 3 * (1 - share) }
          const soft = covered(
            points.map(p => ({ ...p, soft: 3 })),
            { grow: 1, inside, outside },
          )
          const feathered = covered(points, wider)
          // Its chords are those of the narrower feather, which are finer.
          expect(Math.max(...soft.map((c, i) => Math.abs(c - feathered[i]!)))).toBeLessThan(0.01)
        },
      ),
      { numRuns: 20 },
    )
  })

  it('is as soft as each of its points says, and goes over from one to the other', () => {
    const points = [
      [-30, 10],
      [50, 10],
      [50, 90],
      [-30, 90],
    ].map(([x, y], i) => ({ ...corner({ x: x!, y: y! }), ...(i === 1 && { soft: 8 }) }))
    const all = covered(points, HARD, 50, SIDE)
    // Away from the upright side, which is as soft.
    const column = (x: number) => all.filter((_, i) => i % 50 === x)
    const between = (x: number) => column(x).filter(c => c > 0 && c < 1).length
    expect(between(42)).toBe(8)
    expect(between(10)).toBeGreaterThan(2)
    expect(between(10)).toBeLessThan(8)
    // Half lies on the line wherever it is.
    for (const x of [0, 20, 42]) expect(column(x)[9]! + column(x)[10]!).toBeCloseTo(1, 2)
  })

  it('is as its samples, hard or soft, grown or shrunk', () => {
    const feathers = [
      { ...HARD, inside: 2, outside: 2 },
      { ...HARD, inside: 6, outside: 6 },
      { ...HARD, grow: 2, outside: 9 },
      { ...HARD, grow: -2, inside: 3 },
    ]
    fc.assert(
      fc.property(roundOutline(SIDE), fc.constantFrom(...feathers), (points, feather) => {
        const { most, mean } = differences(points, feather, 12)
        expect(most).toBeLessThan(0.02)
        expect(mean).toBeLessThan(0.0012)
      }),
      { numRuns: 8 },
    )
  })

  it('without feather differs by no more than the samples can tell', () => {
    fc.assert(
      fc.property(roundOutline(SIDE), points => {
        const { most, mean } = differences(points, HARD, 20)
        expect(most).toBeLessThan(1 / 20)
        expect(mean).toBeLessThan(0.0006)
      }),
      { numRuns: 6 },
    )
  })

  it('is the same turned round, and shifted with its frame', () => {
    fc.assert(
      fc.property(roundOutline(SIDE), fc.boolean(), (points, soft) => {
        const feather = soft ? { ...HARD, inside: 3, outside: 3 } : HARD
        const there = covered(points, feather)
        const back = covered([...points.slice(2), ...points.slice(0, 2)], feather)
        const shifted = covered(
          points.map(p => ({ ...p, x: p.x + 7, y: p.y + 3 })),
          feather,
          SIDE + 7,
          SIDE + 3,
        )
        for (let y = 0; y < SIDE; y++) {
          for (let x = 0; x < SIDE; x++) {
            expect(Math.abs(back[y * SIDE + x]! - there[y * SIDE + x]!)).toBeLessThan(0.03)
            expect(Math.abs(shifted[(y + 3) * (SIDE + 7) + x + 7]! - there[y * SIDE + x]!)).toBeLessThan(0.03)
          }
        }
      }),
      { numRuns: 20 },
    )
  })

  it('is shrunk to nothing, without a last speck', () => {
    const points = square(2, 18)
    const sums = [0, -4, -7.5, -8, -9, -4000].map(grow => covered(points, { ...HARD, grow }).reduce((a, b) => a + b))
    expect(sums[1]).toBeCloseTo(64, 0)
    expect(sums[2]).toBeCloseTo(1, 1)
    expect(sums.slice(3)).toEqual([0, 0, 0])
  })

  it('of no, one or two points, crossing itself, far away or huge is something sensible', () => {
    const far = 1e9
    fc.assert(
      fc.property(
        fc.array(anyPoint(SIDE, 40), { maxLength: 6 }),
        fc.constantFrom(1, far / SIDE),
        fc.record({
          grow: fc.constantFrom(-5, 0, 5),
          inside: fc.constantFrom(0, 4000),
          outside: fc.constantFrom(0, 7),
        }),
        (points, times, feather) => {
          const large = points.map(p => ({ ...p, x: p.x * times, y: (p.y - 12) * times }))
          for (const c of covered(large, feather)) expect(c).toBeGreaterThanOrEqual(0)
          for (const c of covered(large, feather)) expect(c).toBeLessThanOrEqual(1)
        },
      ),
    )
    const around = [-far, far].flatMap(x => [corner({ x, y: x }), corner({ x, y: -x })])
    expect(new Set(covered([around[0]!, around[1]!, around[2]!, around[3]!], HARD))).toEqual(new Set([1]))
    expect(new Set(covered([], { ...HARD, outside: 9 }))).toEqual(new Set([0]))
    // A line has no area, but something may lie about it.
    const line = covered([corner({ x: 4, y: 12.5 }), corner({ x: 18, y: 12.5 })], { ...HARD, grow: 2 })
    expect(line[12 * SIDE + 12]).toBe(1)
    expect(line[16 * SIDE + 12]).toBe(0)
  })

  it('gives all of its memory back', () => {
    const free = k.largestFree()
    covered(square(2, 18), { ...HARD, inside: 3 })
    expect(k.largestFree()).toBe(free)
  })
})
