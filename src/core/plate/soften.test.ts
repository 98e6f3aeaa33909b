// Alpha near the border, beside what its kernel does in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells, type Cells } from './cells'
import type { Noise } from './noise'
import { boxMean, planeIn } from './plane'
import { soften, standing } from './soften'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const FULL = { width: 43, height: 31 }
const NOISE: Noise = { y: new Float32Array(16).fill(1.5), u: 1.2, v: 1.2, slope: 0.01, slopeC: 0.01 }

/** Of a picture told by its px. */
function cellsOf(at: (x: number, y: number) => readonly [number, number, number]): Cells {
  const cells = blankCells(k, FULL)
  for (let y = 0; y < FULL.height; y++) {
    for (let x = 0; x < FULL.width; x++) {
      const [l, u, v] = at(x, y)
      cells.luma[y * FULL.width + x] = l
      const i = (y >> 1) * cells.width + (x >> 1)
      cells.y[i] = l
      cells.u[i] = u
      cells.v[i] = v
    }
  }
  return cells
}

type Light = readonly [number, number, number]
const light = (code: number): number => (Math.max(0, code) / 269.025) ** 2.4 * 255
/** Light of luma, and what red and blue differ from it by. */
const lightOf = (y: number, u: number, v: number): Light => [
  light(y),
  light(y + 1.5748 * v) - light(y),
  light(y + 1.8556 * u) - light(y),
]
const perCode = (of: number, code: number): number => ((2.4 * of) / Math.max(20, code)) ** 2 + 1e-4

interface Scene {
  frame: Cells
  plate: Cells
  is: Float32Array
  share: Float32Array
  deep: Float32Array
  inward: Float32Array
}

/** The colours that somebody may have at a cell: from farther in, and what differs most beside it. */
function colours({ frame, plate, is, deep, inward }: Scene, x: number, y: number, of: number): Light[] {
  const { width, height } = frame
  const i = y * width + x
  const gx = inward[x < width - 1 ? i + 1 : i]! - inward[x > 0 ? i - 1 : i]!
  const gy = inward[y < height - 1 ? i + width : i]! - inward[y > 0 ? i - width : i]!
  const long = Math.hypot(gx, gy) || 1
  const found: Light[] = []
  for (const far of [1, 2, 3.5, 5, 7, 10]) {
    const [cx, cy] = [Math.floor(x + (gx / long) * far + 0.5), Math.floor(y + (gy / long) * far + 0.5)]
    const j = cy * width + cx
    if (cx < 0 || cy < 0 || cx >= width || cy >= height || is[j] === 0) continue
    found.push(lightOf(frame.y[j]!, frame.u[j]!, frame.v[j]!))
  }
  if (is[i] !== 0 && deep[i]! >= 0.8) return found
  let [most, best] = [14, -1]
  for (let ny = Math.max(0, 2 * y - 2); ny < Math.min(FULL.height, 2 * y + 4); ny++) {
    for (let nx = Math.max(0, 2 * x - 2); nx < Math.min(FULL.width, 2 * x + 4); nx++) {
      const p = ny * FULL.width + nx
      const d = Math.abs(frame.luma[p]! - plate.luma[p]!)
      if (d > most) [most, best] = [d, p]
    }
  }
  if (best < 0) return found
  const j = (Math.floor(best / FULL.width) >> 1) * width + ((best % FULL.width) >> 1)
  // What is nobody's own by the label is not told by itself alone.
  if (is[i] === 0 && best === of) return found
  return [...found, lightOf(frame.luma[best]!, frame.u[j]!, frame.v[j]!)]
}

interface Told {
  alpha: number
  /** 0 where nothing is in doubt. */
  variance: number
}

/** What a px tells by itself; no shadow falls. */
function toldAt(scene: Scene, px: number, py: number): Told {
  const { frame, plate, is, share, deep } = scene
  const [x, y] = [px >> 1, py >> 1]
  const [i, p] = [y * frame.width + x, py * FULL.width + px]
  if (share[i]! <= 0.001) return { alpha: 0, variance: 0 }
  if (deep[i]! >= 0.999) return { alpha: 1, variance: 0 }
  const variance = 1.5 * 3 + NOISE.u
  const expected = is[i]! > 0 ? deep[i]! : share[i]! * 0.5
  const set = lightOf(plate.luma[p]!, plate.u[i]!, plate.v[i]!)
  const seen = lightOf(frame.luma[p]!, frame.u[i]!, frame.v[i]!)
  const l = frame.luma[p]!
  const noise = [
    perCode(seen[0], l),
    6 * perCode(seen[0] + seen[1], l + 1.5748 * frame.v[i]!),
    6 * perCode(seen[0] + seen[2], l + 1.8556 * frame.u[i]!),
  ]
  const dot = (a: Light, b: Light) => a.reduce((sum, v, c) => sum + (v * b[c]!) / noise[c]!, 0)
  const minus = (a: Light, b: Light, by = 1): Light => [a[0] - by * b[0], a[1] - by * b[1], a[2] - by * b[2]]
  const [d, weighed] = [minus(seen, set), { sum: 0, squares: 0, weights: 0 }]
  const weigh = (a: number, cost: number, blur = 0) => {
    const w = Math.exp(-(cost + ((a - expected) / 0.35) ** 2) / 2)
    weighed.sum += w * a
    weighed.squares += w * (a * a + Math.min(0.3, blur))
    weighed.weights += w
  }
  weigh(0, dot(d, d) / variance)
  for (const colour of colours(scene, x, y, p)) {
    const e = minus(colour, set)
    const a = Math.max(0, Math.min(1, dot(d, e) / Math.max(1, dot(e, e))))
    const rest = minus(d, e, a)
    const spread = variance + a * a * 14
    weigh(a, dot(rest, rest) / spread, spread / Math.max(1, dot(e, e)))
  }
  if (is[i]! > 0) weigh(1, 26)
  const alpha = weighed.sum / weighed.weights
  return { alpha, variance: Math.max(1e-6, weighed.squares / weighed.weights - alpha * alpha) }
}

/** Alpha of a px, 0..255: what is in doubt goes by the px beside it that look alike. */
function alphaAt({ frame: { luma } }: Scene, told: readonly Told[], p: number): number {
  const own = told[p]!
  const [x, y] = [p % FULL.width, Math.floor(p / FULL.width)]
  let a = own.alpha
  if (own.variance >= (25 / 400) ** 2 && x > 0 && x < FULL.width - 1) {
    let [sum, weights] = [own.alpha / own.variance, 1 / own.variance]
    for (let v = y - 1; v <= y + 1; v++) {
      for (let u = x - 1; u <= x + 1; u++) {
        const q = Math.max(0, Math.min(FULL.height - 1, v)) * FULL.width + u
        if (q === p) continue
        const like = 1 / (1 + (luma[q]! - luma[p]!) ** 2 / (2 * 12 * 12))
        const w = (0.5 * like * like) / (told[q]!.variance + 0.02)
        sum += w * told[q]!.alpha
        weights += w
      }
    }
    a = sum / weights
  }
  if (a <= 0.04) return 0
  return 255 * (a < 0.7 ? ((a - 0.04) * 0.7) / 0.66 : Math.min(1, 0.7 + ((a - 0.7) * 0.3) / 0.23))
}

it('alpha is the mean of what mixtures of the set and of somebody’s colours explain, each by how well, and of what is beside it where that is in doubt', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 6, max: 16, noNaN: true }),
      fc.double({ min: 0.5, max: 4, noNaN: true }),
      fc.integer({ min: 60, max: 230 }),
      (radius, soft, tone) =>
        k.scope(() => {
          const wall = (x: number, y: number): Light => [90 + 20 * Math.sin(x * 0.4) + 10 * Math.cos(y * 0.5), -6, 9]
          const covers = (x: number, y: number) =>
            Math.max(0, Math.min(1, 0.5 + (radius - Math.hypot(x - 21, y - 15)) / soft))
          const plate = cellsOf(wall)
          const frame = cellsOf((x, y) => {
            const a = covers(x, y)
            const [l, u, v] = wall(x, y)
            const mixed = (light(l) * (1 - a) + light(tone) * a) / 255
            return [mixed ** (1 / 2.4) * 269.025, u * (1 - a) + 14 * a, v * (1 - a) - 20 * a]
          })
          const n = frame.y.length
          const planes = Array.from({ length: 7 }, () => planeIn(k, n))
          const [told, left, slopes, is, share, deep, inward] = planes as [...Array<(typeof planes)[0]>] & {
            [i: number]: (typeof planes)[0]
          }
          for (let i = 0; i < n; i++) {
            const [x, y] = [(i % frame.width) * 2 + 1, Math.floor(i / frame.width) * 2 + 1]
            told![i] = covers(x, y) > 0.2 ? 5 : -5
            is![i] = told![i]! > 0 ? 1 : 0
            left![i] = 1
          }
          boxMean(k, frame, is!, 2, share!)
          boxMean(k, frame, is!, 3, deep!)
          boxMean(k, frame, deep!, 2, inward!)
          const px = FULL.width * FULL.height
          const room = k.alloc(px)
          const found = planeIn(k, n)
          const part = standing(frame, told!, found)
          expect([...found]).toEqual([...is!])
          soften(
            frame,
            plate,
            { slopes: slopes!, noise: NOISE, isGuess: false },
            { is: found, part, left: left! },
            room,
            k.alloc(px * 4),
          )
          const alpha = k.bytes(room, px)
          const scene = { frame, plate, is: is!, share: share!, deep: deep!, inward: inward! }
          const byPx = Array.from(alpha, (_, p) => toldAt(scene, p % FULL.width, Math.floor(p / FULL.width)))
          let unlike = 0
          for (let p = 0; p < alpha.length; p++) {
            const plain = alphaAt(scene, byPx, p)
            // Codes are told by quarters and likelihoods by sixteenths: where next to nothing decides, that does.
            if (Math.abs(alpha[p]! - plain) > 12) unlike++
          }
          // Pits are filled and specks dropped besides.
          expect(unlike).toBeLessThan(alpha.length * 0.016)
        }),
    ),
    { numRuns: 40 },
  )
})
