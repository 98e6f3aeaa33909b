// Blending and turning against plain twins that take one pixel at a time.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Kernels } from '../../core/render'
import { noise, putFloats, testKernels } from '../../testing/kernels'

let k: Kernels
beforeAll(async () => {
  k = await testKernels(64 << 20)
})

/** Premultiplied linear pixels, some transparent, some opaque. */
function pixels(count: number, seed: number): number[] {
  const raw = noise(count * 4, 1000, seed).map(v => v / 999)
  return raw.map((v, i) => {
    const alpha = [0, 1, raw[i - (i % 4) + 3]!][(i >> 2) % 3]!
    return i % 4 === 3 ? alpha : v * alpha
  })
}

type Mix = (behind: number, over: number) => number

const MODES: readonly [number, string, Mix][] = [
  [1, 'add', (b, s) => b + s],
  [2, 'screen', (b, s) => b + s - b * s],
  [3, 'multiply', (b, s) => b * s],
  [4, 'lighten', Math.max],
  [5, 'darken', Math.min],
  [6, 'difference', (b, s) => Math.abs(b - s)],
]

/** One channel of one pixel, by way of straight colours. */
function blended(mix: Mix, s: number, sa: number, d: number, da: number): number {
  const over = sa > 0 ? s / sa : 0
  const behind = da > 0 ? d / da : 0
  return s * (1 - da) + d * (1 - sa) + sa * da * mix(behind, over)
}

describe.each(MODES)('blendRow, mode %i (%s)', (mode, _, mix) => {
  it.each([true, false])('agrees with the formula on straight colours; coverage given: %s', covered => {
    const n = 301
    const near = pixels(n, 11)
    const far = pixels(n, 12)
    const coverage = noise(n, 1000, 13).map(v => v / 999)
    const opacity = 0.8
    const dst = putFloats(k, far)
    const src = putFloats(k, near)
    const cover = covered ? putFloats(k, coverage) : 0
    k.blendRow(dst, src, cover, n, opacity, mode)
    const got = k.floats(dst, n * 4)
    for (let i = 0; i < n; i++) {
      const c = (covered ? coverage[i]! : 1) * opacity
      const sa = near[i * 4 + 3]! * c
      const da = far[i * 4 + 3]!
      expect(got[i * 4 + 3]).toBeCloseTo(sa + da - sa * da, 5)
      for (let j = 0; j < 3; j++) {
        const want = blended(mix, near[i * 4 + j]! * c, sa, far[i * 4 + j]!, da)
        expect(got[i * 4 + j]).toBeCloseTo(want, 5)
      }
    }
    for (const ptr of [dst, src, ...(cover ? [cover] : [])]) k.free(ptr)
  })
})

/** Keys' cubic, a = -1/2, as he wrote it. */
function cubic(x: number): number {
  const t = Math.abs(x)
  if (t < 1) return 1.5 * t ** 3 - 2.5 * t ** 2 + 1
  return t < 2 ? -0.5 * t ** 3 + 2.5 * t ** 2 - 4 * t + 2 : 0
}

describe('spinRow', () => {
  const [width, height] = [13, 9]
  const at = (data: readonly number[], x: number, y: number, c: number): number => {
    const cx = Math.max(0, Math.min(width - 1, x))
    const cy = Math.max(0, Math.min(height - 1, y))
    return data[(cy * width + cx) * 4 + c]!
  }
  const sampled = (data: readonly number[], x: number, y: number, c: number): number => {
    if (x < -2 || y < -2 || x > width + 1 || y > height + 1) return 0
    let sum = 0
    for (let j = Math.floor(y) - 1; j <= Math.floor(y) + 2; j++)
      for (let i = Math.floor(x) - 1; i <= Math.floor(x) + 2; i++)
        sum += at(data, i, j, c) * cubic(x - i) * cubic(y - j)
    return sum
  }

  it.each([
    [0, 0, 1, 0],
    [-4.3, 2.2, 0.83, 0.31],
    [15, -3, -0.7, 0.7],
    [3.5, 11.9, 0.02, -0.9],
  ])('from (%f, %f) on by (%f, %f) takes bicubic samples, the border repeated, nothing far outside', (u, v, du, dv) => {
    const data = pixels(width * height, 7)
    const src = putFloats(k, data)
    const n = 40
    const dst = putFloats(k, new Array(n * 4).fill(9))
    k.spinRow(src, width, width, height, dst, n, u, v, du, dv)
    const got = k.floats(dst, n * 4)
    for (let i = 0; i < n; i++) {
      for (let c = 0; c < 4; c++) {
        expect(got[i * 4 + c]).toBeCloseTo(sampled(data, u + i * du, v + i * dv, c), 4)
      }
    }
    k.free(src)
    k.free(dst)
  })
})

it('boundRow brings pixels back to what can be, and leaves those that are', () => {
  const n = 37
  const data = pixels(n, 5).map(v => v * 2 - 0.5)
  const row = putFloats(k, data)
  k.boundRow(row, n)
  const got = k.floats(row, n * 4)
  for (let i = 0; i < n; i++) {
    const alpha = Math.max(0, Math.min(1, Math.fround(data[i * 4 + 3]!)))
    for (let c = 0; c < 4; c++) {
      expect(got[i * 4 + c]).toBe(Math.fround(Math.max(0, Math.min(alpha, Math.fround(data[i * 4 + c]!)))))
    }
  }
  k.free(row)
})
