// Where a frame differs from its plate, and parts of pictures by themselves.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { noise, putBytes, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells, type Cells } from './cells'
import { partThatDiffers } from './differ'
import { type Noise, slopesOf } from './noise'
import { area, type Part, planeIn, pxOf, whole } from './plane'
import { crop, cropCells, paste } from './window'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const NOISE: Noise = { y: new Float32Array(16).fill(4), u: 2, v: 3, slope: 0.01, slopeC: 0.01 }
const seeds = fc.integer({ min: 1, max: 1e6 })

/** A set with some grain. */
function set(width: number, height: number, seed: number): Cells {
  const cells = blankCells(k, { width: 2 * width, height: 2 * height })
  const grain = noise(area(cells), 100, seed)
  cells.y.forEach((_, i) => {
    cells.y[i] = 100 + ((i * 7) % 40) + grain[i]! / 30
  })
  return cells
}

const found = (frame: Cells, plate: Cells, stood: Uint8Array, speck: number): Part | null => {
  const slopes = planeIn(k, area(frame))
  slopesOf(plate, slopes)
  return partThatDiffers(frame, plate, { noise: NOISE, slopes }, stood, speck)
}

it('is in whole squares about what stands before the set or keeps its light away, wherever that is', () => {
  const [width, height] = [183, 141]
  fc.assert(
    fc.property(
      fc.record({ x: fc.nat(width - 30), y: fc.nat(height - 30), width: fc.constant(24), height: fc.constant(24) }),
      fc.constantFrom(1.5, 0.9),
      seeds,
      (there, light, seed) =>
        k.scope(() => {
          const [frame, plate] = [set(width, height, seed), set(width, height, seed + 1)]
          const nobody = new Uint8Array(23 * 18)
          expect(found(frame, plate, nobody, 12)).toBeNull()
          for (let y = there.y; y < there.y + there.height; y++)
            for (let x = there.x; x < there.x + there.width; x++) frame.y[y * width + x]! *= light
          const part = found(frame, plate, nobody, 12)!
          // A square in which hardly a row is another may be left out.
          const near = (least: number, most: number) => least - most <= 7
          expect(near(part.x, there.x) && near(part.y, there.y)).toBe(true)
          expect(near(there.x + there.width, part.x + part.width)).toBe(true)
          expect(near(there.y + there.height, part.y + part.height)).toBe(true)
          expect([part.x % 8, part.y % 8]).toEqual([0, 0])
          expect(area(part)).toBeLessThanOrEqual((24 + 8 + 8 + 32) ** 2)
        }),
    ),
    { numRuns: 40 },
  )
})

it('leaves out what is too small to be anybody, keeps where somebody stood, and is everything where much of it differs', () => {
  const [width, height] = [240, 160]
  k.scope(() => {
    const [frame, plate] = [set(width, height, 5), set(width, height, 6)]
    for (let i = 0; i < 3; i++) frame.y[40 * width + 40 + i]! += 120
    const nobody = new Uint8Array(30 * 20)
    expect(found(frame, plate, nobody, 12)).toBeNull()
    expect(found(frame, plate, nobody.with(5 * 30 + 5, 1), 12)).toEqual({ x: 24, y: 24, width: 40, height: 40 })
    for (let y = 4; y < 150; y++) for (let x = 10; x < 220; x++) frame.y[y * width + x]! += 90
    expect(found(frame, plate, nobody, 12)).toEqual(whole(frame))
  })
})

it('a part by itself is what lies there, and goes back to where it was', () => {
  fc.assert(
    fc.property(seeds, fc.nat(30), fc.nat(20), (seed, x, y) =>
      k.scope(() => {
        const cells = blankCells(k, { width: 75, height: 53 })
        for (const name of ['y', 'u', 'v', 'luma'] as const) cells[name].set(noise(cells[name].length, 999, seed))
        const part = { x, y, width: cells.width - x - 3, height: cells.height - y - 2 }
        const cut = cropCells(cells, part)
        const px = pxOf(part, cells.full)
        for (const name of ['y', 'u', 'v'] as const)
          expect(cut[name]).toEqual(crop(cells[name], cells, part, new Float32Array(area(part))))
        expect(cut.luma).toEqual(crop(cells.luma, cells.full, px, new Float32Array(area(px))))
        const again = cells.y.slice()
        paste(cut.y, part, again, cells)
        expect(again).toEqual(cells.y)
        expect(cropCells(cells, whole(cells))).toBe(cells)
      }),
    ),
  )
})

it('what is covered of a plane of bytes lies in a box, and is white that covers as much', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 70 }), fc.integer({ min: 1, max: 9 }), seeds, (width, height, seed) =>
      k.scope(() => {
        const bytes = noise(width * height, 4000, seed).map(v => (v < 30 ? v : 0))
        const plane = putBytes(k, bytes)
        const [box, white] = [k.alloc(16), k.alloc(bytes.length * 4)]
        k.coveredBox(plane, width, height, box)
        const places = bytes.flatMap((v, i) => (v > 0 ? [{ x: i % width, y: Math.floor(i / width) }] : []))
        const [left, right, top, bottom] = k.ints(box, 4)
        if (places.length === 0) expect(right).toBeLessThan(left!)
        else {
          const [xs, ys] = [places.map(p => p.x), places.map(p => p.y)]
          expect([left, right]).toEqual([Math.min(...xs), Math.max(...xs)])
          expect([top, bottom]).toEqual([Math.min(...ys), Math.max(...ys)])
        }
        k.whiteRow(plane, white, bytes.length)
        expect([...k.bytes(white, bytes.length * 4)]).toEqual(bytes.flatMap(v => [255, 255, 255, v]))
      }),
    ),
  )
})

it('shares are told as codes, and codes of cells as those of their px', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 70 }), fc.integer({ min: 1, max: 9 }), seeds, (width, height, seed) =>
      k.scope(() => {
        const across = (width + 1) >> 1
        const shares = Float32Array.from(noise(across * ((height + 1) >> 1), 1e6, seed), v => v / 1e6)
        const n = shares.length
        const [from, codes, px] = [k.alloc(n * 4), k.alloc(n), k.alloc(width * height)]
        k.floats(from, n).set(shares)
        k.shareCodes(from, codes, n)
        const told = [...k.bytes(codes, n)]
        expect(told).toEqual(Array.from(shares, s => Math.round(s * 255)))
        k.spreadCells(codes, width, height, px)
        const cellAt = (i: number) => (Math.floor(i / width) >> 1) * across + ((i % width) >> 1)
        expect([...k.bytes(px, width * height)]).toEqual(
          Array.from({ length: width * height }, (_, i) => told[cellAt(i)]!),
        )
      }),
    ),
  )
})

it('alpha is read from codes as it is composited, and covered columns reach from the first to the last', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 70 }), seeds, (n, seed) =>
      k.scope(() => {
        const codes = Uint8Array.from(noise(n * 4, 4000, seed), v => (v < 300 ? v : 0))
        const from = putBytes(k, [...codes])
        const [linear, alpha, twin] = [k.alloc(n * 16), k.alloc(n * 4), k.alloc(n * 4)]
        k.codesAlphaRow(from, alpha, n)
        k.toLinear(from, linear, n)
        k.alphaRow(linear, twin, n)
        expect(k.floats(alpha, n)).toEqual(k.floats(twin, n))
        const told = [...k.floats(alpha, n)]
        const first = told.findIndex(v => v !== 0)
        expect(k.firstCovered(alpha, n)).toBe(first < 0 ? n : first)
        expect(k.lastCovered(alpha, n)).toBe(told.findLastIndex(v => v !== 0) + 1)
        expect(k.isCovered(alpha, n)).toBe(told.every(v => v >= 1) ? 1 : 0)
      }),
    ),
  )
})
