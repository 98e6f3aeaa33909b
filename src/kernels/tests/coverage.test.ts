// Edge, box and oval against closed forms and against brute force.

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Kernels } from '../../core/render'
import { type Feather, openShape } from '../../core/shape'
import { flat } from '../../testing/flat'
import { testKernels } from '../../testing/kernels'
import { ramp } from '../../testing/outlines'

let k: Kernels
let row: number
beforeAll(async () => {
  k = await testKernels()
  row = k.alloc(4096)
})

type Depth = (x: number, y: number) => number
/** The mean of the feather over a pixel, by 40 x 40 samples. */
function brute(depth: Depth, x: number, y: number, feather: Feather): number {
  let sum = 0
  for (let j = 0; j < 40; j++) {
    for (let i = 0; i < 40; i++) sum += ramp(depth(x + (i + 0.5) / 40, y + (j + 0.5) / 40), feather)
  }
  return sum / 1600
}

const edgeDepth =
  (px: number, py: number, a: number): Depth =>
  (x, y) =>
    (x - px) * Math.cos(a) + (y - py) * Math.sin(a)

function edge(n: number, y: number, px: number, py: number, a: number, f: Feather): number[] {
  k.edgeRow(row, n, y, px, py, Math.cos(a), Math.sin(a), f.grow, f.inside, f.outside)
  return [...k.floats(row, n)]
}

const within = { noNaN: true, noDefaultInfinity: true }

describe('edge', () => {
  it('is the exact share of each pixel where there is no feather', () => {
    expect(edge(8, 0, 3.25, 0, 0, { grow: 0, inside: 0, outside: 0 })).toEqual([0, 0, 0, 0.75, 1, 1, 1, 1])
    const diagonal = edge(4, 2, 2, 2, Math.PI / 4, { grow: 0, inside: 0, outside: 0 })
    expect(diagonal[1]).toBeCloseTo(0.5, 6)
    expect(diagonal[0]).toBe(0)
    expect(diagonal[2]).toBe(1)
  })

  it('follows the feather profile, inside and outside each with its own width', () => {
    const f = { grow: 0, inside: 30, outside: 10 }
    const got = edge(100, 0, 50, 0, 0, f)
    const mean = (x: number) =>
      Array.from({ length: 64 }, (_, i) => ramp(x + (i + 0.5) / 64 - 50, f)).reduce((a, b) => a + b) / 64
    for (let x = 0; x < 100; x++) expect(got[x]).toBeCloseTo(mean(x), 6)
    expect(got[39]).toBe(0)
    expect(got[80]).toBe(1)
  })

  it('matches brute force for any line and feather', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 40, ...within }),
        fc.double({ min: -7, max: 7, ...within }),
        fc.double({ min: 0, max: 14, ...within }),
        fc.double({ min: 0, max: 14, ...within }),
        fc.double({ min: -4, max: 4, ...within }),
        (px, a, inside, outside, grow) => {
          const f = { grow, inside, outside }
          const got = edge(32, 3, px, 3.7, a, f)
          for (const x of [0, 7, 15, 16, 31]) {
            expect(Math.abs(got[x]! - brute(edgeDepth(px, 3.7, a), x, 3, f))).toBeLessThan(0.014)
          }
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is ordinary far outside the picture', () => {
    expect(new Set(edge(40, 0, -1e6, 0, 0, { grow: 0, inside: 5, outside: 5 }))).toEqual(new Set([1]))
    expect(new Set(edge(40, 0, 1e6, 5e5, 1, { grow: 0, inside: 5, outside: 5 }))).toEqual(new Set([0]))
  })
})

const boxDepth =
  (cx: number, cy: number, hw: number, hh: number, a: number): Depth =>
  (x, y) => {
    const lx = (x - cx) * Math.cos(a) + (y - cy) * Math.sin(a)
    const ly = (y - cy) * Math.cos(a) - (x - cx) * Math.sin(a)
    const qx = Math.abs(lx) - hw
    const qy = Math.abs(ly) - hh
    return qx > 0 && qy > 0 ? -Math.hypot(qx, qy) : -Math.max(qx, qy)
  }

/** Distance to an ellipse by walking round it. */
const ovalDepth = (cx: number, cy: number, hw: number, hh: number, a: number): Depth => {
  const points = Array.from({ length: 4000 }, (_, i) => {
    const t = (i / 4000) * 2 * Math.PI
    return [hw * Math.cos(t), hh * Math.sin(t)] as const
  })
  return (x, y) => {
    const lx = (x - cx) * Math.cos(a) + (y - cy) * Math.sin(a)
    const ly = (y - cy) * Math.cos(a) - (x - cx) * Math.sin(a)
    const near = Math.min(...points.map(([px, py]) => Math.hypot(px - lx, py - ly)))
    return (lx / hw) ** 2 + (ly / hh) ** 2 < 1 ? near : -near
  }
}

function shape(kind: 'boxRow' | 'ovalRow', n: number, y: number, at: number[], a: number, f: Feather): number[] {
  const [cx, cy, hw, hh] = at as [number, number, number, number]
  k[kind](row, n, y, cx, cy, hw, hh, Math.cos(a), Math.sin(a), f.grow, f.inside, f.outside)
  return [...k.floats(row, n)]
}

describe('box', () => {
  it('matches brute force, corners and turns included', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -4, max: 4, ...within }),
        fc.double({ min: 0.3, max: 14, ...within }),
        fc.double({ min: 0.3, max: 9, ...within }),
        fc.double({ min: 0, max: 6, ...within }),
        fc.double({ min: -3, max: 3, ...within }),
        fc.integer({ min: 0, max: 24 }),
        (a, hw, hh, width, grow, y) => {
          const f = { grow, inside: width / 2, outside: width }
          const got = shape('boxRow', 32, y, [16.3, 12.1, hw, hh], a, f)
          const depth = boxDepth(16.3, 12.1, hw, hh, a)
          for (let x = 0; x < 32; x += 3) expect(Math.abs(got[x]! - brute(depth, x, y, f))).toBeLessThan(0.08)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('shrinks along itself to nothing', () => {
    const none = { inside: 0, outside: 0 }
    const at = [16, 16, 10, 5]
    const area = (grow: number) =>
      Array.from({ length: 32 }, (_, y) => shape('boxRow', 32, y, at, 0, { grow, ...none }))
        .flat()
        .reduce((s, v) => s + v, 0)
    expect(area(0)).toBeCloseTo(200, 3)
    expect(area(-2)).toBeCloseTo(16 * 6, 1)
    expect(area(-5)).toBeCloseTo(0, 1)
    expect(area(3)).toBeCloseTo(200 + 2 * 3 * 30 + Math.PI * 9, 0)
  })
})

describe('oval', () => {
  it('matches brute force with the true distance', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -4, max: 4, ...within }),
        fc.double({ min: 5, max: 14, ...within }),
        fc.double({ min: 5, max: 9, ...within }),
        fc.double({ min: 0, max: 5, ...within }),
        fc.integer({ min: 2, max: 22 }),
        (a, hw, hh, width, y) => {
          const f = { grow: 0.5, inside: width, outside: width / 2 }
          const got = shape('ovalRow', 32, y, [16.3, 12.1, hw, hh], a, f)
          const depth = ovalDepth(16.3, 12.1, hw, hh, a)
          for (const x of [4, 11, 16, 25]) {
            // One sample at the middle stands for the pixel here: the brute walk is slow.
            const centre = ramp(depth(x + 0.5, y + 0.5), f)
            expect(Math.abs(got[x]! - centre)).toBeLessThan(width > 2 ? 0.06 : 0.52)
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('has the area of an ellipse, even a tiny one', () => {
    for (const [hw, hh] of [
      [12, 7],
      [1, 0.6],
      [9, 9],
    ] as const) {
      const none = { grow: 0, inside: 0, outside: 0 }
      const rows = Array.from({ length: 32 }, (_, y) => shape('ovalRow', 32, y, [15.7, 16.2, hw, hh], 0.4, none))
      const area = rows.flat().reduce((s, v) => s + v, 0)
      expect(area / (Math.PI * hw * hh)).toBeCloseTo(1, 1)
    }
  })
})

describe('a shape without a size', () => {
  it.each(['boxRow', 'ovalRow'] as const)('is what smaller and smaller ones come to: %s', kind => {
    const at = (half: number, grow: number, outside: number) => {
      k[kind](row, 40, 20, 20, 20.5, half, half, 1, 0, grow, 0, outside)
      return [...k.floats(row, 40)]
    }
    for (const [grow, outside] of [
      [0, 6],
      [4, 0],
      [3, 5],
      [-2, 6],
    ] as const) {
      const none = at(0, grow, outside)
      expect(Math.max(...none)).toBeGreaterThan(0.5)
      at(1e-3, grow, outside).forEach((v, i) => void expect(v).toBeCloseTo(none[i]!, 2))
    }
    expect(Math.max(...at(0, 0, 0), ...at(0, -3, 3))).toBe(0)
  })
})

it('a shape covers nothing outside the rows that it says', () => {
  const frame = { width: 48, height: 64 }
  const any = fc.record({
    kind: fc.constantFrom('box' as const, 'oval' as const),
    halfWidth: fc.double({ min: 0, max: 30, noNaN: true }),
    halfHeight: fc.double({ min: 0, max: 30, noNaN: true }),
    angle: fc.double({ min: 0, max: 7, noNaN: true }),
    grow: fc.integer({ min: -20, max: 12 }),
    inside: fc.integer({ min: 0, max: 9 }),
    outside: fc.integer({ min: 0, max: 9 }),
  })
  fc.assert(
    fc.property(any, ({ kind, halfWidth, halfHeight, angle, ...feather }) => {
      const shape = { kind, x: 23.4, y: 30.7, halfWidth, halfHeight, cos: Math.cos(angle), sin: Math.sin(angle) }
      const { top, bottom, row: make } = openShape(k, shape, feather, flat(frame))
      for (let y = 0; y < frame.height; y++) {
        if (y >= top && y < bottom) continue
        make(y, row)
        expect(k.floats(row, frame.width).every(v => v === 0)).toBe(true)
      }
    }),
  )
})
