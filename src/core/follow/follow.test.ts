import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { cloth, grainOf, lattice } from '../../testing/texture'
import type { Kernels } from '../render'
import { followPoint, moveOf, type Pyramid, pyramid, spotsIn } from '.'

let k: Kernels
let made: Pyramid[] = []
beforeAll(async () => {
  k = await testKernels()
})
beforeEach(() => {
  for (const { levels } of made) for (const { data } of levels) k.free(data.byteOffset)
  made = []
})

const [WIDTH, HEIGHT] = [320, 200]

const grain = grainOf()

const filmed = (at: (x: number, y: number) => number, noise = 1): Pyramid => {
  const data = k.floats(k.alloc(WIDTH * HEIGHT * 4), WIDTH * HEIGHT)
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) data[y * WIDTH + x] = at(x + 0.5, y + 0.5) + noise * grain()
  const whole = pyramid(k, { width: WIDTH, height: HEIGHT, data })
  made.push(whole)
  return whole
}

describe('a point that is followed', () => {
  it('stays within a tenth of a px over a hundred frames, whatever the light does', () => {
    const path = (i: number) => ({ x: 40 * Math.sin(i * 0.05), y: 25 * Math.sin(i * 0.083) })
    const follower = followPoint(filmed(cloth), { x: 150, y: 95 })!
    let most = 0
    for (let i = 1; i <= 100; i++) {
      const by = path(i)
      const light = 1 + 0.15 * Math.sin(i * 0.2)
      const found = follower.next(filmed((x, y) => cloth(x - by.x, y - by.y) * light))
      expect(found.isLost).toBe(false)
      most = Math.max(most, Math.hypot(found.x - 150 - by.x, found.y - 95 - by.y))
    }
    expect(most).toBeLessThan(0.1)
  })

  it('is found again after a jump of thirty px, and says that it is lost behind something else', () => {
    const follower = followPoint(filmed(cloth), { x: 150, y: 95 })!
    const jumped = follower.next(filmed((x, y) => cloth(x - 18, y + 12)))
    expect(Math.hypot(jumped.x - 168, jumped.y - 83)).toBeLessThan(0.1)
    const hidden = follower.next(filmed((x, y) => 100 + 40 * Math.sin(x * 0.9) * Math.cos(y * 0.8)))
    expect(hidden).toMatchObject({ isLost: true, x: jumped.x, y: jumped.y })
    const back = follower.next(filmed((x, y) => cloth(x - 19, y + 12)))
    expect(back.isLost).toBe(false)
    expect(Math.hypot(back.x - 169, back.y - 83)).toBeLessThan(0.1)
  })

  it('says where there is nothing to hold on to, and bears places beyond the picture', () => {
    expect(
      followPoint(
        filmed(() => 100, 0),
        { x: 50, y: 50 },
      ),
    ).toBeNull()
    expect(
      followPoint(
        filmed(x => 100 + 50 * Math.sin(x * 0.3), 0),
        { x: 50, y: 50 },
      ),
    ).toBeNull()
    expect(followPoint(filmed(cloth), { x: -500, y: 9e9 })).toBeNull()
    const edge = followPoint(filmed(cloth), { x: 2, y: 3 })
    expect(edge?.next(filmed((x, y) => cloth(x + 60, y))).isLost ?? true).toBe(true)
  })
})

it('pictures at half their size are means of three px either way, the border going on', () => {
  const { levels } = filmed(cloth)
  expect(levels.map(({ width, height }) => [width, height])).toEqual([
    [320, 200],
    [160, 100],
    [80, 50],
    [40, 25],
  ])
  const [whole, half] = levels
  const at = (x: number, y: number) => whole!.data[Math.max(0, y) * WIDTH + Math.max(0, x)]!
  let most = 0
  half!.data.forEach((value, i) => {
    const [x, y] = [2 * (i % 160), 2 * Math.floor(i / 160)]
    const row = (v: number) => (at(x - 1, v) + 2 * at(x, v) + at(x + 1, v)) / 4
    most = Math.max(most, Math.abs(value - (row(y - 1) + 2 * row(y) + row(y + 1)) / 4))
  })
  expect(most).toBeLessThan(1e-3)
})

describe('things that move', () => {
  const at = (map: { a: number; b: number; c: number; d: number; x: number; y: number }, x: number, y: number) => ({
    x: map.a * x + map.c * y + map.x,
    y: map.b * x + map.d * y + map.y,
  })

  it('are told by their points as a turn, a scale and a shift, whatever a third of them do', () => {
    const [turn, scale] = [0.4, 1.15]
    const truth = {
      a: scale * Math.cos(turn),
      b: scale * Math.sin(turn),
      c: -scale * Math.sin(turn),
      d: scale * Math.cos(turn),
      x: 12,
      y: -7,
    }
    const from = Array.from({ length: 18 }, (_, i) => ({ x: 40 + 60 * lattice(i, 1), y: 30 + 80 * lattice(i, 2) }))
    const to = from.map((p, i) => {
      const { x, y } = at(truth, p.x, p.y)
      return i % 3 === 0 ? { x: x + 20 * lattice(i, 5), y: y - 30 } : { x: x + 0.02 * lattice(i, 7), y }
    })
    const found = moveOf(from, to)!
    for (const p of from) {
      const [one, other] = [at(found, p.x, p.y), at(truth, p.x, p.y)]
      expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeLessThan(0.15)
    }
    expect(moveOf([{ x: 3, y: 4 }], [{ x: 5, y: 1 }])).toEqual({ a: 1, b: 0, c: -0, d: 1, x: 2, y: -3 })
    expect(moveOf([], [])).toBeNull()
  })

  it('are held on to where there are corners and spots, apart from each other and inside of them', () => {
    const [picture] = filmed(cloth).levels
    const inside = (x: number, y: number) => x > 100 && x < 220 && y > 50 && y < 150
    const spots = spotsIn(picture!, inside, 12)
    expect(spots).toHaveLength(12)
    for (const [i, p] of spots.entries()) {
      expect(inside(p.x, p.y)).toBe(true)
      for (const q of spots.slice(i + 1)) expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeGreaterThanOrEqual(12)
    }
    expect(spotsIn(filmed((x, _) => 100 + 50 * Math.sin(x * 0.3), 0).levels[0]!, () => true, 9)).toEqual([])
  })
})
