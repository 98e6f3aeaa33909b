// What was told of somebody goes along with them.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { cloth, grainOf } from '../../testing/texture'
import type { Kernels } from '../render'
import { BLOCK, shiftsOf, squaresOf, squaresWith } from './blocks'
import { blankCells } from './cells'
import { cutout } from './cutout'
import { planeIn } from './plane'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

interface Tones {
  width: number
  height: number
  y: ArrayLike<number>
}

/** By how much a square differs from where it would come from, a cell. */
function apart(now: Tones, old: Tones, x: number, y: number, side: number, dx: number, dy: number): number {
  const within = (v: number, n: number) => Math.max(0, Math.min(n - 1, v))
  let sum = 0
  for (let v = Math.max(0, y); v < Math.min(now.height, y + side); v++)
    for (let u = Math.max(0, x); u < Math.min(now.width, x + side); u++)
      sum += Math.abs(
        now.y[v * now.width + u]! - old.y[within(v + dy, old.height) * old.width + within(u + dx, old.width)]!,
      )
  return sum / (side * side)
}

it('finds where squares come from: never to where it is worse than here, and nearly always exactly', () => {
  const size = { width: 61, height: 43 }
  const rough = fc.record({
    dx: fc.integer({ min: -9, max: 9 }),
    dy: fc.integer({ min: -9, max: 9 }),
    seed: fc.integer({ min: 1, max: 1e6 }),
  })
  let [whole, missed] = [0, 0]
  fc.assert(
    fc.property(rough, ({ dx, dy, seed }) =>
      k.scope(() => {
        const [now, old] = [planeIn(k, size.width * size.height), planeIn(k, size.width * size.height)]
        for (let i = 0; i < now.length; i++) {
          const [x, y] = [i % size.width, Math.floor(i / size.width)]
          old[i] = cloth(x + seed, y)
          now[i] = cloth(x + dx + seed, y + dy)
        }
        const [a, b] = [
          { ...size, y: now },
          { ...size, y: old },
        ]
        const { width, height } = squaresOf(size)
        const shifts = shiftsOf(k, a, b, new Uint8Array(width * height).fill(1))
        let worse = 0
        for (let i = 0; i < width * height; i++) {
          const [x, y] = [(i % width) * BLOCK - 2, Math.floor(i / width) * BLOCK - 2]
          const [fx, fy] = [shifts[2 * i]!, shifts[2 * i + 1]!]
          if (apart(a, b, x, y, 12, fx, fy) > apart(a, b, x, y, 12, 0, 0) + 1e-3) worse++
          const isWhole =
            Math.min(x, x + dx, y, y + dy) >= 0 &&
            Math.max(x, x + dx) + 12 <= size.width &&
            Math.max(y, y + dy) + 12 <= size.height
          if (isWhole) whole++
          if (isWhole && (fx !== dx || fy !== dy)) missed++
        }
        expect(worse).toBe(0)
        // Those that nobody asks about stay, and so do those that are calm.
        const none = shiftsOf(k, a, b, new Uint8Array(width * height))
        const calm = shiftsOf(k, a, b, new Uint8Array(width * height).fill(1), 1e6)
        expect([...none, ...calm].filter(v => v !== 0)).toEqual([])
      }),
    ),
    { numRuns: 30 },
  )
  expect(missed / whole).toBeLessThan(0.05)
})

it('tells squares with cells above or below nought', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 30 }), fc.nat(1e4), (width, height, at) =>
      k.scope(() => {
        const plane = planeIn(k, width * height)
        const i = at % plane.length
        plane[i] = -0.5
        const squares = squaresOf({ width, height })
        const expected = Math.floor(Math.floor(i / width) / BLOCK) * squares.width + Math.floor((i % width) / BLOCK)
        expect([...squaresWith(k, { width, height }, plane, 1)].indexOf(1)).toBe(-1)
        expect([...squaresWith(k, { width, height }, plane, -1)].indexOf(1)).toBe(expected)
      }),
    ),
  )
})

it('keeps more of a striped jacket that comes before stripes like its own', () => {
  const full = { width: 320, height: 160 }
  const grain = Float32Array.from({ length: full.width * full.height * 2 }, grainOf())
  const striped = (x: number) => (Math.floor(x / 40) % 2 === 0 ? 120 : 150)
  /** A set whose right half has the very stripes of a jacket that goes there from the dark on the left. */
  function picture(left: number | null, seed: number) {
    const cells = blankCells(k, full)
    for (let i = 0; i < cells.luma.length; i++) {
      const [x, y] = [i % full.width, Math.floor(i / full.width)]
      const isJacket = left !== null && x >= left && x < left + 80 && y >= 40 && y < 130
      const tone = isJacket ? striped(x - left) : x < 160 ? 60 : striped(x - 160)
      cells.luma[i] = tone + grain[i + seed]!
    }
    for (let i = 0; i < cells.y.length; i++) {
      const at = Math.floor(i / cells.width) * 2 * full.width + (i % cells.width) * 2
      const { luma } = cells
      cells.y[i] = (luma[at]! + luma[at + 1]! + luma[at + full.width]! + luma[at + full.width + 1]!) / 4
    }
    return cells
  }
  const cut = cutout(picture(null, 0))
  const missing = (left: number, alpha: Uint8Array) => {
    let count = 0
    for (let y = 46; y < 124; y++)
      for (let x = left + 6; x < left + 74; x++) if (alpha[y * full.width + x]! < 128) count++
    return count / (68 * 78)
  }
  let last = 0
  for (let left = 40; left <= 144; left += 8) last = missing(left, cut.next(picture(left, left * 37)).alpha)
  // By itself most of it is lost there; by the frames before only what has no border of its own near it.
  expect(missing(144, cutout(picture(null, 0)).next(picture(144, 144 * 37)).alpha)).toBeGreaterThan(0.5)
  expect(last).toBeLessThan(0.4)
})
