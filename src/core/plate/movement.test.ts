// A plate seen by a camera that stood elsewhere, beside what its kernels do in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { noise, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { blankCells } from './cells'
import { type Movement, movedPlate, sampleWithin } from './movement'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** Catmull–Rom weights of the four samples about a place between the middle two. */
function weightsAt(t: number): [number, number, number, number] {
  return [
    (-t + 2 * t * t - t * t * t) / 2,
    (2 - 5 * t * t + 3 * t * t * t) / 2,
    (t + 4 * t * t - 3 * t * t * t) / 2,
    (-t * t + t * t * t) / 2,
  ]
}

/** A plane between its samples, its border going on beyond it. */
function sampleAt({ width, height }: Size, plane: Float32Array, x: number, y: number): number {
  const [ix, iy] = [Math.floor(x), Math.floor(y)]
  const wx = weightsAt(x - ix)
  const wy = weightsAt(y - iy)
  let sum = 0
  for (let b = 0; b < 4; b++) {
    const row = Math.max(0, Math.min(height - 1, iy + b - 1)) * width
    let across = 0
    for (let a = 0; a < 4; a++) across += wx[a]! * plane[row + Math.max(0, Math.min(width - 1, ix + a - 1))]!
    sum += wy[b]! * across
  }
  return sum
}

const movements: fc.Arbitrary<Movement> = fc.record({
  x: fc.double({ min: -45, max: 45, noNaN: true }),
  y: fc.double({ min: -45, max: 45, noNaN: true }),
  turn: fc.oneof(fc.constant(0), fc.double({ min: -0.2, max: 0.2, noNaN: true })),
  scale: fc.oneof(fc.constant(1), fc.double({ min: 0.8, max: 1.2, noNaN: true })),
})

it('is what lies at each place moved, its border going on', () => {
  fc.assert(
    fc.property(
      fc.record({ width: fc.integer({ min: 2, max: 41 }), height: fc.integer({ min: 2, max: 33 }) }),
      movements,
      fc.integer({ min: 1, max: 1e6 }),
      (full, at, seed) =>
        k.scope(() => {
          const [plate, out] = [blankCells(k, full), blankCells(k, full)]
          for (const name of ['y', 'u', 'v', 'luma'] as const) plate[name].set(noise(plate[name].length, 256, seed))
          movedPlate(plate, at, out)
          for (const [name, size, px] of [
            ['luma', full, 1],
            ['u', plate, 2],
          ] as const) {
            const [cx, cy] = [(size.width - 1) / 2, (size.height - 1) / 2]
            let most = 0
            out[name].forEach((value, i) => {
              const [dx, dy] = [(i % size.width) - cx, Math.floor(i / size.width) - cy]
              const x = cx + at.scale * (dx - at.turn * dy) + at.x / px
              const y = cy + at.scale * (dy + at.turn * dx) + at.y / px
              const plain = sampleAt(size, plate[name], x, y)
              most = Math.max(most, Math.abs(value - plain))
              if (x > 1 && y > 1 && x < size.width - 2 && y < size.height - 2)
                expect(sampleWithin(plate[name], size.width, x, y)).toBeCloseTo(plain, 3)
            })
            // Places between samples are told by 1024ths where the plate is turned.
            expect(most).toBeLessThan(at.turn === 0 && at.scale === 1 ? 0.02 : 0.6)
          }
        }),
    ),
  )
})
