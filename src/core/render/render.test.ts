// The renderer against a plain one that composites every pixel in float, and against what must hold for any input.
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { decode, encode, noise, putBytes, testKernels } from '../../testing/kernels'
import { plannedEdge as edge, findIn, plannedLayer as layer } from '../../testing/planned'
import type { PlannedPicture } from '../picture'
import type { Plan, PlannedLayer } from '../plan'
import {
  type Codes,
  type Kernels,
  loadKernels,
  OutOfMemory,
  type Picture,
  type Planes,
  renderFrame,
  resample,
  toCodesPicture,
} from '.'
import { arena } from './memory'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

function codes(width: number, height: number, seed: number, opaque = true): Codes {
  const data = noise(width * height * 4, 256, seed).map((v, i) => (i % 4 === 3 && opaque ? 255 : v))
  return { kind: 'codes', width, height, ptr: putBytes(k, data), opaque }
}

function render(plan: Plan, pictures: Record<string, Picture>): Uint8Array {
  const made = renderFrame(k, plan, findIn(pictures))
  const out = k.bytes(made.ptr, made.width * made.height * 4).slice()
  k.free(made.ptr)
  return out
}

const bytesOf = (p: Codes): Uint8Array => k.bytes(p.ptr, p.width * p.height * 4)

describe('an untouched opaque pixel', () => {
  it.each([
    [64, 36],
    [33, 17],
    [1, 1],
  ])('leaves exactly as it came, at %s x %s', (width, height) => {
    const picture = codes(width, height, 5)
    const plan = { size: { width, height }, backdrop: '#000000', layers: [layer('a')] }
    expect(render(plan, { a: picture })).toEqual(bytesOf(picture).slice())
  })

  it('leaves exactly on either side of a split, whatever mixes between', () => {
    const [a, b] = [codes(64, 8, 1), codes(64, 8, 2)]
    const plan = {
      size: { width: 64, height: 8 },
      backdrop: '#000000',
      layers: [layer('a', { matte: [edge(32, 6)] }), layer('b')],
    }
    const got = render(plan, { a, b })
    for (let y = 0; y < 8; y++) {
      const row = (bytes: Uint8Array, from: number, to: number) => [
        ...bytes.subarray((y * 64 + from) * 4, (y * 64 + to) * 4),
      ]
      expect(row(got, 0, 25)).toEqual(row(bytesOf(b), 0, 25))
      expect(row(got, 39, 64)).toEqual(row(bytesOf(a), 39, 64))
    }
  })
})

/** One channel of one pixel, composited the plain way. */
function plainly(layers: { rgba: Uint8Array; cover: number; opacity: number }[], at: number, channel: number): number {
  let out = 0
  for (const { rgba, cover, opacity } of [...layers].reverse()) {
    const a = (rgba[at * 4 + 3]! / 255) * cover * opacity
    out = decode(rgba[at * 4 + channel]!) * a + out * (1 - a)
  }
  return encode(out)
}

it('composites any stack like the plain way does, to the rounding of a code', () => {
  const [width, height] = [24, 3]
  const pictures = { a: codes(width, height, 11), b: codes(width, height, 12, false), c: codes(width, height, 13) }
  const anyLayer = fc.record({
    id: fc.constantFrom('a', 'b', 'c'),
    opacity: fc.constantFrom(1, 1, 0.4),
    cut: fc.option(fc.integer({ min: -3, max: 27 })),
  })
  fc.assert(
    fc.property(fc.array(anyLayer, { maxLength: 5 }), stack => {
      const layers = stack.map(l =>
        layer(l.id, { opacity: l.opacity, matte: l.cut === null ? [] : [edge(l.cut + 0.5)] }),
      )
      const got = render({ size: { width, height }, backdrop: '#000000', layers }, pictures)
      for (let at = 0; at < width * height; at++) {
        const x = at % width
        const plain = stack.map(l => ({
          rgba: bytesOf(pictures[l.id as 'a']),
          opacity: l.opacity,
          cover: l.cut === null ? 1 : Math.max(0, Math.min(1, x - l.cut + 0.5)),
        }))
        for (let c = 0; c < 3; c++) expect(Math.abs(got[at * 4 + c]! - plainly(plain, at, c))).toBeLessThan(0.52)
      }
    }),
    { numRuns: 60 },
  )
})

describe('groups', () => {
  it('show what their layers would show without them, soft edges and all', () => {
    const pictures = { a: codes(32, 4, 21), b: codes(32, 4, 22), c: codes(32, 4, 23) }
    const size = { width: 32, height: 4 }
    const inner = [layer('a', { matte: [edge(9, 5)] }), layer('b', { matte: [edge(20, 3)], opacity: 0.6 })]
    const flat = render({ size, backdrop: '#203040', layers: [...inner, layer('c')] }, pictures)
    const group = layer('g', { picture: { kind: 'group', plan: { size, backdrop: null, layers: inner } } })
    expect(render({ size, backdrop: '#203040', layers: [group, layer('c')] }, pictures)).toEqual(flat)
  })
})

describe('places', () => {
  it('leave what lies outside a picture open, its border shared exactly', () => {
    const white: Codes = { kind: 'codes', width: 4, height: 4, ptr: putBytes(k, Array(64).fill(255)), opaque: true }
    const plan = {
      size: { width: 12, height: 6 },
      backdrop: null,
      layers: [layer('a', { place: { a: 1, b: 0, c: 0, d: 1, x: 2.5, y: 1 } })],
    }
    const got = render(plan, { a: white })
    const alphas = Array.from({ length: 12 }, (_, x) => got[(2 * 12 + x) * 4 + 3])
    expect(alphas).toEqual([0, 0, 128, 255, 255, 255, 128, 0, 0, 0, 0, 0])
  })

  it('missing pictures leave their layer out', () => {
    const plan = { size: { width: 2, height: 1 }, backdrop: '#102030', layers: [layer('gone')] }
    expect([...render(plan, {})]).toEqual([16, 32, 48, 255, 16, 32, 48, 255])
  })
})

describe('resampling', () => {
  it('keeps one colour one colour, at any size', () => {
    const picture: Codes = {
      kind: 'codes',
      width: 9,
      height: 7,
      ptr: putBytes(
        k,
        Array.from({ length: 252 }, (_, i) => [200, 100, 50, 255][i % 4]!),
      ),
      opaque: true,
    }
    for (const scale of [0.13, 0.5, 0.99, 1.7, 6]) {
      const [width, height] = [Math.max(1, Math.round(9 * scale)), Math.max(1, Math.round(7 * scale))]
      const out = resample(k, picture, { width, height, x: 0, y: 0, scaleX: scale, scaleY: scale })
      expect(new Set(k.ints(out.ptr, width * height))).toEqual(new Set([k.ints(picture.ptr, 1)[0]]))
    }
  })

  it('reduces by true area in linear light', () => {
    const picture: Codes = {
      kind: 'codes',
      width: 2,
      height: 2,
      ptr: putBytes(k, [255, 255, 255, 255, 0, 0, 0, 255, 0, 0, 0, 255, 0, 0, 0, 255]),
      opaque: true,
    }
    const out = resample(k, picture, { width: 1, height: 1, x: 0, y: 0, scaleX: 0.5, scaleY: 0.5 })
    expect(k.bytes(out.ptr, 1)[0]).toBe(Math.round(encode(0.25)))
  })
})

it('reads planes of every layout into the same colour', () => {
  const [y, u, v] = [120, 100, 160]
  const seen = new Set<string>()
  for (const [halfColumns, halfRows] of [
    [1, 1],
    [1, 0],
    [0, 0],
  ] as const) {
    for (const [width, height] of [
      [8, 6],
      [5, 3],
    ] as const) {
      const cw = (width + halfColumns) >> halfColumns
      const ch = (height + halfRows) >> halfRows
      const ptr = k.alloc(width * height + 2 * cw * ch + 64)
      k.bytes(ptr, width * height).fill(y)
      k.bytes(ptr + width * height, cw * ch).fill(u)
      k.bytes(ptr + width * height + cw * ch, cw * ch).fill(v)
      const offsets = [0, width * height, width * height + cw * ch] as const
      const planes: Planes = {
        kind: 'planes',
        width,
        height,
        ptr,
        offsets,
        strides: [width, cw, cw],
        halfColumns,
        halfRows,
        chroma: { across: 'even', down: 'between' },
        matrix: 'bt709',
        fullRange: false,
      }
      const out = toCodesPicture(k, planes)
      for (const pixel of k.ints(out.ptr, width * height)) seen.add(String(pixel))
    }
  }
  expect(seen.size).toBe(1)
})

it('reads chroma from where the file says it lies', () => {
  const [width, height] = [7, 6]
  const [cw, ch] = [4, 3]
  const luma = noise(width * height, 220, 1)
  const [us, vs] = [noise(cw * ch, 200, 2), noise(cw * ch, 200, 3)]
  const data = [...luma, ...us, ...vs]
  // Chroma sample i lies at 2 i plus this, in luma samples.
  const shift = { even: 0, between: 0.5, odd: 1 }
  for (const across of ['even', 'between'] as const) {
    for (const down of ['between', 'even', 'odd'] as const) {
      const planes: Planes = {
        kind: 'planes',
        width,
        height,
        ptr: putBytes(k, [...data, ...new Array(64).fill(0)]),
        offsets: [0, width * height, width * height + cw * ch],
        strides: [width, cw, cw],
        halfColumns: 1,
        halfRows: 1,
        chroma: { across, down },
        matrix: 'smpte240m',
        fullRange: true,
      }
      const out = toCodesPicture(k, planes)
      const bytes = k.bytes(out.ptr, width * height * 4)
      const at = (plane: number[], x: number, y: number): number => {
        const line = (v: number, n: number) => {
          const i = Math.floor(v)
          const t = v - i
          const clamped = (j: number) => Math.max(0, Math.min(n - 1, j))
          return [
            [clamped(i), 1 - t],
            [clamped(i + 1), t],
          ] as const
        }
        let sum = 0
        for (const [i, s] of line((x - shift[across]) / 2, cw))
          for (const [j, t] of line((y - shift[down]) / 2, ch)) sum += plane[j * cw + i]! * s * t
        return sum - 128
      }
      const [kr, kb] = [0.212, 0.087]
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          const [l, cb, cr] = [luma[y * width + x]!, at(us, x, y), at(vs, x, y)]
          const r = l + 2 * (1 - kr) * cr
          const b = l + 2 * (1 - kb) * cb
          const g = (l - kr * r - kb * b) / (1 - kr - kb)
          ;[r, g, b].forEach((v, c) => {
            const want = Math.max(0, Math.min(255, v))
            expect(Math.abs(bytes[(y * width + x) * 4 + c]! - want)).toBeLessThan(1.01)
          })
        }
      }
      k.free(out.ptr)
      k.free(planes.ptr)
    }
  }
})

it('keeps what lies between two codes until the end, mixed, in a group, and turned', () => {
  const size = { width: 32, height: 8 }
  const grey = (code: number): Codes => ({
    kind: 'codes',
    ...size,
    ptr: putBytes(
      k,
      new Uint8Array(1024).map((_, i) => (i % 4 === 3 ? 255 : code)),
    ),
    opaque: true,
  })
  const pictures = { dark: grey(0), one: grey(1) }
  const take = (digest: string) => ({ kind: 'take', digest, seconds: 0 }) as const
  const faint: PlannedPicture = { kind: 'mix', one: take('dark'), other: take('one'), share: 0.4 }
  const group: PlannedPicture = {
    kind: 'group',
    plan: { size, backdrop: null, layers: [layer('f', { picture: faint })] },
  }
  const turned = { a: -1, b: 1e-7, c: -1e-7, d: -1, x: 32, y: 8 }
  for (const changes of [{ picture: faint }, { picture: group }, { picture: group, place: turned }]) {
    const layers = Array.from({ length: 5 }, (_, i) => layer(`${i}`, { ...changes, blend: 'add' }))
    const made = render({ size, backdrop: '#000000', layers }, pictures)
    // Five times 0.4 of a code; each alone would have been none.
    expect(made[(4 * 32 + 16) * 4]).toBe(2)
  }
})

describe('memory', () => {
  it('reserves what fits, apart from each other, and takes all of it back', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -5, max: 3000 }), { maxLength: 60 }), steps => {
        const heap = arena(1024, 65536)
        const whole = heap.largestFree()
        const held = new Map<number, number>()
        for (const step of steps) {
          const oldest = held.keys().next().value
          if (step < 0 && oldest !== undefined) {
            heap.free(oldest)
            held.delete(oldest)
          } else if (step >= 0) {
            let at: number
            try {
              at = heap.alloc(step)
            } catch (error) {
              expect(error).toBeInstanceOf(OutOfMemory)
              continue
            }
            for (const [other, size] of held) expect(at + step <= other || other + size <= at).toBe(true)
            expect(at % 16).toBe(0)
            expect(at + step).toBeLessThanOrEqual(65536)
            held.set(at, step)
          }
        }
        for (const at of held.keys()) heap.free(at)
        expect(heap.largestFree()).toBe(whole)
        expect(() => heap.free(4)).toThrow()
      }),
    )
  })

  it('is given back as a scope is left, also by an error; what is kept stays', () => {
    const heap = arena(1024, 65536)
    const whole = heap.largestFree()
    let ended = 0
    let kept = 0
    const work = () =>
      heap.scope(() => {
        heap.atEnd(() => ended++)
        heap.alloc(100)
        heap.free(heap.alloc(200))
        heap.scope(() => {
          heap.alloc(300)
        })
        kept = heap.keep(heap.alloc(50))
        heap.alloc(1e6)
      })
    expect(work).toThrow(OutOfMemory)
    expect(ended).toBe(1)
    heap.free(kept)
    expect(heap.largestFree()).toBe(whole)
    expect(() => heap.alloc(2 ** 32)).toThrow(OutOfMemory)
  })

  it('suffices for three rows of 61 turned copies; and however little there is, the picture is the same to the bit', async () => {
    const size = { width: 640, height: 360 }
    const turnedRow = (degrees: number): PlannedLayer[] =>
      Array.from({ length: 61 }, (_, i) => {
        const a = Math.cos((degrees * Math.PI) / 180) * 0.5
        const b = Math.sin((degrees * Math.PI) / 180) * 0.5
        return layer('a', { place: { a, b, c: -b, d: a, x: 100 + i * 5, y: 33 + i * 3 }, opacity: 0.6 })
      })
    const plan = { size, backdrop: '#102030', layers: [turnedRow(7), turnedRow(45), turnedRow(88)].flat() }
    const paintIn = async (megabytes: number) => {
      const own = await testKernels(megabytes << 20)
      const picture: Codes = { kind: 'codes', ...size, ptr: own.alloc(size.width * size.height * 4), opaque: true }
      const pixels = own.ints(picture.ptr, size.width * size.height)
      for (let i = 0; i < pixels.length; i++) pixels[i] = Math.imul(i, 2654435761) | 0xff000000
      const free = own.largestFree()
      const made = renderFrame(own, plan, () => picture)
      const bytes = own.bytes(made.ptr, size.width * size.height * 4).slice()
      own.free(made.ptr)
      expect(own.largestFree()).toBe(free)
      return bytes
    }
    expect(Buffer.compare(await paintIn(12), await paintIn(128))).toBe(0)
    // Where even a row has no room the frame is refused, and everything is as it was.
    const tiny = await testKernels(2 << 20)
    const free = tiny.largestFree()
    expect(() => renderFrame(tiny, plan, () => codes(64, 36, 1))).toThrow(OutOfMemory)
    expect(tiny.largestFree()).toBe(free)
  })

  it('is given back after every frame', async () => {
    const { readFile } = await import('node:fs/promises')
    const module = await WebAssembly.compile(await readFile(new URL('../../../build/kernels.wasm', import.meta.url)))
    const own = await loadKernels(module, 16 << 20)
    const layers = [layer('x', { picture: { kind: 'colour', colour: '#ff0000' }, matte: [edge(5, 2)], opacity: 0.5 })]
    const paintOnce = (moving: number) => {
      const [still] = layers as [PlannedLayer]
      const plan = {
        size: { width: 64, height: 64 },
        backdrop: null,
        layers: [{ ...still, matte: [edge(5 + moving, 2)] }],
      }
      own.free(renderFrame(own, plan, () => null).ptr)
    }
    // A matte that stands still is kept from its second frame on, and from the third what of it shows alone; moving ones never are.
    for (let i = 0; i < 3; i++) paintOnce(0)
    const before = own.largestFree()
    for (let i = 0; i < 50; i++) paintOnce(0)
    for (let i = 0; i < 50; i++) paintOnce(i / 7)
    expect(own.largestFree()).toBe(before)
  })

  it('keeps a still group, which shows as one that is made anew, and makes it anew for a take that comes late', () => {
    const size = { width: 64, height: 36 }
    const inner: Plan = {
      size,
      backdrop: null,
      layers: [layer('a', { matte: [edge(20, 9)], opacity: 0.7 }), layer('b')],
    }
    const moved = { place: { a: 0.9, b: 0.1, c: -0.1, d: 0.9, x: 3, y: 2 } }
    const plan: Plan = {
      size,
      backdrop: '#000000',
      layers: [layer('g', { picture: { kind: 'group', plan: inner }, ...moved })],
    }
    const [a, b] = [codes(64, 36, 7), codes(64, 36, 8)]
    const early = render(plan, { a })
    expect(Buffer.compare(render(plan, { a }), early)).toBe(0)
    const whole = [1, 2, 3].map(() => render(plan, { a, b }))
    expect(Buffer.compare(whole[0]!, early)).not.toBe(0)
    for (const again of whole) expect(Buffer.compare(again, whole[0]!)).toBe(0)
  })

  it('keeps where a row shows one layer alone, and paints the same by it, however many stripes there are', () => {
    const size = { width: 400, height: 12 }
    const stripes = (count: number) =>
      Array.from({ length: 2 * count }, (_, i) => ({
        ...edge(390 - i * 4, 1),
        join: i % 2 ? ('subtract' as const) : ('add' as const),
      }))
    const [a, b, c] = [codes(400, 12, 1), codes(400, 12, 2), codes(400, 12, 3, false)]
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 45 }),
        fc.constantFrom(0.5, 1),
        fc.integer({ min: 0, max: 400 }),
        (n, o, x) => {
          const layers = [
            layer('c', { matte: [edge(x, 30)] }),
            layer('a', { matte: stripes(n), opacity: o }),
            layer('b'),
          ]
          const plan = { size, backdrop: '#204060', layers }
          const [first, ...others] = [1, 2, 3, 4].map(() => render(plan, { a, b, c }))
          for (const other of others) expect(Buffer.compare(first!, other)).toBe(0)
          // A layer behind that is all hidden changes nothing.
          const more = { ...plan, layers: [...layers, layer('c', { opacity: 0.9 })] }
          expect(Buffer.compare(first!, render(more, { a, b, c }))).toBe(0)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('keeps still mattes within a bound, and what comes of them is the same to the bit', () => {
    const size = { width: 1024, height: 1024 }
    const plan = (x: number): Plan => ({
      size,
      backdrop: '#000000',
      layers: [
        layer('w', {
          picture: { kind: 'colour', colour: '#ffffff' },
          matte: [edge(x, 40), { ...edge(x + 300, 9), join: 'subtract' }],
        }),
      ],
    })
    const free = k.largestFree()
    for (let x = 0; x < 40; x++) {
      const [first, second, third] = [render(plan(x), {}), render(plan(x), {}), render(plan(x), {})]
      expect(Buffer.compare(first, second)).toBe(0)
      expect(Buffer.compare(first, third)).toBe(0)
    }
    expect(k.largestFree()).toBeGreaterThan(free - (64 << 20))
  })
})
