// Made scenes of which everything is known: what a plate tells of them.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { addCells, keptCells, medianCells, seldomSeen } from './background'
import { blankCells, type Cells, LIFT } from './cells'
import { clean } from './clean'
import { cutout } from './cutout'
import { movementFinder } from './find-movement'
import { measureGain, POWER } from './light'
import { STILL } from './movement'
import { planeIn } from './plane'

const SIZE = { width: 240, height: 160 }

/** Numbers about nought of unit variance, the same each time. */
function noise(seed: number): () => number {
  let state = seed * 2654435761 + 1
  const one = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
  return () => (one() + one() + one() + one() - 2) * Math.sqrt(3)
}

interface Seen {
  /** Of each px: codes of luma, u and v. */
  at(x: number, y: number): readonly [number, number, number]
  gain?: number
  /** Light that is added, of white. */
  veil?: number
  grain?: number
  seed?: number
}

/** Lifted codes of luma, u and v in another light, channel by channel. */
function litAs([y, u, v]: readonly [number, number, number], gain: number, veil: number) {
  const s = gain ** POWER
  if (veil === 0) return [y * s, u * s, v * s] as const
  const white = 255 + LIFT
  const [r, g, b] = [y + 1.5748 * v, y - 0.1873 * u - 0.4681 * v, y + 1.8556 * u].map(
    code => white * (gain * (Math.max(0, code) / white) ** (1 / POWER) + veil) ** POWER,
  ) as [number, number, number]
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
  return [luma, (b - luma) / 1.8556, (r - luma) / 1.5748] as const
}

/** A picture told place by place, in another light and with grain. */
function filmed({ at, gain = 1, veil = 0, grain = 0.8, seed = 1 }: Seen): Cells {
  const out = blankCells(k, SIZE)
  const random = noise(seed)
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const [l, ...uv] = at(x, y)
      const [lit, u, v] = litAs([l + LIFT, ...uv], gain, veil)
      const luma = lit + random() * grain
      out.luma[y * SIZE.width + x] = luma
      const i = (y >> 1) * out.width + (x >> 1)
      out.y[i]! += luma / 4
      out.u[i]! += (u + random() * grain * 0.5) / 4
      out.v[i]! += (v + random() * grain * 0.5) / 4
    }
  }
  return out
}

/** A wall with boards and stains. */
const wall = (x: number, y: number): [number, number, number] => [
  90 + 25 * Math.sin(x * 0.21) + 18 * Math.cos(y * 0.13 + x * 0.05) - 30 * Math.exp(-((((x + 800) % 40) - 8) ** 2) / 4),
  -8 + 4 * Math.sin(y * 0.05),
  12 + 3 * Math.cos(x * 0.07),
]
let k: Kernels
let plate: Cells
beforeAll(async () => {
  k = await testKernels()
  plate = blankCells(k, SIZE)
  for (const seed of [1, 2, 3, 4]) addCells(plate, filmed({ at: wall, seed }), 0.25)
})

const inBody = (x: number, y: number, by: number): boolean => ((x - 110 - by) / 34) ** 2 + ((y - 90) / 52) ** 2 < 1
/** How much light somebody's shadow takes: to the right of them, soft at its border. */
const shade = (x: number, y: number): number => {
  const d = ((x - 165) / 30) ** 2 + ((y - 95) / 48) ** 2
  return 0.5 * Math.max(0, Math.min(1, (1.2 - d) * 2))
}
const somebody =
  (by = 0) =>
  (x: number, y: number): readonly [number, number, number] => {
    if (inBody(x, y, by)) return [150 + 20 * Math.sin(y * 0.3), 20, -15]
    const s = (1 - shade(x, y)) ** POWER
    const [l, u, v] = wall(x, y)
    return [(l + LIFT) * s - LIFT, u * s, v * s]
  }

it('tells the light within three in a thousand, with somebody before half of the set', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.7, max: 1.4, noNaN: true }), fc.integer({ min: 5, max: 99 }), (gain, seed) => {
      const at = (x: number, y: number): readonly [number, number, number] => (x < 110 ? [30, 5, 5] : wall(x, y))
      for (const measured of measureGain(filmed({ at, gain, seed }), plate, null)) {
        expect(Math.abs(measured / gain - 1)).toBeLessThan(0.003)
      }
    }),
    { numRuns: 30 },
  )
})

it('tells where the camera stands within a twentieth of a px, with somebody in the picture', () => {
  const finder = movementFinder(plate)
  fc.assert(
    fc.property(fc.double({ min: -6, max: 6, noNaN: true }), fc.double({ min: -6, max: 6, noNaN: true }), (dx, dy) => {
      const at = (x: number, y: number) => (inBody(x, y, 0) ? somebody()(x, y) : wall(x + dx, y + dy))
      const { x, y } = finder.find(filmed({ at, seed: 9 }), 1, STILL)
      expect(Math.hypot(x - dx, y - dy)).toBeLessThan(0.05)
    }),
    { numRuns: 30 },
  )
})

it('takes a camera for still before a set that is out of focus, since a turn may be told wrongly there', () => {
  const blurred = (x: number, y: number): [number, number, number] => [
    110 + 34 * Math.sin(x * 0.045) * Math.cos(y * 0.06 + 1) + 3 * Math.sin(y * 0.7) * Math.exp(-(((x - 30) / 8) ** 2)),
    -8,
    12,
  ]
  const empty = blankCells(k, SIZE)
  for (const seed of [1, 2, 3, 4]) addCells(empty, filmed({ at: blurred, seed }), 0.25)
  const finder = movementFinder(empty)
  for (const seed of [5, 6, 7, 8, 9]) {
    const at = (x: number, y: number) => (inBody(x, y, 0) ? somebody()(x, y) : blurred(x, y))
    const { x, y, turn, scale } = finder.find(filmed({ at, grain: 3, seed }), 1, STILL)
    expect(turn).toBe(0)
    expect(scale).toBe(1)
    expect(Math.hypot(x, y)).toBeLessThan(0.1)
  }
})

it('cuts somebody out, and tells their shadow apart from them', () => {
  const cut = cutout(plate)
  let error = 0
  let inside = 0
  let shaded = 0
  const frames = [0, 2, 4, 6]
  for (const by of frames) {
    const frame = filmed({ at: somebody(by), gain: 0.93, seed: 20 + by })
    const { alpha, shadow, gain } = cut.next(frame)
    expect(gain[0]).toBeCloseTo(0.93, 2)
    for (let y = 0; y < SIZE.height; y++) {
      for (let x = 0; x < SIZE.width; x++) {
        const is = inBody(x, y, by)
        const a = alpha[y * SIZE.width + x]! / 255
        error += Math.abs(a - (is ? 1 : 0))
        if (!is && shade(x, y) > 0.4) inside = Math.max(inside, inBody(x, y, by + 4) || inBody(x, y, by - 4) ? 0 : a)
        if (shade(x, y) > 0.49 && !inBody(x, y, by + 6)) {
          shaded = Math.max(shaded, Math.abs(shadow[(y >> 1) * (SIZE.width >> 1) + (x >> 1)]! / 255 - shade(x, y)))
        }
      }
    }
  }
  // In a picture as small as this every tenth px lies beside the border.
  expect(error / frames.length / (SIZE.width * SIZE.height)).toBeLessThan(0.008)
  expect(inside).toBeLessThan(0.1)
  expect(shaded).toBeLessThan(0.12)
})

it('tells of the part in which anything differs what it tells of all of the picture', () => {
  // What was painted makes it look at all of it; this is nowhere.
  const nowhere = { hint: { does: 'keep' as const, near: [], colours: new Float32Array() }, apart: 5 }
  fc.assert(
    fc.property(fc.integer({ min: -60, max: 60 }), fc.double({ min: 0.8, max: 1.2, noNaN: true }), (from, gain) => {
      const [part, all] = [cutout(plate), cutout(plate)]
      for (const by of [from, from + 3, from + 6]) {
        const frame = filmed({ at: somebody(by), gain, seed: 30 })
        const [one, other] = [part.next(frame), all.next(frame, [nowhere])]
        for (const [told, truth] of [
          [one.alpha, other.alpha],
          [one.shadow, other.shadow],
        ] as const) {
          let [sum, far] = [0, 0]
          told.forEach((a, i) => {
            sum += Math.abs(a - truth[i]!)
            if (Math.abs(a - truth[i]!) > 8) far++
          })
          expect(sum / told.length).toBeLessThan(0.05)
          expect(far / told.length).toBeLessThan(0.0005)
        }
        expect(one.share).toBeCloseTo(other.share, 3)
        expect([one.movement, one.gain, one.sharp]).toEqual([other.movement, other.gain, other.sharp])
      }
    }),
    { numRuns: 12 },
  )
})

it('cuts somebody out under a veil of light that the plate has not', () => {
  // What is added tells in the dark most of all.
  const boards = (x: number, y: number) => ((Math.floor(x / 24) + Math.floor(y / 40)) % 2 === 0 ? 0.08 : 1.5)
  const dark = (x: number, y: number): readonly [number, number, number] => {
    const [l, u, v] = wall(x, y)
    return [l * boards(x, y), u * boards(x, y), v * boards(x, y)]
  }
  const cut = cutout(filmed({ at: dark, grain: 0.3, seed: 50 }))
  let error = 0
  for (const by of [0, 2, 4]) {
    const at = (x: number, y: number) => (inBody(x, y, by) ? somebody(by)(x, y) : dark(x, y))
    const { alpha } = cut.next(filmed({ at, gain: 0.95, veil: 0.03, seed: 60 + by }))
    alpha.forEach((a, p) => {
      error += Math.abs(a / 255 - (inBody(p % SIZE.width, Math.floor(p / SIZE.width), by) ? 1 : 0))
    })
  }
  expect(error / 3 / (SIZE.width * SIZE.height)).toBeLessThan(0.01)
})

it('finds nobody in the empty set, whatever its light, its noise and its place', () => {
  const cut = cutout(plate)
  for (const [gain, grain, by] of [
    [1, 0.8, 0],
    [1.2, 3, 0.6],
    [0.6, 1, 0],
  ] as const) {
    const { alpha } = cut.next(filmed({ at: (x, y) => wall(x + by, y), gain, grain, seed: 77 }))
    expect(alpha.reduce((sum, a) => sum + a, 0) / 255 / alpha.length).toBeLessThan(0.001)
  }
})

it('is the same again after a fresh start, and steadier than its noise on somebody who stands still', () => {
  const cut = cutout(plate)
  const frames = [1, 2, 3].map(seed => filmed({ at: somebody(), seed: 40 + seed }))
  const first = frames.map(frame => cut.next(frame).alpha)
  cut.restart()
  expect(frames.map(frame => cut.next(frame).alpha)).toEqual(first)
  const alone = frames.map(frame => {
    cut.restart()
    return cut.next(frame).alpha
  })
  const change = (all: Uint8Array[]) => all[2]!.reduce((sum, a, i) => sum + Math.abs(a - all[1]![i]!), 0)
  expect(change(first)).toBeLessThan(0.6 * change(alone))
})

it('finds the set behind somebody who is never long in one place', () => {
  const read = [0, 60, -60, 100, -100].map((by, i) => keptCells(filmed({ at: somebody(by), seed: 50 + i, grain: 0 })))
  const found = blankCells(k, SIZE)
  medianCells(read, found)
  const truth = filmed({ at: wall, grain: 0 })
  let most = 0
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const p = y * SIZE.width + x
      if (shade(x, y) === 0) most = Math.max(most, Math.abs(found.luma[p]! - truth.luma[p]!))
    }
  }
  expect(most).toBeLessThan(1e-3)
})

it('says where somebody swayed before the set for most of the time, and nowhere else', () => {
  const by = [0, 2, -2, 4, -4, 90, 92]
  const read = by.map((dx, i) => {
    const at = (x: number, y: number) => (inBody(x, y, dx) ? ([60 + 25 * i, 5 * i, -5 * i] as const) : wall(x, y))
    return keptCells(filmed({ at, seed: 60 + i, grain: 2 }))
  })
  const found = blankCells(k, SIZE)
  medianCells(read, found)
  const seldom = seldomSeen(read, found)
  let [missed, wrong] = [0, 0]
  for (let y = 0; y < found.height; y++) {
    for (let x = 0; x < found.width; x++) {
      const near = (dx: number, room: number) =>
        [-room, room].some(r => inBody(x * 2 + r, y * 2, dx) || inBody(x * 2, y * 2 + r, dx))
      const covered = by.filter(dx => near(dx, 0)).length
      const is = seldom[y * found.width + x] === 1
      if (covered > 4 && !is) missed++
      if (is && !by.some(dx => near(dx, 6))) wrong++
    }
  }
  expect(missed).toBeLessThan(0.02 * seldom.reduce((sum, one) => sum + one, 0))
  expect(wrong).toBe(0)
})

it('fills holes that are too small or doubtful, drops specks, and keeps what is sure', () => {
  const size = { width: 40, height: 20 }
  const [told, odds] = [planeIn(k, 800).fill(-5), planeIn(k, 800).fill(-5)]
  const rectangle = (x: number, y: number, w: number, h: number, value: number, own: number) => {
    for (let j = y; j < y + h; j++)
      for (let i = x; i < x + w; i++) {
        told[j * 40 + i] = value
        odds[j * 40 + i] = own
      }
  }
  rectangle(2, 2, 30, 16, 6, 6)
  rectangle(4, 4, 2, 2, -4, -9)
  rectangle(10, 4, 5, 5, -4, -1)
  rectangle(20, 4, 5, 5, -4, -9)
  rectangle(36, 10, 2, 2, 4, 9)
  clean(k, size, told, odds, { speck: 6, hole: 50 })
  const is = (x: number, y: number) => told[y * 40 + x]! > 0
  expect([is(5, 5), is(12, 6), is(22, 6), is(36, 10), is(3, 3), is(39, 19)]).toEqual([
    true,
    true,
    false,
    false,
    true,
    false,
  ])
})
