// Shadow where it shows, and beneath somebody.
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { planeIn } from './plane'
import { shadowOf } from './shadow'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

it('shadow is what light is missing, and goes on beneath somebody', () => {
  const size = { width: 160, height: 90 }
  const n = size.width * size.height
  k.scope(() => {
    const [is, left] = [planeIn(k, n), planeIn(k, n)]
    for (let i = 0; i < n; i++) {
      const [x, y] = [i % size.width, Math.floor(i / size.width)]
      is[i] = x > 60 && x < 100 && y > 20 && y < 80 ? 1 : 0
      // Half the light is left on the right.
      left[i] = is[i] ? 3 * ((i * 7) % 5) : x < 80 ? 1 : 0.5 ** (1 / 2.4)
    }
    const all = { x: 0, y: 0, ...size }
    const shadow = shadowOf(k, size, { is, part: all }, left)
    const at = (x: number, y: number) => shadow[y * size.width + x]! / 255
    expect(at(20, 50)).toBe(0)
    expect(at(140, 50)).toBeCloseTo(0.5, 2)
    expect(at(64, 50)).toBeLessThan(0.1)
    expect(at(96, 50)).toBeGreaterThan(0.4)
    expect(at(80, 50)).toBeGreaterThan(0.1)
    expect(at(80, 50)).toBeLessThan(0.4)
    const part = { x: 45, y: 5, width: 70, height: 85 }
    expect(shadowOf(k, size, { is, part }, left)).toEqual(shadow)
    left.fill(1)
    expect(Math.max(...shadowOf(k, size, { is: planeIn(k, n), part: { ...all, width: 0 } }, left))).toBe(0)
  })
})
