// The kernels that tell somebody from the set, beside what they do in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { random, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { believe } from './belief'
import { bonds } from './bonds'
import { blankCells, type Cells } from './cells'
import { weigh } from './evidence'
import { type Noise, slopesOf } from './noise'
import { palette } from './palette'
import { boxMean, type Plane, planeIn } from './plane'
import { steady } from './steady'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const sizes = fc.record({ width: fc.integer({ min: 1, max: 37 }), height: fc.integer({ min: 1, max: 19 }) })
const seeds = fc.integer({ min: 1, max: 1e6 })

function planeOf(n: number, next: () => number): Plane {
  const plane = planeIn(k, n)
  for (let i = 0; i < n; i++) plane[i] = next()
  return plane
}

/** What was reserved by the way is given back, so that a hundred rounds fit. */
const scoped = (work: () => void): void => k.scope(work)

function close(found: ArrayLike<number>, expected: ArrayLike<number>, within: number): void {
  let most = 0
  for (let i = 0; i < expected.length; i++) most = Math.max(most, Math.abs(found[i]! - expected[i]!))
  expect(most).toBeLessThan(within)
}

it('means over squares, those outside left out', () => {
  fc.assert(
    fc.property(sizes, fc.integer({ min: 0, max: 8 }), seeds, ({ width, height }, r, seed) =>
      scoped(() => {
        const plane = planeOf(width * height, random(seed))
        const across = Math.min(r, (width - 1) >> 1)
        const plain = Array.from({ length: width * height }, (_, i) => {
          const [x, y] = [i % width, Math.floor(i / width)]
          let sum = 0
          let n = 0
          for (let v = Math.max(0, y - r); v <= Math.min(height - 1, y + r); v++) {
            for (let u = Math.max(0, x - across); u <= Math.min(width - 1, x + across); u++) {
              sum += plane[v * width + u]!
              n++
            }
          }
          return sum / n
        })
        const out = planeIn(k, width * height)
        boxMean(k, { width, height }, plane, r, out)
        close(out, plain, 1e-4)
        boxMean(k, { width, height }, plane, r, plane)
        expect([...plane]).toEqual([...out])
      }),
    ),
  )
})

it('beliefs are messages held within what bonds are worth', () => {
  fc.assert(
    fc.property(sizes, seeds, ({ width, height }, seed) =>
      scoped(() => {
        const next = random(seed)
        const n = width * height
        const odds = planeOf(n, () => 12 * next() - 6)
        const [across, down] = [planeOf(n, () => 3 * next()), planeOf(n, () => 3 * next())]
        const from = {
          left: new Float64Array(n),
          right: new Float64Array(n),
          above: new Float64Array(n),
          below: new Float64Array(n),
        }
        const held = (m: number, w: number) => Math.max(-w, Math.min(w, m))
        const told = (i: number, but: keyof typeof from) =>
          odds[i]! +
          (Object.keys(from) as (keyof typeof from)[]).reduce(
            (sum, side) => sum + (side === but ? 0 : from[side][i]!),
            0,
          )
        for (let sweep = 0; sweep < 2; sweep++) {
          for (let y = 0; y < height; y++) {
            for (let i = y * width; i < (y + 1) * width - 1; i++) from.left[i + 1] = held(told(i, 'right'), across[i]!)
            for (let i = (y + 1) * width - 1; i > y * width; i--)
              from.right[i - 1] = held(told(i, 'left'), across[i - 1]!)
          }
          for (let i = 0; i < n - width; i++) from.above[i + width] = held(told(i, 'below'), down[i]!)
          for (let i = n - 1; i >= width; i--) from.below[i - width] = held(told(i, 'above'), down[i - width]!)
        }
        const out = planeIn(k, n)
        believe(k, { width, height }, odds, { across, down }, 2, out)
        close(
          out,
          Array.from({ length: n }, (_, i) => told(i, 'left') + from.left[i]!),
          1e-3,
        )
      }),
    ),
  )
})

/** Cells of a picture of odd sides, their values at random. */
function cellsOf(next: () => number): Cells {
  const cells = blankCells(k, { width: 21, height: 13 })
  for (let i = 0; i < cells.y.length; i++) {
    cells.y[i] = 40 + 180 * next()
    cells.u[i] = 60 * next() - 30
    cells.v[i] = 60 * next() - 30
  }
  return cells
}

const NOISE: Noise = { y: new Float32Array(16).map((_, i) => 1 + i / 8), u: 1.3, v: 1.6, slope: 0.01, slopeC: 0.02 }
const grain = (y: number): number => NOISE.y[Math.max(0, Math.min(15, Math.floor((y * 16) / 272)))]!

it('bonds and slopes are what their formulas say', () => {
  fc.assert(
    fc.property(seeds, seed =>
      scoped(() => {
        const next = random(seed)
        const [frame, plate] = [cellsOf(next), cellsOf(next)]
        for (let i = 0; i < frame.y.length; i++) frame.y[i] = plate.y[i]! + 6 * next()
        const { width, height } = frame
        const n = width * height
        const tied = { across: planeIn(k, n), down: planeIn(k, n) }
        bonds(frame, plate, NOISE, tied)
        const apart = (i: number, j: number) =>
          (['y', 'u', 'v'] as const).reduce(
            (sum, c) => sum + (frame[c][i]! - plate[c][i]! - frame[c][j]! + plate[c][j]!) ** 2,
            0,
          )
        const bond = (i: number, j: number) => 0.25 + 4 * Math.exp(-apart(i, j) / (12 * NOISE.y[8]! + 8))
        const i = Math.floor(next() * (height - 1)) * width + Math.floor(next() * (width - 1))
        // Told by sixteenths.
        expect(Math.abs(tied.across[i]! - bond(i, i + 1))).toBeLessThan(0.26)
        expect(Math.abs(tied.down[i]! - bond(i, i + width))).toBeLessThan(0.26)

        const slopes = planeIn(k, n)
        slopesOf(plate, slopes)
        const [x, y] = [i % width, Math.floor(i / width)]
        const round: number[] = []
        for (let v = Math.max(0, y - 1); v <= y + 1; v++)
          for (let u = Math.max(0, x - 1); u <= x + 1; u++) round.push(plate.y[v * width + u]!)
        expect(slopes[i]).toBeCloseTo(((Math.max(...round) - Math.min(...round)) / 2) ** 2, 1)
      }),
    ),
  )
})

it('evidence is how much worse the set explains a cell, lit or in shadow, than somebody does', () => {
  fc.assert(
    fc.property(seeds, fc.double({ min: 0.5, max: 1, noNaN: true }), (seed, usual) =>
      scoped(() => {
        const next = random(seed)
        const [frame, plate] = [cellsOf(next), cellsOf(next)]
        const { width } = frame
        const n = frame.y.length
        for (let i = 0; i < n; i++) {
          if (i % width < 5) continue
          const s = i % width < 8 ? 0.7 : 1
          for (const c of ['y', 'u', 'v'] as const) frame[c][i] = plate[c][i]! * s + next()
        }
        const slopes = planeOf(n, () => 40 * next())
        const [odds, left, evenly] = [planeIn(k, n), planeIn(k, n), planeIn(k, n)]
        const colours = palette(k)
        weigh(frame, plate, { noise: NOISE, slopes, colours, usual, bias: 0.5 }, { odds, left, evenly })

        const local = [planeIn(k, n), planeIn(k, n)] as const
        for (let i = 0; i < n; i++) {
          local[0][i] = (['y', 'u', 'v'] as const).reduce((sum, c) => sum + frame[c][i]! * plate[c][i]!, 0)
          local[1][i] = (['y', 'u', 'v'] as const).reduce((sum, c) => sum + plate[c][i]! ** 2, 0)
        }
        boxMean(k, frame, local[0], 2, local[0])
        boxMean(k, frame, local[1], 2, local[1])
        const light = (i: number) => local[0][i]! / Math.max(1, local[1][i]!)
        const cost = (squares: number) => 0.6 * 4 * Math.log(1 + Math.min(1023, squares) / 5)
        const expected = Array.from({ length: n }, (_, i) => {
          const x = i % width
          const [vy, vc] = [grain(plate.y[i]!) + 0.02 * slopes[i]!, 0.04 * slopes[i]!]
          const squares = (s: number, tint: number) =>
            (frame.y[i]! - s * plate.y[i]!) ** 2 / (vy + tint) +
            (frame.u[i]! - s * plate.u[i]!) ** 2 / (NOISE.u + vc + tint) +
            (frame.v[i]! - s * plate.v[i]!) ** 2 / (NOISE.v + vc + tint)
          let least = cost(squares(1, 0))
          const beside = [
            x >= 3 ? i - 3 : i,
            x < width - 3 ? i + 3 : i,
            i >= 3 * width ? i - 3 * width : i,
            i + 3 * width < n ? i + 3 * width : i,
          ]
          for (const s of least > 0.8 ? [usual, light(i), ...beside.map(light)] : []) {
            if (s >= 0.995) continue
            const deep = Math.max(0, 0.72 - s) * 14
            least = Math.min(least, cost(squares(s, (0.05 * (1 - s) * plate.y[i]!) ** 2)) + 2 + deep)
          }
          const somebody = 0.6 * Math.log((200 * 50 * 50) / ((2 * Math.PI) ** 1.5 * Math.sqrt(NOISE.u * NOISE.v * vy)))
          return Math.max(-12, Math.min(12, least - somebody + 0.5))
        })
        // Costs are told by quarters of squares.
        close(odds, expected, 0.25)
      }),
    ),
  )
})

it('alpha stays nearer to that before it the less its cells and those beside them have changed', () => {
  fc.assert(
    fc.property(seeds, fc.double({ min: 0, max: 9, noNaN: true }), (seed, change) =>
      scoped(() => {
        const next = random(seed)
        const [frame, before] = [cellsOf(next), blankCells(k, { width: 21, height: 13 })]
        frame.y.forEach((y, i) => {
          before.y[i] = y + change * (next() - 0.5) * 2
          for (const c of ['u', 'v'] as const) before[c][i] = frame[c][i]!
        })
        const { width, height, full } = frame
        const px = full.width * full.height
        const [now, then] = [k.alloc(px), k.alloc(px)]
        const [alpha, old] = [k.bytes(now, px), k.bytes(then, px)]
        for (let p = 0; p < px; p++) {
          alpha[p] = Math.floor(256 * next())
          old[p] = next() < 0.4 ? alpha[p]! : Math.floor(256 * next())
        }
        const expected = Array.from(alpha, (a, p) => {
          const d = old[p]! - a
          if (Math.abs(d) >= 96) return a
          const [cx, cy] = [(p % full.width) >> 1, Math.floor(p / full.width) >> 1]
          const squares: number[] = []
          for (let v = Math.max(0, cy - 1); v <= Math.min(height - 1, cy + 1); v++)
            for (let u = Math.max(0, cx - 1); u <= Math.min(width - 1, cx + 1); u++) {
              const i = v * width + u
              squares.push((frame.y[i]! - before.y[i]!) ** 2 / (2 * grain(frame.y[i]!)))
            }
          const mean = squares.reduce((sum, s) => sum + s, 0) / squares.length
          return Math.floor(a + d * 0.85 * Math.max(0, Math.min(1, (11 - mean) / 4)) + 0.5)
        })
        steady(frame, before, NOISE, { now, before: then })
        close(alpha, expected, 1.01)
      }),
    ),
  )
})
