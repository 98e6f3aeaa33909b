// Something flat that turns away, followed.
import { beforeAll, describe, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { cloth, grainOf } from '../../testing/texture'
import { type Projective, pinMap, project, type Quad, quadOf, unproject } from '../projective'
import type { Kernels } from '../render'
import { followSurface, pyramid, refill } from '.'

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
      const passing = i * 8 - 60
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
    const off = Array.from({ length: 50 }, (_, i) => {
      filmed(i + 1)
      refill(now)
      const { map } = follower.next(now)
      return map ? far(map, seenAt(i + 1)) : Number.POSITIVE_INFINITY
    })
    expect(Math.max(...off)).toBeLessThan(0.4)
    // Where less than a third of it is hidden.
    expect([...off].sort((a, b) => a - b)[38]).toBeLessThan(0.1)
  })
})
