// Somebody's own colours at a soft border: what is filmed there is half theirs and half the set's.
import { beforeAll, expect, it } from 'vitest'
import { putBytes, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells, type Cells, LIFT } from './cells'
import { cutout } from './cutout'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIZE = { width: 160, height: 120 }
type Rgb = readonly [number, number, number]
const light = (code: number): number => ((code + LIFT) / (255 + LIFT)) ** 2.4
const code = (of: number): number => of ** (1 / 2.4) * (255 + LIFT) - LIFT

/** Of a picture told in codes of red, green and blue. */
function cellsOf(at: (x: number, y: number) => Rgb): Cells {
  const out = blankCells(k, SIZE)
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const [r, g, b] = at(x, y)
      const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
      out.luma[y * SIZE.width + x] = luma + LIFT
      const i = (y >> 1) * out.width + (x >> 1)
      out.y[i]! += (luma + LIFT) / 4
      out.u[i]! += (b - luma) / 1.8556 / 4
      out.v[i]! += (r - luma) / 1.5748 / 4
    }
  }
  return out
}

const COAT: Rgb = [70, 60, 150]
const wall = (x: number, y: number): Rgb => {
  const tone = 150 + 20 * Math.sin(x * 0.3) + 15 * Math.cos(y * 0.23)
  return [tone + 30, tone, tone - 40]
}
/** A body with a border of eight px. */
const covers = (x: number, y: number): number => Math.max(0, Math.min(1, 0.5 + (32 - Math.hypot(x - 80, y - 60)) / 8))
const filmed = (x: number, y: number): Rgb => {
  const a = covers(x, y)
  return wall(x, y).map((set, c) => code(a * light(COAT[c]!) + (1 - a) * light(set))) as unknown as Rgb
}

it('are told apart from the set that shows through', () => {
  const { alpha, colours } = cutout(cellsOf(wall)).next(cellsOf(filmed))
  const soft = [...alpha.keys()].filter(i => alpha[i]! > 0 && alpha[i]! < 255)
  expect(colours.length).toBe(soft.length * 3)
  expect(soft.length).toBeGreaterThan(500)
  let [own, seen] = [0, 0]
  soft.forEach((i, n) => {
    const there = filmed(i % SIZE.width, Math.floor(i / SIZE.width))
    for (let c = 0; c < 3; c++) {
      own += Math.abs(colours[n * 3 + c]! - COAT[c]!) / soft.length / 3
      seen += Math.abs(there[c]! - COAT[c]!) / soft.length / 3
    }
  })
  expect(seen).toBeGreaterThan(30)
  expect(own).toBeLessThan(13)
  // Over black nothing of the bright wall is left.
  let rim = 0
  soft.forEach((i, n) => {
    const a = alpha[i]! / 255
    const shown = code(a * light(colours[n * 3]!))
    const truth = code(covers(i % SIZE.width, Math.floor(i / SIZE.width)) * light(COAT[0]))
    rim += Math.max(0, shown - truth) / soft.length
  })
  expect(rim).toBeLessThan(9)
})

it('are laid out again where they were, two px farther where nobody is, and over what was filmed', () => {
  const [width, height] = [23, 9]
  const alpha = new Uint8Array(width * height)
  const at = (x: number, y: number) => y * width + x
  alpha.fill(255, at(10, 4), at(13, 4))
  alpha[at(9, 4)] = 120
  alpha[at(13, 4)] = 30
  const out = k.alloc(width * height * 4)
  k.spreadColours({
    alpha: putBytes(k, alpha),
    packed: putBytes(k, [200, 100, 50, 10, 20, 30]),
    most: 2,
    width,
    height,
    rings: 2,
    out,
  })
  const made = k.bytes(out, width * height * 4)
  const seen = (x: number, y: number) => [...made.slice(at(x, y) * 4, at(x, y) * 4 + 4)]
  expect(seen(9, 4)).toEqual([200, 100, 50, 255])
  expect(seen(13, 4)).toEqual([10, 20, 30, 255])
  // Those that are wholly somebody's are as they were filmed.
  expect([10, 11, 12].map(x => seen(x, 4)[3])).toEqual([0, 0, 0])
  expect(seen(7, 4)).toEqual([200, 100, 50, 255])
  expect(seen(8, 2)).toEqual([200, 100, 50, 255])
  expect(seen(14, 6)).toEqual([10, 20, 30, 255])
  expect([seen(6, 4)[3], seen(9, 1)[3], seen(16, 4)[3]]).toEqual([0, 0, 0])

  const row = putBytes(
    k,
    Array.from({ length: width * 4 }, () => 7),
  )
  k.overlayRow(row, out + at(0, 4) * 4, width)
  const mixed = k.bytes(row, width * 4)
  for (let x = 0; x < width; x++) {
    const expected = seen(x, 4)[3] === 255 ? seen(x, 4) : [7, 7, 7, 7]
    expect([...mixed.slice(x * 4, x * 4 + 4)]).toEqual(expected)
  }
})
