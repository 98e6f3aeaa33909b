// What a plate shows where somebody stood before the set for most of the time, and that somebody stands in one.
import { beforeAll, expect, it } from 'vitest'
import { noise, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { type Kept, keptCells, medianCells } from './background'
import { blankCells, type Cells } from './cells'
import { occupied } from './occupied'
import { putSetBack } from './settle'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIZE = { width: 240, height: 160 }
const WIDE = SIZE.width / 2

const isIn = (x: number, y: number, { at, size }: { at: readonly [number, number]; size: readonly [number, number] }) =>
  Math.abs(x - at[0]) < size[0] / 2 && Math.abs(y - at[1]) < size[1] / 2

interface Frame {
  /** Where somebody stands, if they are there. */
  somebody?: number
  /** Whether a box is there that nobody moves while it is. */
  hasBox?: boolean
  /** Whether leaves move at a part of the set. */
  isRestless?: boolean
}

/** A frame of a striped set in cells: somebody striped as well, with a soft shadow at some distance from them, and a box. */
function filmed({ somebody, hasBox, isRestless }: Frame, seed: number): Cells {
  const cells = blankCells(k, SIZE)
  const grain = noise(cells.y.length, 5, seed)
  for (let i = 0; i < cells.y.length; i++) {
    const [x, y] = [i % WIDE, Math.floor(i / WIDE)]
    let [tone, u, v] = [110 + 15 * Math.sin(x / 3), 2, -3]
    if (somebody !== undefined) tone *= 1 - 0.09 * Math.max(0, 1 - Math.hypot(x - somebody - 18, y - 40) / 10)
    if (isRestless && isIn(x, y, { at: [30, 40], size: [14, 44] })) tone += 25 * Math.sin(seed * 7 + x / 3 + y / 2)
    if (hasBox && isIn(x, y, { at: [95, 60], size: [14, 20] })) [tone, u, v] = [60, 15, 5]
    if (somebody !== undefined && isIn(x, y, { at: [somebody, 40], size: [16, 50] })) {
      ;[tone, u, v] = [150 + 20 * Math.sin((x - somebody) / 2 + y / 4), -12, 9]
    }
    cells.y[i] = tone + grain[i]! - 2
    cells.u[i] = u
    cells.v[i] = v
  }
  cells.luma.forEach((_, p) => {
    cells.luma[p] = cells.y[(Math.floor(p / SIZE.width) >> 1) * WIDE + ((p % SIZE.width) >> 1)]!
  })
  return cells
}

const frame = (one: Frame, seed: number): Kept => keptCells(filmed(one, seed))

/** Most by which a plate of frames is off from what it should show; and how much of it was settled. */
function plateOf(frames: readonly Frame[], truth: Frame) {
  const all = frames.map(frame)
  const found = blankCells(k, SIZE)
  medianCells(all, found)
  const settled = putSetBack(all, found)
  const wanted = frame(truth, 99)
  const most = (name: 'y' | 'u' | 'luma') =>
    found[name].reduce((worst, value, i) => Math.max(worst, Math.abs(value - wanted[name][i]!)), 0)
  return { most: Math.max(most('y'), most('u'), most('luma')), settled: settled.reduce((sum, one) => sum + one, 0) }
}

const swaying = [50, 51, 49, 52, 50, 48, 50, 51, 49, 50]

it('shows the set, without its shadow, where somebody swayed for most of the time and was gone for the rest', () => {
  const frames = [...swaying.map(somebody => ({ somebody })), {}, {}, {}]
  expect(plateOf(frames, {}).most).toBeLessThan(6)
})

it('shows it where each of two takes has somebody in it all the time, at another place', () => {
  const frames = [...swaying.map(somebody => ({ somebody })), ...swaying.map(somebody => ({ somebody: somebody + 40 }))]
  expect(plateOf(frames, {}).most).toBeLessThan(6)
})

it('keeps a thing that stood there for most of the time and was taken away, since nothing of it moved', () => {
  const frames = [...swaying.map(() => ({ hasBox: true })), {}, {}, {}]
  expect(plateOf(frames, { hasBox: true })).toEqual({ most: expect.closeTo(2, -1), settled: 0 })
})

it.each([false, true])(
  'brings nobody in who came for a while, though they stood before moving leaves: %s',
  isRestless => {
    const frames = [...swaying.map(() => ({ isRestless })), ...[30, 30, 30].map(somebody => ({ somebody, isRestless }))]
    expect(plateOf(frames, {}).settled).toBe(0)
  },
)

it('says on how much of the picture somebody stands in a plate, wherever they are in the take', () => {
  const share = (plate: Frame, frames: readonly Frame[]) => occupied(filmed(plate, 98), frames.map(frame))
  const body = (16 * 50) / (WIDE * 80)
  const elsewhere = swaying.map(somebody => ({ somebody: somebody + 40 }))
  expect(share({ somebody: 50 }, elsewhere)).toBeCloseTo(body, 1.5)
  // There for most of the take as well, and then gone.
  expect(share({ somebody: 50 }, [...swaying.map(somebody => ({ somebody })), {}, {}])).toBeCloseTo(body, 1.5)
  expect(share({}, elsewhere)).toBe(0)
  // Somebody who never moves there, too.
  expect(
    share(
      {},
      swaying.map(() => ({ somebody: 50 })),
    ),
  ).toBe(0)
})
