// Places and blends against plain ones that take every pixel by itself.
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { decode, encode, noise, putBytes, testKernels } from '../../testing/kernels'
import { findIn } from '../../testing/planned'
import { type Affine, UNMOVED } from '../affine'
import type { PlannedLayer } from '../plan'
import type { Blend } from '../shot'
import { type Codes, type Kernels, renderFrame } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const size = { width: 24, height: 18 }

function picture(width: number, height: number, seed: number, opaque = true): Codes {
  const data = noise(width * height * 4, 256, seed).map((v, i) => (i % 4 === 3 && opaque ? 255 : v))
  return { kind: 'codes', width, height, ptr: putBytes(k, data), opaque }
}

/** Soft blobs rather than noise: what turning may blur a little. */
function smooth(width: number, height: number): Codes {
  const data = Array.from({ length: width * height * 4 }, (_, i) => {
    const p = i >> 2
    const [x, y] = [p % width, Math.floor(p / width)]
    return i % 4 === 3 ? 255 : Math.round(128 + 90 * Math.sin(x / 4 + (i % 4)) * Math.cos(y / 5))
  })
  return { kind: 'codes', width, height, ptr: putBytes(k, data), opaque: true }
}

const layer = (digest: string, place: Affine, changes: Partial<PlannedLayer> = {}): PlannedLayer => ({
  id: digest,
  picture: { kind: 'take', digest, seconds: 0 },
  place,
  opacity: 1,
  blend: 'normal',
  matte: [],
  looks: [],
  ...changes,
})

function render(layers: PlannedLayer[], pictures: Record<string, Codes>, backdrop: string | null = '#000000') {
  const made = renderFrame(k, { size, backdrop, layers }, findIn(pictures))
  const out = k.bytes(made.ptr, made.width * made.height * 4).slice()
  k.free(made.ptr)
  return out
}

const at = (bytes: Uint8Array, x: number, y: number, width = size.width) => [
  ...bytes.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
]

describe('a place', () => {
  it('on whole pixels moves every code untouched, wherever it lies', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20, max: 30 }), fc.integer({ min: -20, max: 30 }), (x, y) => {
        const source = picture(15, 11, 3)
        const got = render([layer('a', { ...UNMOVED, x, y })], { a: source })
        const bytes = k.bytes(source.ptr, 15 * 11 * 4)
        for (let v = 0; v < size.height; v++) {
          for (let u = 0; u < size.width; u++) {
            const inside = u >= x && u < x + 15 && v >= y && v < y + 11
            expect(at(got, u, v)).toEqual(inside ? at(bytes, u - x, v - y, 15) : [0, 0, 0, 255])
          }
        }
        k.free(source.ptr)
      }),
      { numRuns: 25 },
    )
  })

  it('flipped shows the same codes in a mirror', () => {
    const source = picture(24, 18, 5)
    const plain = render([layer('a', UNMOVED)], { a: source })
    const across = render([layer('a', { ...UNMOVED, a: -1, x: 24 })], { a: source })
    const down = render([layer('a', { ...UNMOVED, d: -1, y: 18 })], { a: source })
    for (let y = 0; y < 18; y++) {
      for (let x = 0; x < 24; x++) {
        expect(at(across, x, y)).toEqual(at(plain, 23 - x, y))
        expect(at(down, x, y)).toEqual(at(plain, x, 17 - y))
      }
    }
  })

  it('turned by quarters about its middle is the picture turned, code by code', () => {
    const source = picture(18, 18, 8)
    const bytes = k.bytes(source.ptr, 18 * 18 * 4).slice()
    // (u, v) -> (18 - v, u), three px to the right so that it lies inside.
    const got = render([layer('a', { a: 0, b: 1, c: -1, d: 0, x: 21, y: 0 })], { a: source })
    for (let v = 0; v < 18; v++)
      for (let u = 0; u < 18; u++) expect(at(got, 3 + 17 - v, u)).toEqual(at(bytes, u, v, 18))
  })

  it('turned by any angle agrees with the picture looked up at each pixel, and covers its exact share', () => {
    const source = smooth(24, 18)
    const bytes = k.bytes(source.ptr, 24 * 18 * 4)
    for (const degrees of [7, 33, 90, 144, -61]) {
      const r = (degrees * Math.PI) / 180
      const m = { a: Math.cos(r), b: Math.sin(r), c: -Math.sin(r), d: Math.cos(r), x: 0, y: 0 }
      m.x = 12 - m.a * 12 - m.c * 9
      m.y = 9 - m.b * 12 - m.d * 9
      const got = render([layer('a', m)], { a: source }, null)
      for (let y = 1; y < 17; y++) {
        for (let x = 1; x < 23; x++) {
          const [px, py] = [x + 0.5 - m.x, y + 0.5 - m.y]
          const [u, v] = [m.a * px + m.b * py, m.c * px + m.d * py]
          if (u > 2 && u < 22 && v > 2 && v < 16) {
            expect(at(got, x, y)[3]).toBe(255)
            const near = at(bytes, Math.floor(u), Math.floor(v), 24)
            for (const c of [0, 1, 2]) expect(Math.abs(at(got, x, y)[c]! - near[c]!)).toBeLessThan(36)
          } else if (u < -1 || u > 25 || v < -1 || v > 19) expect(at(got, x, y)[3]).toBe(0)
        }
      }
    }
  })

  it('at rest does not wobble: the same plan is the same to the bit', () => {
    const source = smooth(24, 18)
    const m = { a: 0.71, b: 0.13, c: -0.13, d: 0.71, x: 3.3, y: 1.7 }
    expect(render([layer('a', m)], { a: source })).toEqual(render([layer('a', m)], { a: source }))
  })
})

/** B(behind, over) of W3C Compositing and Blending, on straight linear light. */
const MIXES: Record<Exclude<Blend, 'normal'>, (b: number, s: number) => number> = {
  add: (b, s) => b + s,
  screen: (b, s) => b + s - b * s,
  multiply: (b, s) => b * s,
  lighten: Math.max,
  darken: Math.min,
  difference: (b, s) => Math.abs(b - s),
}

describe.each(Object.entries(MIXES))('blending by %s', (mode, mix) => {
  it('does what the formula says, with alpha and opacity', () => {
    const near = picture(24, 18, 21, false)
    const far = picture(24, 18, 22, false)
    const opacity = 0.7
    const got = render(
      [layer('near', UNMOVED, { blend: mode as Blend, opacity }), layer('far', UNMOVED)],
      { near, far },
      null,
    )
    const n = k.bytes(near.ptr, 24 * 18 * 4)
    const f = k.bytes(far.ptr, 24 * 18 * 4)
    for (let i = 0; i < n.length; i += 4) {
      const as = (n[i + 3]! / 255) * opacity
      const ab = f[i + 3]! / 255
      const ao = as + ab - as * ab
      expect(Math.abs(got[i + 3]! - ao * 255)).toBeLessThan(1.01)
      if (ao < 0.2) continue
      for (const c of [0, 1, 2]) {
        const [s, b] = [decode(n[i + c]!), decode(f[i + c]!)]
        const colour = (as * (1 - ab) * s + ab * (1 - as) * b + as * ab * mix(b, s)) / ao
        expect(Math.abs(got[i + c]! - encode(colour))).toBeLessThan(1.6)
      }
    }
  })
})

it('mixes two frames of a take in linear light', () => {
  const one = picture(24, 18, 31)
  const other = picture(24, 18, 32)
  const take = (digest: string) => ({ kind: 'take' as const, digest, seconds: 0 })
  const mixed = layer('x', UNMOVED, { picture: { kind: 'mix', one: take('one'), other: take('other'), share: 0.25 } })
  const got = render([mixed], { one, other })
  const a = k.bytes(one.ptr, 24 * 18 * 4)
  const b = k.bytes(other.ptr, 24 * 18 * 4)
  for (let i = 0; i < a.length; i += 7) {
    if (i % 4 === 3) continue
    expect(Math.abs(got[i]! - encode(decode(a[i]!) * 0.75 + decode(b[i]!) * 0.25))).toBeLessThan(1.01)
  }
  // A frame without a neighbour shows by itself.
  expect(render([mixed], { one })).toEqual(render([layer('one', UNMOVED)], { one }))
})
