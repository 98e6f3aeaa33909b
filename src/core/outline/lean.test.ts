import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { corner, curveFrom, isSmooth, leanOnEdges, type OutlinePoint, type Pixels, pointOn } from '.'

const SIZE = { width: 200, height: 200 }

/** A disc in another colour than what is round it, both with grain. */
function disc(r: number, inner: readonly number[], outer: readonly number[], grain: number): Pixels {
  const data = new Uint8Array(SIZE.width * SIZE.height * 4)
  let seed = 7
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const share = Math.max(0, Math.min(1, r - Math.hypot(x + 0.5 - 100, y + 0.5 - 100) + 0.5))
      seed = (seed * 1103515245 + 12345) % 2147483648
      const noise = grain * (seed / 2147483648 - 0.5)
      for (let c = 0; c < 3; c++)
        data[(y * SIZE.width + x) * 4 + c] = Math.max(
          0,
          Math.min(255, outer[c]! + share * (inner[c]! - outer[c]!) + noise),
        )
      data[(y * SIZE.width + x) * 4 + 3] = 255
    }
  }
  return { ...SIZE, data }
}

function circle(r: number, x = 100, y = 100): OutlinePoint[] {
  const count = 8
  const handle = (4 / 3) * Math.tan(Math.PI / (2 * count)) * r
  return Array.from({ length: count }, (_, i) => {
    const a = (i / count) * 2 * Math.PI
    const [dx, dy] = [-Math.sin(a) * handle, Math.cos(a) * handle]
    return { x: x + r * Math.cos(a), y: y + r * Math.sin(a), inX: -dx, inY: -dy, outX: dx, outY: dy }
  })
}

const all = [0, 1, 2, 3, 4, 5, 6, 7]
const farOff = (points: readonly OutlinePoint[], r: number) =>
  points.flatMap((_, i) =>
    [0, 0.25, 0.5, 0.75].map(t => {
      const { x, y } = pointOn(curveFrom(points, i), t)
      return Math.abs(Math.hypot(x - 100, y - 100) - r)
    }),
  )

describe('leaning on edges', () => {
  it('brings a line that was drawn roughly onto the edge, though there is grain', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 52, max: 68 }),
        fc.integer({ min: -4, max: 4 }),
        fc.constantFrom([200, 180, 150], [60, 60, 60], [110, 60, 40]),
        (r, shift, inner) => {
          const picture = disc(60, inner, [110, 110, 110], 12)
          const leant = leanOnEdges(circle(r, 100 + shift, 100), all, picture, 14)
          expect(leant.filter(isSmooth)).toHaveLength(8)
          expect(Math.max(...farOff(leant, 60))).toBeLessThan(1.5)
        },
      ),
      { numRuns: 12 },
    )
  })

  it('leaves what was not chosen, and goes no farther than it may', () => {
    const picture = disc(60, [220, 220, 220], [30, 30, 30], 4)
    const rough = circle(54)
    const leant = leanOnEdges(rough, [0, 1, 2], picture, 14)
    for (const i of [3, 4, 5, 6, 7]) expect(leant[i]).toEqual(rough[i])
    expect(Math.abs(Math.hypot(leant[1]!.x - 100, leant[1]!.y - 100) - 60)).toBeLessThan(1)
    const short = leanOnEdges(circle(40), all, picture, 5)
    for (const far of farOff(short, 40)) expect(far).toBeLessThan(7)
    expect(leanOnEdges(rough, [4], picture, 14)).toEqual(rough)
  })

  it('stays where the picture has no edge, and keeps straight lines straight', () => {
    const flat = disc(0, [90, 90, 90], [90, 90, 90], 0)
    const rough = circle(54)
    leanOnEdges(rough, all, flat, 14).forEach((p, i) => {
      expect(Math.hypot(p.x - rough[i]!.x, p.y - rough[i]!.y)).toBeLessThan(0.01)
    })
    const square = [20, 180].flatMap(x => [corner({ x, y: x }), corner({ x, y: 200 - x })])
    for (const p of leanOnEdges(square, [0, 1, 2, 3], disc(80, [200, 0, 0], [0, 0, 0], 0), 6))
      expect([p.inX, p.inY, p.outX, p.outY]).toEqual([0, 0, 0, 0])
    expect(leanOnEdges([], [], flat, 5)).toEqual([])
    expect(leanOnEdges(rough, all, { width: 0, height: 0, data: new Uint8Array() }, 5)).toEqual(rough)
    expect(leanOnEdges(rough, all, flat, Number.NaN)).toEqual(rough)
  })
})
