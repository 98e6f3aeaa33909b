// A plate seen by a camera that stood elsewhere, beside what its kernels do in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { noise, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { blankCells } from './cells'
import { type Movement, movedPlate } from './movement'
import { type Plane, planeIn } from './plane'

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
            })
            // Places between samples are told by 1024ths where the plate is turned.
            expect(most).toBeLessThan(at.turn === 0 && at.scale === 1 ? 0.02 : 0.6)
          }
        }),
    ),
  )
})

const BINOMIAL = [1, 4, 6, 4, 1]

/** Places with slopes there, by fours, as those of a camera's anchors lie: at least three from the border. */
function places(count: number, { width, height }: Size, seed: number) {
  const n = Math.ceil(count / 4) * 4
  const of = (values: number[]) => {
    const plane = planeIn(k, n)
    plane.set(values)
    return plane
  }
  const [x, y] = [noise(count, width - 6, seed), noise(count, height - 6, seed + 1)].map(all => of(all.map(v => v + 3)))
  const [gx, gy] = [noise(count, 99, seed + 2), noise(count, 99, seed + 3)].map(all => of(all.map(v => v - 50)))
  return { n, x: x!, y: y!, gx: gx!, gy: gy! }
}

it('is told by places: what shows there, by how much it is off from what the plate shows, and how the plate changes', () => {
  fc.assert(
    fc.property(
      fc.record({ width: fc.integer({ min: 8, max: 61 }), height: fc.integer({ min: 8, max: 47 }) }),
      movements,
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 1e6 }),
      (size, at, count, seed) =>
        k.scope(() => {
          const { width, height } = size
          const [plane, shown, off] = [planeIn(k, width * height + 4), planeIn(k, count), planeIn(k, count)]
          plane.set(noise(width * height, 256, seed))
          const { x, y, gx, gy } = places(count, size, seed)
          const given = { plane: plane.byteOffset, width, xs: x.byteOffset, ys: y.byteOffset, n: count }
          k.smoothAnchors({ ...given, share: 1.25, out: shown.byteOffset })
          const [cos, sin] = [at.scale, at.scale * at.turn]
          const to = { x0: at.x, y0: at.y, cos, sin, beyond: 999, gxs: gx.byteOffset, gys: gy.byteOffset }
          k.anchorsOff({ ...given, height, ...to, shown: shown.byteOffset, out: off.byteOffset })
          for (let i = 0; i < count; i++) {
            let sum = 0
            for (let dy = -2; dy <= 2; dy++) {
              for (let dx = -2; dx <= 2; dx++)
                sum += BINOMIAL[dx + 2]! * BINOMIAL[dy + 2]! * plane[(y[i]! + dy) * width + x[i]! + dx]!
            }
            expect(shown[i]).toBeCloseTo((1.25 * sum) / 256, 3)
            const sx = at.x + cos * x[i]! - sin * y[i]!
            const sy = at.y + sin * x[i]! + cos * y[i]!
            const isIn = sx > 1 && sy > 1 && sx < width - 2 && sy < height - 2
            if (!isIn) {
              expect([off[i], gx[i], gy[i]]).toEqual([999, 0, 0])
              continue
            }
            const by = (dx: number, dy: number) => sampleAt(size, plane, sx + dx, sy + dy)
            expect(off[i]).toBeCloseTo(by(0, 0) - shown[i]!, 2)
            // Catmull–Rom has no corners, but it bends at once where samples lie.
            for (const [slope, plain] of [
              [gx[i]!, (by(1e-3, 0) - by(-1e-3, 0)) / 2e-3],
              [gy[i]!, (by(0, 1e-3) - by(0, -1e-3)) / 2e-3],
            ] as const)
              expect(Math.abs(slope - plain)).toBeLessThan(1.5)
          }
        }),
    ),
  )
})

it('is told where the plate, smoothed, changes most', () => {
  fc.assert(
    fc.property(
      fc.record({ width: fc.integer({ min: 1, max: 61 }), height: fc.integer({ min: 1, max: 47 }) }),
      fc.integer({ min: 4, max: 12 }),
      fc.integer({ min: 1, max: 1e6 }),
      (size, tile, seed) =>
        k.scope(() => {
          const { width, height } = size
          const [plane, smooth, row] = [width * height, width * height, width].map(n => planeIn(k, n + 4)) as [
            Plane,
            Plane,
            Plane,
          ]
          plane.set(noise(width * height, 256, seed))
          k.smoothPlane({ src: plane.byteOffset, width, height, row: row.byteOffset, out: smooth.byteOffset })
          const held = (x: number, y: number) =>
            plane[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))]!
          for (let y = 0; y < height; y++) {
            for (let x = 0; x < width; x++) {
              let sum = 0
              for (let dy = -1; dy <= 1; dy++)
                for (let dx = -1; dx <= 1; dx++) sum += (2 - Math.abs(dx)) * (2 - Math.abs(dy)) * held(x + dx, y + dy)
              expect(smooth[y * width + x]).toBeCloseTo(sum / 16, 3)
            }
          }
          const steep: number[] = []
          for (let top = 3; top < height - 3; top += tile) {
            for (let left = 3; left < width - 3; left += tile) {
              let best = [0, 0, 9]
              for (let y = top; y < Math.min(top + tile, height - 3); y++) {
                for (let x = left; x < Math.min(left + tile, width - 3); x++) {
                  const i = y * width + x
                  const [gx, gy] = [smooth[i + 1]! - smooth[i - 1]!, smooth[i + width]! - smooth[i - width]!]
                  const most = (gx * gx + gy * gy) / 4
                  if (most > best[2]!) best = [x, y, most]
                }
              }
              if (best[2]! > 9) steep.push(...best.slice(0, 2))
            }
          }
          const out = planeIn(k, 2 * Math.ceil(width / tile) * Math.ceil(height / tile))
          const given = { plane: smooth.byteOffset, width, height, border: 3, tile, least: 3, out: out.byteOffset }
          expect(k.steepestPlaces(given)).toBe(steep.length / 2)
          for (const [i, v] of steep.entries()) expect(out[i]).toBeCloseTo(v, 3)
        }),
    ),
  )
})

it('is stepped to by what is off at all of them, what is far off left out', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 1e6 }), (count, seed) =>
      k.scope(() => {
        const { n, x, y, gx, gy } = places(count, { width: 64, height: 48 }, seed)
        const [off, sums] = [planeIn(k, n).fill(1e9), planeIn(k, 14)]
        off.set(noise(count, 41, seed + 9).map(v => v - 20))
        const [xs, ys, gxs, gys, at] = [x, y, gx, gy, off].map(plane => plane.byteOffset) as [
          number,
          number,
          number,
          number,
          number,
        ]
        k.anchorSums({ xs, ys, gxs, gys, off: at, n, reach: 12, cx: 32, cy: 24, per: 1 / 40, sums: sums.byteOffset })
        const plain = new Float64Array(14)
        for (let i = 0; i < count; i++) {
          const w = Math.max(0, 1 - (off[i]! / 12) ** 2) ** 2
          const [dx, dy] = [(x[i]! - 32) / 40, (y[i]! - 24) / 40]
          const steps = [gx[i]!, gy[i]!, gy[i]! * dx - gx[i]! * dy, gx[i]! * dx + gy[i]! * dy] as const
          const [jx, jy, jt, js] = steps
          const products = [jx * jx, jx * jy, jy * jy, jx * jt, jy * jt, jx * js, jy * js, jt * jt, jt * js, js * js]
          for (const [c, v] of [...products, ...steps.map(j => -j * off[i]!)].entries()) plain[c]! += w * v
        }
        for (const [c, v] of plain.entries()) expect(Math.abs(sums[c]! - v)).toBeLessThan(0.1 + 1e-5 * Math.abs(v))
      }),
    ),
  )
})
