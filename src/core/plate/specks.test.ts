// What is too small to be anything, beside what its kernels do in plain words.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { putBytes, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { dropFaint, dropIslands, dropSpecks, fillPits } from './specks'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIZE = { width: 83, height: 60 }
type Drop = typeof dropSpecks

const dropped = (drop: Drop, alpha: Uint8Array, size = SIZE): Uint8Array =>
  k.scope(() => {
    const ptr = putBytes(k, alpha)
    drop(k, size, ptr)
    return k.bytes(ptr, alpha.length).slice()
  })

/** A body on the left, and whatever is put down beside it. */
function matte(put: readonly (readonly [number, number, number])[]): Uint8Array {
  const alpha = new Uint8Array(SIZE.width * SIZE.height)
  for (let y = 4; y < 56; y++) alpha.fill(255, y * SIZE.width + 3, y * SIZE.width + 55)
  for (const [x, y, value] of put) alpha[y * SIZE.width + x] = value
  return alpha
}

const at = (alpha: Uint8Array, x: number, y: number): number => alpha[y * SIZE.width + x]!

/** Those of the eight px round one that are something. */
function round(alpha: Uint8Array, i: number, { width, height }: typeof SIZE, is: (value: number) => boolean): number[] {
  const [x, y] = [i % width, Math.floor(i / width)]
  const found: number[] = []
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
      if ((u !== x || v !== y) && is(alpha[v * width + u]!)) found.push(v * width + u)
  return found
}

const inside = (i: number, { width, height }: typeof SIZE): boolean => {
  const [x, y] = [i % width, Math.floor(i / width)]
  return x > 0 && y > 0 && x < width - 1 && y < height - 1
}

const plainSpecks = (alpha: Uint8Array, size: typeof SIZE): Uint8Array =>
  alpha.map((a, i) => {
    if (!inside(i, size)) return a
    if (a >= 64 && round(alpha, i, size, v => v >= 64).length < 2) return 0
    if (a < 64 && round(alpha, i, size, v => v === 0).length >= 5) return 0
    return a < 192 && round(alpha, i, size, v => v < 192).length < 2 ? 255 : a
  })

/** Every part looked at by itself. */
function plainIslands(alpha: Uint8Array, size: typeof SIZE): Uint8Array {
  const out = alpha.slice()
  const seen = new Set<number>()
  alpha.forEach((a, start) => {
    if (a < 100 || seen.has(start)) return
    const all = [start]
    seen.add(start)
    for (const i of all) {
      for (const j of round(alpha, i, size, v => v >= 100)) {
        if (seen.has(j)) continue
        seen.add(j)
        all.push(j)
      }
    }
    if (all.length < 48) for (const i of all) out[i] = 0
  })
  return out
}

const plainPits = (alpha: Uint8Array, size: typeof SIZE): Uint8Array =>
  alpha.map((a, i) => {
    if (!inside(i, size)) return a
    const near = [a, ...round(alpha, i, size, () => true).map(j => alpha[j]!)].sort((p, q) => p - q)
    return near[4]! >= a + 40 ? near[4]! : a
  })

/** What leads to something firm, looked for twice there and back. */
function plainFaint(alpha: Uint8Array, size: typeof SIZE): Uint8Array {
  const marked = new Set<number>()
  alpha.forEach((a, i) => {
    if (a >= 100) marked.add(i)
  })
  const all = [...alpha.keys()].filter(i => inside(i, size))
  for (const order of [all, all.slice().reverse(), all, all.slice().reverse()]) {
    const isBefore = order[0]! < order.at(-1)! ? (j: number, i: number) => j < i : (j: number, i: number) => j > i
    for (const i of order) {
      if (alpha[i]! >= 6 && round(alpha, i, size, () => true).some(j => isBefore(j, i) && marked.has(j))) marked.add(i)
    }
  }
  return alpha.map((a, i) => {
    if (!inside(i, size) || a >= 100 || marked.has(i)) return a
    return a < 6 && round(alpha, i, size, () => true).some(j => marked.has(j)) ? a : 0
  })
}

/** Soft blots of any form on an empty ground, some of them large, none at the border. */
const blots = fc.record({
  width: fc.integer({ min: 30, max: 90 }),
  height: fc.integer({ min: 30, max: 70 }),
  spots: fc.array(
    fc.record({
      x: fc.double({ min: 0.15, max: 0.85, noNaN: true }),
      y: fc.double({ min: 0.15, max: 0.85, noNaN: true }),
      r: fc.double({ min: 0.3, max: 5.5, noNaN: true }),
      value: fc.oneof(fc.integer({ min: 1, max: 8 }), fc.integer({ min: 30, max: 255 })),
    }),
    { maxLength: 30 },
  ),
})

it('drops the specks and islands that a plain search finds', () => {
  fc.assert(
    fc.property(blots, ({ width, height, spots }) => {
      const size = { width, height }
      const alpha = new Uint8Array(width * height)
      for (let i = 0; i < alpha.length; i++) {
        const [x, y] = [i % width, Math.floor(i / width)]
        const near = spots.find(s => Math.hypot(s.x * width - x, s.y * height - y) < s.r)
        if (near) alpha[i] = near.value
      }
      expect(dropped(dropSpecks, alpha, size)).toEqual(plainSpecks(alpha, size))
      expect(dropped(fillPits, alpha, size)).toEqual(plainPits(alpha, size))
      expect(dropped(dropIslands, alpha, size)).toEqual(plainIslands(alpha, size))
      expect(dropped(dropFaint, alpha, size)).toEqual(plainFaint(alpha, size))
    }),
    { endOnFailure: true, numRuns: 40 },
  )
})

it('leaves what touches something larger, however thin, and what is faint', () => {
  const hair = Array.from({ length: 20 }, (_, i) => [55 + i, 10 + (i % 2), 200] as const)
  const grown = dropped(dropIslands, matte([...hair, [70, 20, 40], [75, 40, 255]]))
  expect([at(grown, 74, 11), at(grown, 70, 20), at(grown, 75, 40)]).toEqual([200, 40, 0])
})

it('takes away what is faint and leads to nothing firm, however much of it there is', () => {
  const ring = Array.from({ length: 40 }, (_, i) => [62, 8 + i, 30] as const)
  const rim = Array.from({ length: 40 }, (_, i) => [55, 8 + i, 60 - i] as const)
  const alpha = dropped(dropFaint, matte([...ring, ...rim, [56, 20, 4]]))
  expect([at(alpha, 62, 20), at(alpha, 55, 10), at(alpha, 56, 20)]).toEqual([0, 58, 4])
})

it('takes single px away and fills single holes', () => {
  const hole = [10, 11].flatMap(x => [20, 21].map(y => [x, y, 0] as const))
  const alpha = dropped(dropSpecks, matte([[70, 12, 255], [8, 12, 0], ...hole]))
  expect([at(alpha, 70, 12), at(alpha, 8, 12), at(alpha, 10, 20)]).toEqual([0, 255, 0])
})
