// What is counted of a frame beside its plate, beside what its kernels do in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { random, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { COUNTS, Counts, LARGEST } from './counts'
import { type Plane, planeIn } from './plane'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const shapes = fc.record({
  width: fc.integer({ min: 1, max: 41 }),
  height: fc.integer({ min: 1, max: 33 }),
  step: fc.integer({ min: 1, max: 5 }),
})
const seeds = fc.integer({ min: 1, max: 1e6 })

interface Cell {
  plate: [number, number, number]
  frame: [number, number, number]
  busy: number
  slope: number
}

/** A frame that is its plate and some noise, with places where somebody is; of every `step`th cell what both show. */
function seen({ width, height, step }: { width: number; height: number; step: number }, seed: number) {
  const n = width * height
  const next = random(seed)
  const [plate, frame] = [0, 1].map(() => [0, 1, 2].map(() => planeIn(k, n))) as [Plane[], Plane[]]
  const [busy, slopes] = [planeIn(k, n), planeIn(k, n)]
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < 3; c++) {
      plate[c]![i] = c === 0 ? 280 * next() : 60 * next() - 30
      frame[c]![i] = plate[c]![i]! + (next() < 0.2 ? 80 : 8) * (next() - 0.5)
    }
    busy[i] = next() < 0.2 ? 1 : 0
    slopes[i] = 60 * next()
  }
  const cells: Cell[] = []
  const of = (planes: Plane[], i: number) => planes.map(plane => plane[i]!) as Cell['plate']
  for (let y = 1; y < height; y += step) {
    for (let x = 1; x < width; x += step) {
      const i = y * width + x
      cells.push({ plate: of(plate, i), frame: of(frame, i), busy: busy[i]!, slope: slopes[i]! })
    }
  }
  return { plate, frame, busy, slopes, cells: cells.filter(cell => cell.busy === 0) }
}

const table = (planes: readonly Plane[]): number => {
  const at = k.alloc(planes.length * 4)
  k.ints(at, planes.length).set(planes.map(plane => plane.byteOffset))
  return at
}

/** ITU-R BT.709, full range. */
const rgb = ([y, u, v]: Cell['plate']): number[] => [
  y + 1.5748 * v,
  y - ((0.0722 * 1.8556) / 0.7152) * u - ((0.2126 * 1.5748) / 0.7152) * v,
  y + 1.8556 * u,
]

it('pairs of codes are those where the set shows, neither dark nor clipped', () => {
  fc.assert(
    fc.property(shapes, seeds, (shape, seed) =>
      k.scope(() => {
        const { plate, frame, busy, cells } = seen(shape, seed)
        const room = 41 * 33
        const [out, counts] = [planeIn(k, 6 * room), k.alloc(12)]
        const planes = table([...plate, ...frame, busy])
        k.lightPairs({ ...shape, planes, least: 30, most: 250, room, out: out.byteOffset, counts })
        for (let c = 0; c < 3; c++) {
          const within = (v: number) => v >= 30 && v <= 250
          const pairs = cells
            .map(cell => [rgb(cell.plate)[c]!, rgb(cell.frame)[c]!] as const)
            .filter(p => p.every(within))
          expect(k.ints(counts, 3)[c]).toBe(pairs.length)
          for (const [i, pair] of pairs.entries()) {
            for (const side of [0, 1] as const) expect(out[(2 * c + side) * room + i]).toBeCloseTo(pair[side], 3)
          }
        }
      }),
    ),
  )
})

it('the ratio that most of them share is told to a thousandth, whatever the others are', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.5, max: 2, noNaN: true }), seeds, (ratio, seed) =>
      k.scope(() => {
        const n = 999
        const next = random(seed)
        const [from, to, histogram] = [n + 4, n + 4, 241].map(count => planeIn(k, count)) as [Plane, Plane, Plane]
        for (let i = 0; i < n; i++) {
          from[i] = 40 + 160 * next()
          to[i] = i % 5 < 2 ? 30 + 220 * next() : from[i]! * ratio + 3 * (next() - 0.5)
        }
        const pairs = { from: from.byteOffset, to: to.byteOffset, n }
        const told = k.sharedRatio({ ...pairs, reach: 1.2, bins: 241, histogram: histogram.byteOffset })
        expect(Math.abs(Math.exp(told) / ratio - 1)).toBeLessThan(0.001)
      }),
    ),
  )
})

it('noise is counted by brightness where the plate is flat, in parts of its slope where it is steep', () => {
  fc.assert(
    fc.property(shapes, seeds, (shape, seed) =>
      k.scope(() => {
        const { plate, frame, busy, slopes, cells } = seen(shape, seed)
        const out = k.ints(k.alloc(20 * COUNTS * 4), 20 * COUNTS)
        out.fill(0)
        const planes = table([...frame, ...plate, slopes, busy])
        k.countNoise({ ...shape, planes, largest: LARGEST, out: out.byteOffset })
        const plain = Array.from({ length: 20 }, () => new Uint32Array(COUNTS))
        const counts = plain.map(table => new Counts(table))
        for (const { plate, frame, slope } of cells) {
          const [d, du, dv] = [0, 1, 2].map(c => Math.abs(frame[c]! - plate[c]!)) as [number, number, number]
          if (d > LARGEST) continue
          const share = 100 / Math.sqrt(slope)
          const told: [number, number][] = []
          if (slope < 9) told.push([Math.min(15, Math.floor(plate[0] / 17)), d], [16, du], [17, dv])
          else if (slope > 36) told.push([18, d * share], [19, du * share], [19, dv * share])
          for (const [i, value] of told) counts[i]!.add(value)
        }
        // Of what lies between two parts of a code either may be told.
        const off = plain.flatMap(table => [...table]).reduce((sum, v, i) => sum + Math.abs(v - out[i]!), 0)
        expect(off).toBeLessThanOrEqual(2)
        expect(out.reduce((sum, v) => sum + v, 0)).toBe(counts.reduce((sum, of) => sum + of.count, 0))
      }),
    ),
  )
})
