// Something flat that turns away, told by points of it that are followed.
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { cloth, grainOf } from '../../testing/texture'
import type { Point } from '../affine'
import { canHold, type Projective, pinMap, project, type Quad, quadOf, unproject } from '../projective'
import type { Kernels } from '../render'
import { followSurface, planeBetween, planeMoveOf, pyramid, refill } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const [WIDTH, HEIGHT] = [320, 200]
const SHEET = { left: 80, top: 50, right: 240, bottom: 150 }

const far = (map: Projective, truth: Projective): number =>
  Math.max(
    ...quadOf(SHEET).map(p => {
      const [one, other] = [project(map, p), project(truth, p)]
      return Math.hypot(one.x - other.x, one.y - other.y)
    }),
  )

/** A sheet that turns about its upright middle, comes nearer and goes away, `i` frames after it was seen from the front. */
function seenAt(i: number): Projective {
  const turn = 0.7 * Math.sin(i * 0.04)
  const [near, far] = [12 * Math.sin(turn), -14 * Math.sin(turn)]
  const [by, down] = [24 * Math.sin(i * 0.03), 10 * Math.sin(i * 0.05)]
  const narrow = 80 * (1 - Math.cos(turn))
  const corners: Quad = [
    { x: SHEET.left + narrow + by, y: SHEET.top + near + down },
    { x: SHEET.right - narrow + by, y: SHEET.top + far + down },
    { x: SHEET.right - narrow + by, y: SHEET.bottom - far + down },
    { x: SHEET.left + narrow + by, y: SHEET.bottom - near + down },
  ]
  return pinMap(SHEET, corners)!
}

describe('a sheet that turns', () => {
  it('is told to a tenth of a px at its corners, and to a few tenths while somebody goes by before it', () => {
    const grain = grainOf()
    const data = k.floats(k.alloc(WIDTH * HEIGHT * 4), WIDTH * HEIGHT)
    const filmed = (i: number) => {
      const back = unproject(seenAt(i))
      const passing = i * 5 - 60
      for (let y = 0; y < HEIGHT; y++)
        for (let x = 0; x < WIDTH; x++) {
          const p = project(back, { x: x + 0.5, y: y + 0.5 })
          const isOn = p.x > SHEET.left && p.x < SHEET.right && p.y > SHEET.top && p.y < SHEET.bottom
          const hidden = x > passing && x < passing + 40
          const value = hidden ? cloth(x - passing + 900, y) : isOn ? cloth(p.x, p.y) : cloth(x + 500, y) * 0.5
          data[y * WIDTH + x] = value + grain()
        }
    }
    filmed(0)
    const now = pyramid(k, { width: WIDTH, height: HEIGHT, data })
    const inside = (x: number, y: number) => x > SHEET.left && x < SHEET.right && y > SHEET.top && y < SHEET.bottom
    const follower = followSurface(now, inside)!
    const off = Array.from({ length: 80 }, (_, i) => {
      filmed(i + 1)
      refill(now)
      const { map } = follower.next(now)
      return map ? far(map, seenAt(i + 1)) : Number.POSITIVE_INFINITY
    })
    expect(Math.max(...off)).toBeLessThan(0.4)
    // Where less than a third of it is hidden.
    expect([...off].sort((a, b) => a - b)[60]).toBeLessThan(0.1)
  })
})

const places = Array.from({ length: 20 }, (_, i) => ({ x: 85 + ((i * 37) % 150), y: 55 + ((i * 53) % 90) }))
const bent = fc
  .array(fc.record({ x: fc.double({ min: -40, max: 40 }), y: fc.double({ min: -25, max: 25 }) }), {
    minLength: 4,
    maxLength: 4,
  })
  .map(by => quadOf(SHEET).map((p, i) => ({ x: p.x + by[i]!.x, y: p.y + by[i]!.y })) as unknown as Quad)
  .filter(canHold)

describe('planeMoveOf', () => {
  it('tells any perspective by points that are sure, whatever a third of them do', () => {
    fc.assert(
      fc.property(bent, corners => {
        const truth = pinMap(SHEET, corners)!
        const to = places.map((p, i): Point => {
          const at = project(truth, p)
          return i % 3 === 1 ? { x: at.x + 15 + i, y: at.y - 2 * i } : at
        })
        expect(far(planeMoveOf(places, to)!, truth)).toBeLessThan(1e-3)
      }),
      { numRuns: 60 },
    )
  })

  it('is a turn and a shift of few points, and nothing of none', () => {
    const by = places.slice(0, 5).map(p => ({ x: p.x + 3, y: p.y - 2 }))
    expect(planeMoveOf(places.slice(0, 5), by)).toMatchObject({ g: 0, h: 0, w: 1 })
    expect(planeMoveOf([], [])).toBeNull()
    // Points on a line, and on one spot, tell no perspective, but hang nobody.
    const line = places.map((_, i) => ({ x: 10 * i, y: 5 * i }))
    const moved = planeMoveOf(
      line,
      line.map(p => ({ x: p.x + 1, y: p.y })),
    )!
    expect(project(moved, { x: 50, y: 25 }).x).toBeCloseTo(51, 3)
    expect(
      planeMoveOf(
        places.map(() => ({ x: 3, y: 3 })),
        places.map(() => ({ x: 4, y: 3 })),
      ),
    ).not.toBeNull()
  })

  it('is told exactly by four that something flat hangs on', () => {
    const truth = seenAt(30)
    const quad = quadOf(SHEET)
    expect(far(planeBetween(quad, quad.map(p => project(truth, p)) as unknown as Quad)!, truth)).toBeLessThan(1e-9)
    expect(planeBetween(quad, [quad[0], quad[2], quad[1], quad[3]])).toBeNull()
  })
})
