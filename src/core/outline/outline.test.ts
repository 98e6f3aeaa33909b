import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { limb, reach } from '../../testing/moving-outlines'
import { anyPoint } from '../../testing/outlines'
import { carry } from '../affine'
import {
  bestSimilarity,
  corner,
  curveFrom,
  fitPoints,
  flatten,
  flattenAlong,
  insertPoint,
  mixOutlines,
  nearestOn,
  type OutlinePoint,
  pointOn,
  removePoint,
  reversed,
  shareOf,
} from '.'

const outline = fc.array(anyPoint(400, 120), { minLength: 2, maxLength: 9 })
const share = fc.integer({ min: 5, max: 95 }).map(v => v / 100)

const SHARES = [0, 0.25, 0.5, 0.9, 1]

/** How far the farthest place of one outline lies from another that lies at the same shares of its curves. */
const apart = (points: readonly OutlinePoint[], other: (i: number, t: number) => { x: number; y: number }) =>
  Math.max(
    ...points.flatMap((_, i) =>
      SHARES.map(t => {
        const [one, two] = [pointOn(curveFrom(points, i), t), other(i, t)]
        return Math.hypot(one.x - two.x, one.y - two.y)
      }),
    ),
  )

describe('points', () => {
  it('are added without a change of shape, and come off without a trace', () => {
    fc.assert(
      fc.property(outline, fc.nat(), share, (points, n, t) => {
        const i = n % points.length
        const more = insertPoint(points, i, t)
        expect(more).toHaveLength(points.length + 1)
        const was = (j: number, u: number) => {
          if (j < i) return pointOn(curveFrom(points, j), u)
          if (j > i + 1) return pointOn(curveFrom(points, j - 1), u)
          return pointOn(curveFrom(points, i), j === i ? u * t : t + u * (1 - t))
        }
        expect(apart(more, was)).toBeLessThan(1e-6)
        if (Math.hypot(more[i + 1]!.inX, more[i + 1]!.inY) < 0.1 || points.length < 3) return
        if (Math.hypot(more[i + 1]!.outX, more[i + 1]!.outY) < 0.1) return
        removePoint(more, i + 1).forEach((p, j) => {
          for (const of of ['x', 'y', 'inX', 'inY', 'outX', 'outY'] as const)
            expect(p[of]).toBeCloseTo(points[j]![of], 0)
        })
      }),
    )
  })

  it('of a straight line come off and leave it straight', () => {
    const square = [corner({ x: 0, y: 0 }), corner({ x: 90, y: 0 }), corner({ x: 90, y: 90 })]
    expect(removePoint(insertPoint(square, 0, 0.3), 1)).toEqual(square)
  })

  it('can be gone round the other way', () => {
    fc.assert(
      fc.property(outline, points => {
        const count = points.length
        const was = (i: number, t: number) => pointOn(curveFrom(points, (2 * count - 2 - i) % count), 1 - t)
        expect(apart(reversed(points), was)).toBeLessThan(1e-9)
        expect(reversed(reversed(points))).toEqual(points)
      }),
    )
  })
})

describe('chords', () => {
  it('are nowhere farther from the curve than was asked for', () => {
    fc.assert(
      fc.property(outline, fc.constantFrom(0.05, 0.5, 4), (points, tolerance) => {
        const ends = flatten(points, tolerance)
        const chords = Array.from({ length: ends.length / 2 }, (_, i) =>
          corner({ x: ends[i * 2]!, y: ends[i * 2 + 1]! }),
        )
        const nearest = (i: number, t: number) => {
          const place = pointOn(curveFrom(points, i), t)
          return Math.min(...chords.map((_, j) => nearestOn(curveFrom(chords, j), place).distance))
        }
        for (const i of points.keys()) for (const t of SHARES) expect(nearest(i, t)).toBeLessThan(tolerance + 0.01)
      }),
      { numRuns: 12 },
    )
  })

  it('stay within bounds however many points there are, and however far away', () => {
    const far = (i: number) => ({ ...corner({ x: i % 7, y: i * 1e6 }), outX: 1e6 * (i % 3), inY: -1e6 })
    const points = Array.from({ length: 20_000 }, (_, i) => far(i))
    expect(flattenAlong(points, 0.005, false, 1 / 8).length / 3).toBeLessThanOrEqual(2 ** 16)
    expect(flatten(points.slice(0, 4), 0.005).length / 2).toBeLessThanOrEqual(4 * 1024)
  })
})

describe('between two keys', () => {
  it('a limb that swings keeps its length and its shoulder', () => {
    const whole = reach(limb(0))
    for (const swing of [90, -90, 170]) {
      for (const t of [0.1, 0.5, 0.8]) {
        const between = mixOutlines(limb(0), limb(swing), t)
        expect(Math.abs(reach(between) / whole - 1)).toBeLessThan(0.01)
        between.forEach((p, i) => {
          expect(Math.hypot(p.x - limb(swing * t)[i]!.x, p.y - limb(swing * t)[i]!.y)).toBeLessThan(0.01)
        })
      }
    }
  })

  it('lies on both keys at both ends, and runs straight where it only shifts', () => {
    fc.assert(
      fc.property(outline, outline, (a, b) => {
        const to = a.map((_, i) => b[i % b.length]!)
        expect(mixOutlines(a, to, 0)).toEqual(a)
        mixOutlines(a, to, 1).forEach((p, i) => {
          for (const of of ['x', 'y', 'inX', 'outY'] as const) expect(p[of]).toBeCloseTo(to[i]![of], 3)
        })
      }),
    )
    const shifted = limb(0, { x: 900, y: -100 })
    mixOutlines(limb(0), shifted, 0.25).forEach((p, i) => {
      expect(p.x).toBeCloseTo(limb(0)[i]!.x + 150, 6)
      expect(p.y).toBeCloseTo(limb(0)[i]!.y - 75, 6)
    })
  })

  it('moves smoothly from no turn to the least one', () => {
    fc.assert(
      fc.property(fc.constantFrom(1e-9, 1e-5, 9e-5, 2e-4, 1e-3), share, (turn, t) => {
        const whole = { a: Math.cos(turn), b: Math.sin(turn), c: -Math.sin(turn), d: Math.cos(turn), x: 80, y: -30 }
        const { x, y } = carry(shareOf(whole, t), { x: 0, y: 0 })
        expect(Math.hypot(x - 80 * t, y + 30 * t)).toBeLessThan(0.02)
      }),
    )
  })

  it('finds the similarity by which points were moved', () => {
    fc.assert(
      fc.property(outline, fc.double({ min: -3, max: 3, noNaN: true }), share, (points, angle, scale) => {
        const [c, s] = [Math.cos(angle) * scale, Math.sin(angle) * scale]
        const map = { a: c, b: s, c: -s, d: c, x: 17, y: -4 }
        const found = bestSimilarity(
          points,
          points.map(p => carry(map, p)),
        )
        for (const p of points) {
          expect(carry(found, p).x).toBeCloseTo(carry(map, p).x, 4)
          expect(carry(found, p).y).toBeCloseTo(carry(map, p).y, 4)
        }
      }),
    )
    expect(bestSimilarity([{ x: 1, y: 1 }], [{ x: 4, y: 9 }])).toMatchObject({ a: 1, b: 0, x: 3, y: 8 })
    expect(bestSimilarity([], [])).toMatchObject({ a: 1, b: 0, x: 0, y: 0 })
  })
})

describe('a line drawn freely', () => {
  it('becomes few points that pass where the hand went', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 300 }), fc.integer({ min: 1, max: 4 }), (r, waves) => {
        // A hand that trembles by half a pixel.
        const hand = Array.from({ length: 160 }, (_, i) => {
          const a = (i / 159) * Math.PI * 1.8
          const far = r * (1 + 0.15 * Math.sin(a * waves)) + ((i * 7919) % 3) * 0.4 - 0.4
          return { x: 400 + far * Math.cos(a), y: 300 + far * Math.sin(a) }
        })
        const points = fitPoints(hand, 2)
        expect(points.length).toBeLessThan(20)
        const curves = points.slice(0, -1).map((_, i) => curveFrom(points, i))
        for (const place of hand) {
          expect(Math.min(...curves.map(c => nearestOn(c, place).distance))).toBeLessThan(3)
        }
      }),
      { numRuns: 12 },
    )
  })

  it('keeps corners, and does not mind a hand that stands still', () => {
    const right = Array.from({ length: 30 }, (_, i) => ({ x: 10 + i * 4, y: 50 }))
    const down = Array.from({ length: 30 }, (_, i) => ({ x: 126, y: 54 + i * 4 }))
    const points = fitPoints([...right, ...down], 1.5)
    expect(points.some(p => Math.hypot(p.x - 126, p.y - 50) < 9)).toBe(true)
    expect(points.length).toBeLessThan(6)
    expect(fitPoints(new Array(50).fill({ x: 3, y: 4 }), 2)).toEqual([corner({ x: 3, y: 4 })])
    expect(fitPoints([], 2)).toEqual([])
  })
})
