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

describe('warpRow', () => {
  const [width, height] = [13, 9]
  it.each([
    ['enlarged', [0.4, 0.05, 1, 0.1, 0.5, -1, 0.002, 0.01, 1.1]],
    ['reduced', [2.4, 0.3, -9, -0.4, 3.1, 2, 0.01, 0.05, 1]],
    ['beyond its horizon', [1, 0.2, 0, 0.1, 0.8, 0, -0.09, 0.01, 1]],
  ])('takes the mean of samples spread over what a px covers: %s', (_, numbers) => {
    const data = pixels(width * height, 8)
    const [a, c, x0, b, d, y0, g, h, w] = numbers as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const within = [0.5, 0, 12, 9] as const
    const src = putFloats(k, data)
    const map = k.alloc(13 * 8)
    k.doubles(map, 13).set([...numbers, ...within])
    const n = 24
    const coverage = Array.from({ length: n }, (_, i) => (i % 5) / 4)
    const cover = putFloats(k, coverage)
    const dst = putFloats(k, new Array(n * 4).fill(9))
    const [x, y] = [0.5, 2.5]
    k.warpRow(src, width, width, height, dst, cover, n, map, x, y)
    const got = k.floats(dst, n * 4)
    const sample = (px: number, py: number, channel: number): number => {
      const [u, v] = [px - 0.5, py - 0.5]
      let sum = 0
      for (let j = Math.floor(v) - 1; j <= Math.floor(v) + 2; j++)
        for (let i = Math.floor(u) - 1; i <= Math.floor(u) + 2; i++) {
          const at = Math.max(0, Math.min(height - 1, j)) * width + Math.max(0, Math.min(width - 1, i))
          sum += data[at * 4 + channel]! * cubic(u - i) * cubic(v - j)
        }
      return sum
    }
    for (let i = 0; i < n; i++) {
      const q = g * (x + i) + h * y + w
      const [u, v] = [(a * (x + i) + c * y + x0) / q, (b * (x + i) + d * y + y0) / q]
      const along = [(a - g * u) / q, (b - g * v) / q] as const
      const below = [(c - h * u) / q, (d - h * v) / q] as const
      const [wide, tall] = [Math.hypot(...along), Math.hypot(...below)]
      const counts = [wide, tall].map(f => Math.min(16, Math.max(1, Math.ceil(f - 0.5)))) as [number, number]
      const steps = [wide, tall].map((f, j) => (f > 1.5 ? Math.sqrt(f * f - 1) / f / counts[j]! : 0)) as [
        number,
        number,
      ]
      for (let channel = 0; channel < 4; channel++) {
        let sum = 0
        for (let j = 0; j < counts[1]; j++)
          for (let m = 0; m < counts[0]; m++) {
            const [over, down] = [(m - (counts[0] - 1) / 2) * steps[0], (j - (counts[1] - 1) / 2) * steps[1]]
            const su = Math.max(within[0], Math.min(within[2], u + over * along[0] + down * below[0]))
            const sv = Math.max(within[1], Math.min(within[3], v + over * along[1] + down * below[1]))
            sum += sample(su, sv, channel)
          }
        const want = q > 1e-12 ? (sum / counts[0] / counts[1]) * coverage[i]! : 0
        expect(got[i * 4 + channel]).toBeCloseTo(want, 4)
      }
    }
    for (const ptr of [src, dst, map, cover]) k.free(ptr)
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
