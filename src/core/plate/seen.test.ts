// What the cells of a frame come to, beside plain counting.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { noise, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells } from './cells'
import { planeIn } from './plane'
import { clipped, sharpness, tally } from './seen'
import { standing } from './soften'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

it('counts who is there, where their border runs and what is clipped, and how sharp the set is', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), seed =>
      k.scope(() => {
        const frame = blankCells(k, { width: 41, height: 27 })
        const n = frame.y.length
        const tones = noise(n, 100, seed)
        frame.y.set(tones.map(v => (v < 10 ? 10 : v < 20 ? 270 : v + 60)))
        const [told, left] = [planeIn(k, n), planeIn(k, n)]
        told.set(noise(n, 800, seed + 1).map(v => v / 100 - 5))
        left.set(noise(n, 50, seed + 2).map(v => 0.5 + v / 100))
        const is = planeIn(k, n)
        standing(frame, told, is)
        const share = (test: (i: number) => boolean) => Array.from({ length: n }, (_, i) => i).filter(test).length / n
        const found = { ...tally(k, told, is, left), ...clipped(frame) }
        expect(found.share).toBeCloseTo(share(i => told[i]! > 0))
        expect(found.shade).toBeCloseTo(share(i => told[i]! <= 0 && left[i]! < 0.8))
        expect(found.dark).toBeCloseTo(share(i => frame.y[i]! === 10))
        expect(found.bright).toBeCloseTo(share(i => frame.y[i]! === 270))
        expect(found.unsure).toBeCloseTo(
          Math.min(
            1,
            (share(i => Math.abs(told[i]!) < 1.5) * n) /
              Math.max(100, 6 * n * share(i => i > 0 && is[i] !== is[i - 1])),
          ),
        )
      }),
    ),
  )
  const wide = { width: 400, height: 100 }
  const [frame, plate] = [blankCells(k, wide), blankCells(k, wide)]
  plate.y.forEach((_, i) => {
    plate.y[i] = 100 + 40 * Math.sin((i % 200) / 3)
    frame.y[i] = 100 + 30 * Math.sin((i % 200) / 3)
  })
  expect(sharpness(frame, plate, planeIn(k, frame.y.length))).toBeCloseTo(0.75, 3)
  const busy = planeIn(k, frame.y.length)
  busy.fill(1)
  expect(sharpness(frame, plate, busy)).toBe(1)
})
