// Two pictures of one set: the light between them, and where they differ.
import { beforeAll, expect, it } from 'vitest'
import { decode, encode, putBytes, testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { comparer } from './between'

const SIZE = { width: 96, height: 64 }

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** A wall in some light, with a box of another colour on it from `box` px on. */
function picture(gain: readonly number[], box: number | null) {
  const bytes: number[] = []
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const isBox = box !== null && x >= box && x < box + 20 && y > 16 && y < 48
      const wall = [120 + 30 * Math.sin(x * 0.2), 110 + 20 * Math.cos(y * 0.3), 100 + 15 * Math.sin(x * 0.1 + y * 0.2)]
      const lit = wall.map((v, c) => encode(Math.min(1, decode(Math.round(v)) * gain[c]!)))
      bytes.push(...(isBox ? [20, 60, 200] : lit.map(Math.round)), 255)
    }
  }
  return { kind: 'codes', ...SIZE, ptr: putBytes(k, bytes), opaque: true } as const
}

it('tells the gain that most of the picture shares, and what differs in the same light', async () => {
  const compare = comparer(await k.apart(2 ** 22), SIZE)
  const gain = [1.08, 1, 0.93]
  compare.readOne(k, picture(gain, 10))
  compare.readOther(k, picture([1, 1, 1], 60))
  const found = compare.between()
  gain.forEach((g, c) => {
    expect(Math.abs(found.gain[c]! / g - 1)).toBeLessThan(0.01)
  })
  const { width } = compare.cells
  const cell = (of: Float32Array, x: number, y: number) => of[(y >> 1) * width + (x >> 1)]!
  // Where both show the wall they agree once the light is matched; where one shows the box they do not.
  for (const [x, y] of [
    [4, 4],
    [46, 30],
    [88, 60],
  ] as const) {
    expect(cell(found.matched, x, y)).toBeLessThan(2.5)
    expect(cell(found.plain, x, y)).toBeGreaterThan(2.5)
  }
  for (const x of [20, 70]) expect(cell(found.matched, x, 32)).toBeGreaterThan(60)
})
