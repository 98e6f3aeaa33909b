// Pictures at half their size: the plain mean of two by two, at the same place as the exact ones, wherever they come from.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { filmPicture } from '../../testing/film'
import { noise, putBytes, testKernels } from '../../testing/kernels'
import { findIn, plannedLayer } from '../../testing/planned'
import { UNMOVED } from '../affine'
import { type Kernels, type Picture, type Planes, renderFrame, toCodesPicture } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

it('takes the mean of two by two codes, at any size, and counts an odd border twice', () => {
  const sizes = fc.tuple(
    fc.integer({ min: 1, max: 75 }),
    fc.integer({ min: 1, max: 7 }),
    fc.integer({ min: 0, max: 9 }),
  )
  fc.assert(
    fc.property(sizes, fc.nat(999), ([width, height, gap], seed) => {
      const stride = width + gap
      const data = noise(stride * height, 256, seed)
      const [w, h] = [(width + 1) >> 1, (height + 1) >> 1]
      const [from, to] = [putBytes(k, data), putBytes(k, Array((w + 3) * h).fill(7))]
      k.halveCodes(from, stride, width, height, to, w + 3)
      const at = (x: number, y: number) => data[Math.min(height - 1, y) * stride + Math.min(width - 1, x)]!
      const want = Array.from({ length: (w + 3) * h }, (_, i) => {
        const [x, y] = [2 * (i % (w + 3)), 2 * Math.floor(i / (w + 3))]
        return x < 2 * w ? (at(x, y) + at(x + 1, y) + at(x, y + 1) + at(x + 1, y + 1) + 2) >> 2 : 7
      })
      expect([...k.bytes(to, want.length)]).toEqual(want)
      for (const ptr of [from, to]) k.free(ptr)
    }),
  )
})

/** Bright and dark blobs in colour, in planes whose rows lie apart. */
const film = (width: number, height: number): Planes =>
  filmPicture(
    k,
    width,
    height,
    (plane, x, y) =>
      plane === 0
        ? 120 + 80 * Math.sin(x / 7) * Math.cos(y / 5)
        : 128 + 40 * Math.sin(x / (3 + 3 * plane)) * Math.sin(y / (3 + 3 * plane)),
    { gap: 5 },
  )

it.each([
  ['film', film],
  ['a still', (width: number, height: number) => toCodesPicture(k, film(width, height))],
])('shows %s as the exact picture at half size does, but for a few codes', (_, make) => {
  for (const [width, height] of [
    [96, 40],
    [93, 41],
  ] as const) {
    const picture: Picture = make(width, height)
    const size = { width: Math.round(width / 2), height: Math.round(height / 2) }
    const bytes = (half: boolean) => {
      const own = half ? plannedLayer('a') : plannedLayer('a', { place: { ...UNMOVED, a: 0.5, d: 0.5 } })
      const shown = half ? { ...own, picture: { kind: 'take', digest: 'a', seconds: 0, half: true } as const } : own
      const made = renderFrame(k, { size, backdrop: null, layers: [shown] }, findIn({ a: picture }))
      return k.bytes(made.ptr, size.width * size.height * 4).slice()
    }
    const [quick, exact] = [bytes(true), bytes(false)]
    const off = quick.map((v, i) => Math.abs(v - exact[i]!))
    expect(Math.max(...off)).toBeLessThan(14)
    expect(off.reduce((sum, v) => sum + v, 0) / off.length).toBeLessThan(1.5)
  }
})
