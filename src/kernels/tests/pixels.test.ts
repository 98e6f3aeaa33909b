// Each pixel kernel against its plain twin.
import { beforeAll, describe, expect, it } from 'vitest'
import { UNMOVED } from '../../core/affine'
import { type Kernels, planesLength, renderPlanes } from '../../core/render'
import { coefficients } from '../../core/render/rows'
import { decode, encode, noise, putBytes, putFloats, testKernels } from '../../testing/kernels'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

describe('transfer', () => {
  it('brings every 8-bit code back exactly, at every alpha above none', () => {
    const codes = Array.from({ length: 256 * 4 }, (_, i) => (i % 4 === 3 ? 255 : i >> 2))
    const src = putBytes(k, codes)
    const linear = k.alloc(256 * 16)
    const back = k.alloc(256 * 4)
    k.toLinear(src, linear, 256)
    expect(k.floats(linear, 4 * 256)[4 * 128]).toBeCloseTo(decode(128), 6)
    k.toCodes(linear, back, 256)
    expect([...k.bytes(back, 1024)]).toEqual(codes)
  })

  it('rounds to the nearest code, clamps, and unmultiplies', () => {
    const values = [
      -1,
      2,
      0.5,
      0.25,
      0.1,
      0.2,
      0.3,
      0.5,
      ...noise(400, 1000).map((v, i) => (i % 4 === 3 ? 1 : v / 1000)),
      // Solid and sheer pixels among each other, and some that make no whole four.
      ...noise(412, 1000, 7).map((v, i) => (i % 4 === 3 ? Math.min(1, (1 + v) / 700) : v / 1000)),
    ]
    const src = putFloats(k, values)
    const out = k.alloc(values.length)
    k.toCodes(src, out, values.length / 4)
    const got = k.bytes(out, values.length)
    for (let i = 0; i < values.length; i += 4) {
      const a = Math.max(0, Math.min(1, values[i + 3]!))
      for (let c = 0; c < 3; c++) expect(Math.abs(got[i + c]! - encode(values[i + c]! / a))).toBeLessThan(0.502)
      expect(got[i + 3]).toBe(Math.round(a * 255))
    }
    k.toCodes(putFloats(k, [Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NaN]), out, 1)
    expect([...k.bytes(out, 4)]).toEqual([0, 255, 0, 255])
  })
})

describe('yuv', () => {
  const cases = [
    ['bt709', false],
    ['bt709', true],
    ['bt601', false],
    ['bt601', true],
    ['bt2020', false],
  ] as const
  it.each(cases)('converts %s, full range %s, within half a code of the formula', (matrix, full) => {
    const n = 37
    const [y, cb, cr] = [noise(n, 256, 3), noise(n, 256, 4), noise(n, 256, 5)]
    const luma = putBytes(k, y)
    const chroma = k.alloc(4 * (n + 16))
    const u = chroma
    const v = chroma + 2 * (n + 8)
    for (const [codes, at] of [
      [cb, u],
      [cr, v],
    ] as const) {
      const row = putBytes(k, codes)
      k.chromaRow(row, row, 4, n, n, 0, 0, at)
    }
    const out = k.alloc(n * 4)
    k.bytes(out, n * 4 + 16).fill(7)
    const c = coefficients(matrix, full)
    k.yuvRow(luma, u, v, out, n, c.black, c.y, c.rv, c.gu, c.gv, c.bu)
    const [kr, kb] = { bt709: [0.2126, 0.0722], bt601: [0.299, 0.114], bt2020: [0.2627, 0.0593] }[matrix] as [
      number,
      number,
    ]
    const got = k.bytes(out, n * 4 + 16)
    for (let i = 0; i < n; i++) {
      const l = full ? y[i]! : ((y[i]! - 16) * 255) / 219
      const s = full ? 1 : 255 / 224
      const r = l + 2 * (1 - kr) * s * (cr[i]! - 128)
      const b = l + 2 * (1 - kb) * s * (cb[i]! - 128)
      const g = (l - kr * r - kb * b) / (1 - kr - kb)
      for (const [ch, want] of [
        [0, r],
        [1, g],
        [2, b],
      ] as const) {
        expect(Math.abs(got[i * 4 + ch]! - Math.max(0, Math.min(255, want)))).toBeLessThan(0.56)
      }
      expect(got[i * 4 + 3]).toBe(255)
    }
    // Nothing is written past the end of a run.
    expect([...got.slice(n * 4)]).toEqual(Array(16).fill(7))
  })

  it('takes chroma from where it was sampled', () => {
    const codes = [100, 120, 140, 160]
    const row = putBytes(k, codes)
    const out = k.alloc(64)
    const read = () => Array.from(new Int16Array(k.bytes(out, 16).slice().buffer), v => v / 16 + 128)
    k.chromaRow(row, row, 4, 4, 8, 1, 0, out)
    expect(read()).toEqual([100, 110, 120, 130, 140, 150, 160, 160])
    k.chromaRow(row, row, 4, 4, 8, 1, 1, out)
    expect(read()).toEqual([100, 105, 115, 125, 135, 145, 155, 160])
    const far = putBytes(k, [200, 220, 240, 160])
    k.chromaRow(row, far, 3, 4, 8, 1, 0, out)
    expect(read()[0]).toBe(125)
  })

  it('writes planes that read back as the same colours', () => {
    for (const [width, height] of [
      [16, 8],
      [22, 6],
    ] as const) {
      const colour = [200, 90, 40]
      const src = putBytes(
        k,
        Array.from({ length: width * height * 4 }, (_, i) => colour[i % 4] ?? 255),
      )
      const out = k.alloc(planesLength(width, height))
      const picture = { kind: 'codes', width, height, ptr: src, opaque: true } as const
      const shown = { kind: 'take', digest: 'a', seconds: 0 } as const
      const layer = { id: 'a', picture: shown, place: UNMOVED, opacity: 1, blend: 'normal', matte: [] } as const
      const plan = { size: { width, height }, backdrop: null, layers: [{ ...layer, matte: [], looks: [] }] }
      renderPlanes(k, plan, () => picture, plan.size, out)
      const planes = k.bytes(out, planesLength(width, height))
      const [r, g, b] = colour as [number, number, number]
      const y = 16 + (219 / 255) * (0.2126 * r + 0.7152 * g + 0.0722 * b)
      const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
      expect(new Set(planes.subarray(0, width * height))).toEqual(new Set([Math.round(y)]))
      const half = ((width + 1) >> 1) * ((height + 1) >> 1)
      const u = 128 + ((224 / 255) * (b - luma)) / 1.8556
      const v = 128 + ((224 / 255) * (r - luma)) / 1.5748
      expect(new Set(planes.subarray(width * height, width * height + half))).toEqual(new Set([Math.round(u)]))
      expect(new Set(planes.subarray(width * height + half))).toEqual(new Set([Math.round(v)]))
    }
  })
})

it('orderRow turns blue and red round, and makes what has no alpha opaque', () => {
  for (const [n, opaque] of [
    [1, 0],
    [37, 1],
    [64, 0],
  ] as const) {
    const data = noise(n * 4, 256, n)
    const row = putBytes(k, data)
    k.orderRow(row, n, opaque)
    const want = data.map((v, i) =>
      i % 4 === 3 ? (opaque ? 255 : v) : i % 4 === 1 ? v : data[i - (i % 4) + 2 - (i % 4)]!,
    )
    expect([...k.bytes(row, n * 4)]).toEqual([...want])
    k.free(row)
  }
})

describe('rows for a PNG', () => {
  it.each([3, 4])('of %s channels are the differences to the rows above', channels => {
    const n = 23
    const [row, above] = [noise(n * 4, 256, 31), noise(n * 4, 256, 32)]
    const out = k.alloc(n * channels + 4)
    k.upRow(putBytes(k, row), putBytes(k, above), out, n, channels)
    const want = Array.from({ length: n * channels }, (_, i) => {
      const at = Math.floor(i / channels) * 4 + (i % channels)
      return (row[at]! - above[at]! + 256) % 256
    })
    expect([...k.bytes(out, n * channels)]).toEqual(want)
  })
})

describe('compositing', () => {
  it('lays premultiplied pixels over each other', () => {
    const n = 21
    const src = noise(n * 4, 1000, 8).map(v => v / 1000)
    const dst = noise(n * 4, 1000, 9).map(v => v / 1000)
    const cover = noise(n, 1000, 10).map(v => v / 1000)
    const [s, d, c] = [putFloats(k, src), putFloats(k, dst), putFloats(k, cover)]
    k.overRow(d, s, c, n, 0.7)
    const got = k.floats(d, n * 4)
    for (let i = 0; i < n * 4; i++) {
      const w = cover[i >> 2]! * 0.7
      expect(got[i]).toBeCloseTo(src[i]! * w + dst[i]! * (1 - src[(i >> 2) * 4 + 3]! * w), 5)
    }
  })

  it('finds who shows alone, nearest first, and the runs of it', () => {
    const n = 100
    const cover = Array.from({ length: n }, (_, x) => (x < 30 ? 0 : x < 40 ? (x - 29) / 11 : 1))
    const classes = k.alloc(n)
    k.bytes(classes, n + 32).fill(255)
    expect(k.classifyRow(classes, putFloats(k, [...cover, ...Array(28).fill(1)]), n, 0, 1)).toBe(1)
    k.classifyRow(classes, 0, n, 1, 1)
    const out = k.alloc(n * 12)
    const count = k.findRuns(classes, n, out)
    expect([...k.ints(out, count * 3)]).toEqual([0, 30, 1, 30, 40, 254, 40, 100, 0])
    // A layer that lets things through never shows alone.
    k.bytes(classes, n + 32).fill(255)
    k.classifyRow(classes, 0, n, 0, 0)
    expect(new Set(k.bytes(classes, n))).toEqual(new Set([254]))
  })

  it.each([
    [0, (m: number, c: number, s: number) => Math.max(m, c * s)],
    [1, (m: number, c: number, s: number) => Math.min(m, 1 - c * s)],
    [2, (m: number, c: number, s: number) => Math.min(m, 1 - s * (1 - c))],
  ])('joins pieces in mode %s', (mode, want) => {
    const n = 19
    const m = noise(n, 100, 20).map(v => v / 100)
    const c = noise(n, 100, 21).map(v => v / 100)
    for (const inverted of [0, 1]) {
      const matte = putFloats(k, m)
      k.joinRow(matte, putFloats(k, c), n, mode, 0.8, inverted)
      const got = k.floats(matte, n)
      for (let i = 0; i < n; i++) expect(got[i]).toBeCloseTo(want(m[i]!, inverted ? 1 - c[i]! : c[i]!, 0.8), 6)
    }
  })

  it('turns pictures by quarters', () => {
    const [w, h] = [3, 2]
    const src = k.alloc(w * h * 4)
    k.ints(src, 6).set([1, 2, 3, 4, 5, 6])
    const dst = k.alloc(w * h * 4)
    const turned = (q: number) => {
      k.turnPicture(src, dst, w, h, q)
      return [...k.ints(dst, 6)]
    }
    expect(turned(1)).toEqual([4, 1, 5, 2, 6, 3])
    expect(turned(2)).toEqual([6, 5, 4, 3, 2, 1])
    expect(turned(3)).toEqual([3, 6, 2, 5, 1, 4])
  })
})
