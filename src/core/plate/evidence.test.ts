// What is shadow by itself: the plate darkened, evenly from px to px.
import { beforeAll, expect, it } from 'vitest'
import { random, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells } from './cells'
import { weigh } from './evidence'
import { type Noise, slopesOf } from './noise'
import { palette } from './palette'
import { type Plane, planeIn } from './plane'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const FULL = { width: 240, height: 160 }
const NOISE: Noise = { y: new Float32Array(16).fill(1), u: 0.5, v: 0.5, slope: 0.001, slopeC: 0.001 }
const MIDDLE = { from: 40, to: 80 }

/** The light that is left evenly in the middle third of a tan wall with boards, of which each cell has so much: its mean. */
function told(light: (x: number, y: number) => number): number {
  return k.scope(() => {
    const [frame, plate] = [blankCells(k, FULL), blankCells(k, FULL)]
    const { width, height } = frame
    const next = random(7)
    const grain = () => (next() + next() + next() - 1.5) * 2
    for (let i = 0; i < width * height; i++) {
      const [x, y] = [i % width, Math.floor(i / width)]
      const boards = 180 - 40 * Math.exp(-((((x % 24) - 8) / 2) ** 2))
      const left = x >= MIDDLE.from && x < MIDDLE.to ? light(x, y) : 1
      const tones = { y: boards, u: -20, v: 14 }
      for (const c of ['y', 'u', 'v'] as const) {
        plate[c][i] = tones[c]
        frame[c][i] = left * tones[c] + (c === 'y' ? 1 : 0.5) * grain()
      }
    }
    const [odds, left, evenly, slopes] = [0, 1, 2, 3].map(() => planeIn(k, width * height)) as [
      Plane,
      Plane,
      Plane,
      Plane,
    ]
    slopesOf(plate, slopes)
    weigh(frame, plate, { noise: NOISE, slopes, colours: palette(k), usual: 1, bias: 0 }, { odds, left, evenly })
    const middle = evenly.filter((_, i) => i % width >= MIDDLE.from + 5 && i % width < MIDDLE.to - 5)
    return middle.reduce((sum, v) => sum + v, 0) / middle.length
  })
}

it('a shadow leaves as much light as it does from board to board, also where it grows', () => {
  expect(told(() => 0.7)).toBeCloseTo(0.7, 2)
  expect(told((_, y) => 0.9 - 0.003 * y)).toBeCloseTo(0.78, 2)
})

it('what changes from cell to cell is none, though it has the colour of the wall: hair leaves the light between it', () => {
  expect(told((x, y) => ((x + 2 * y) % 4 < 2 ? 0.55 : 0.8))).toBeGreaterThan(0.97)
})
