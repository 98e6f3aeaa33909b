// Pictures as cells, and what light does to them.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { filmPicture } from '../../testing/film'
import { noise, testKernels } from '../../testing/kernels'
import { type Codes, type Kernels, type Planes, toCodesPicture } from '../render'
import type { Size } from '../shot/types'
import { blankCells, type Cells, LIFT } from './cells'
import { cellsPicture } from './cells-picture'
import { inLight } from './light'
import { canShrink, readCells, readSmaller } from './read-cells'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

type Rgb = readonly [number, number, number]

/** A picture of one colour. */
function plain(width: number, height: number, colour: Rgb): Codes {
  const ptr = k.alloc(width * height * 4)
  k.bytes(ptr, width * height * 4).set(
    Array.from({ length: width * height * 4 }, (_, i) => (i % 4 === 3 ? 255 : colour[i % 4]!)),
  )
  return { kind: 'codes', width, height, ptr, opaque: true }
}

const cellsOf = (width: number, height: number, colour: Rgb) => {
  const cells = blankCells(k, { width, height })
  readCells(k, plain(width, height, colour), cells)
  return cells
}

function rgbaOf(cells: Cells): Uint8Array {
  const { ptr, width, height } = cellsPicture(cells)
  const bytes = k.bytes(ptr, width * height * 4).slice()
  k.free(ptr)
  return bytes
}

const codes = fc.integer({ min: 20, max: 215 })
const colours = fc.tuple(codes, codes, codes)
const sides = fc.integer({ min: 2, max: 33 })

it('of any size and colour come back as the picture that they were', () => {
  fc.assert(
    fc.property(sides, sides, colours, (width, height, colour) =>
      k.scope(() => {
        const cells = cellsOf(width, height, colour)
        expect([cells.width, cells.height]).toEqual([(width + 1) >> 1, (height + 1) >> 1])
        const [r, g, b] = colour
        expect(Math.abs(cells.y[0]! - LIFT - 0.2126 * r - 0.7152 * g - 0.0722 * b)).toBeLessThan(1.2)
        const back = rgbaOf(cells)
        const off = back.map((v, i) => Math.abs(v - (i % 4 === 3 ? 255 : colour[i % 4]!)))
        expect(Math.max(...off)).toBeLessThanOrEqual(3)
      }),
    ),
  )
})

it('read planes of full and of limited range alike', () => {
  k.scope(() => {
    const planesOf = (y: number, u: number, v: number, fullRange: boolean): Planes => {
      const ptr = k.alloc(16 + 4 + 4 + 96)
      k.bytes(ptr, 16).fill(y)
      k.bytes(ptr + 48, 4).fill(u)
      k.bytes(ptr + 84, 4).fill(v)
      return {
        kind: 'planes',
        width: 4,
        height: 4,
        ptr,
        offsets: [0, 48, 84],
        strides: [4, 2, 2],
        halfColumns: 1,
        halfRows: 1,
        chroma: { across: 'even', down: 'between' },
        matrix: 'bt709',
        fullRange,
      }
    }
    const [full, limited] = [blankCells(k, { width: 4, height: 4 }), blankCells(k, { width: 4, height: 4 })]
    readCells(k, planesOf(128, 168, 88, true), full)
    readCells(k, planesOf(16 + (128 * 219) / 255, 128 + (40 * 224) / 255, 128 - (40 * 224) / 255, false), limited)
    for (const name of ['y', 'u', 'v', 'luma'] as const)
      expect(Math.abs(full[name][3]! - limited[name][3]!)).toBeLessThan(1.2)
    expect([full.luma[5], full.u[0], full.v[3]].map(v => Math.round(v!))).toEqual([142, 40, -40])
  })
})

/** Colours that go over into each other. */
const film = (width: number, height: number, changes: Partial<Planes> = {}): Planes =>
  filmPicture(
    k,
    width,
    height,
    (plane, x, y) => {
      const by = [9, 6, 8][plane]!
      return plane === 0
        ? 120 + 40 * Math.sin(x / by) * Math.cos(y / by)
        : 128 + 24 * Math.sin(x / by) * Math.cos(y / by)
    },
    changes,
  )

it.each([
  [{ matrix: 'bt709' }],
  [{ matrix: 'bt601' }],
  [{ matrix: 'bt2020', fullRange: true }],
  [{ chroma: { across: 'between', down: 'even' } }],
] as const)('of a film by %o are seen as that film is', changes => {
  k.scope(() => {
    const picture = film(46, 30, changes as Partial<Planes>)
    const cells = blankCells(k, picture)
    readCells(k, picture, cells)
    const seen = toCodesPicture(k, picture)
    const off = rgbaOf(cells).map((v, i) => Math.abs(v - k.bytes(seen.ptr, 46 * 30 * 4)[i]!))
    expect(Math.max(...off)).toBeLessThanOrEqual(3)
    k.free(seen.ptr)
  })
})

it('below black and above white, where films have room, are those of a still of it', () => {
  const chroma = fc.integer({ min: 96, max: 160 })
  fc.assert(
    fc.property(chroma, chroma, fc.integer({ min: 33, max: 70 }), fc.boolean(), (u, v, width, fullRange) =>
      k.scope(() => {
        const picture = filmPicture(k, width, 5, (plane, x) => [(x * 255) / (width - 1), u, v][plane]!, { fullRange })
        const still = toCodesPicture(k, picture)
        const [seen, shown] = [blankCells(k, picture), blankCells(k, picture)]
        readCells(k, picture, seen)
        readCells(k, still, shown)
        k.free(still.ptr)
        for (const name of ['luma', 'y', 'u', 'v'] as const) {
          const off = seen[name].map((code, i) => Math.abs(code - shown[name][i]!))
          expect(Math.max(...off)).toBeLessThan(3)
        }
      }),
    ),
  )
})

it('of a still that is made smaller are those of the film that it was taken from', () => {
  k.scope(() => {
    const picture = film(93, 61)
    const still = toCodesPicture(k, picture)
    const [one, other] = [blankCells(k, { width: 40, height: 26 }), blankCells(k, { width: 40, height: 26 })]
    readSmaller(k, picture, one)
    readSmaller(k, still, other)
    k.free(still.ptr)
    for (const name of ['luma', 'y', 'u', 'v'] as const) {
      const off = one[name].map((v, i) => other[name][i]! - v)
      expect(Math.abs(off.reduce((sum, v) => sum + v, 0) / off.length)).toBeLessThan(0.1)
      expect(Math.max(...off.map(Math.abs))).toBeLessThan(1.5)
    }
  })
})

it('in another light are what the camera would have seen in it', () => {
  const gains = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.6, max: 1.3, noNaN: true }))) as fc.Arbitrary<
    [number, number, number]
  >
  const linear = (code: number) => ((code / 255 + 0.055) / 1.055) ** 2.4
  const coded = (light: number) => 255 * (1.055 * light ** (1 / 2.4) - 0.055)
  fc.assert(
    fc.property(colours, gains, (colour, gain) =>
      k.scope(() => {
        const there = colour.map((code, c) => coded(linear(code) * gain[c]!)) as unknown as Rgb
        const out = blankCells(k, { width: 6, height: 4 })
        inLight(cellsOf(6, 4, colour), { gain, offset: 0 }, out)
        const back = rgbaOf(out)
        for (let c = 0; c < 3; c++) expect(Math.abs(back[c]! - Math.min(255, there[c]!))).toBeLessThan(4)
      }),
    ),
  )
})

it('made smaller are the means of what they cover', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 8, max: 41 }),
      fc.integer({ min: 8, max: 30 }),
      fc.double({ min: 0.3, max: 1, noNaN: true }),
      fc.integer({ min: 1, max: 1e6 }),
      (width, height, share, seed) =>
        k.scope(() => {
          const [across, down] = [(width + 1) >> 1, (height + 1) >> 1]
          const chroma = across * down
          // Colours that pictures can show.
          const codes = noise(width * height + 2 * chroma, 64, seed).map(code => code + 96)
          const picture = filmPicture(
            k,
            width,
            height,
            (plane, x, y) =>
              codes[[0, width * height, width * height + chroma][plane]! + y * (plane === 0 ? width : across) + x]!,
            { fullRange: true },
          )
          const out = blankCells(k, { width: Math.ceil(width * share), height: Math.ceil(height * share) })
          expect(canShrink(picture, out)).toBe(true)
          readSmaller(k, picture, out)
          const mean = (from: number, size: Size, to: Size, x: number, y: number) => {
            const [wide, high] = [size.width / to.width, size.height / to.height]
            let [sum, all] = [0, 0]
            for (let v = 0; v < size.height; v++)
              for (let u = 0; u < size.width; u++) {
                const within = (at: number, side: number, i: number) =>
                  Math.max(0, Math.min(at + 1, (i + 1) * side) - Math.max(at, i * side))
                const weight = within(u, wide, x) * within(v, high, y)
                sum += codes[from + v * size.width + u]! * weight
                all += weight
              }
            return sum / all
          }
          for (let i = 0; i < out.luma.length; i += 7) {
            const [x, y] = [i % out.full.width, Math.floor(i / out.full.width)]
            expect(out.luma[i]! - LIFT).toBeCloseTo(mean(0, picture, out.full, x, y), 1)
          }
          const i = out.u.length - 1
          const place = [i % out.width, Math.floor(i / out.width)] as const
          const half = { width: across, height: down }
          expect(out.u[i]! + 128).toBeCloseTo(mean(width * height, half, out, ...place), 1)
          expect(out.v[i]! + 128).toBeCloseTo(mean(width * height + chroma, half, out, ...place), 1)
        }),
    ),
  )
})
