// Light told from frames whose light is known: multiplied, and added to.
import { beforeAll, describe, expect, it } from 'vitest'
import { encode, putBytes, testKernels } from '../../testing/kernels'
import { cloth, grainOf } from '../../testing/texture'
import type { Kernels } from '../render'
import { blankCells } from './cells'
import { type Gain, inLight, measureGain, measureLight } from './light'
import { planeIn } from './plane'
import { readCells } from './read-cells'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const size = { width: 320, height: 200 }

/** A set from dark to bright, in some light, with somebody before it. */
function cellsOf(gain: Gain, offset: number, somebody: boolean) {
  const grain = grainOf()
  const data = new Uint8Array(size.width * size.height * 4)
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const at = (y * size.width + x) * 4
      const set = (cloth(x, y) / 260) ** 2 * (0.05 + (0.9 * x) / size.width)
      const isHidden = somebody && x > 120 && x < 180
      for (let c = 0; c < 3; c++) {
        const light = isHidden ? 0.02 + 0.1 * (y / 200) : set * [1, 0.9, 0.8][c]! * gain[c]! + offset
        data[at + c] = Math.max(0, Math.min(255, Math.round(encode(Math.max(0, Math.min(1, light))) + 1.5 * grain())))
      }
      data[at + 3] = 255
    }
  }
  const cells = blankCells(k, size)
  const ptr = putBytes(k, data)
  readCells(k, { kind: 'codes', ...size, ptr, opaque: true }, cells)
  k.free(ptr)
  return cells
}

describe('light', () => {
  it.each([
    ['as it was', [1, 1, 1], 0],
    ['brighter and warmer', [1.2, 1.1, 1.02], 0],
    ['under a veil', [1, 1, 1], 0.006],
    ['darker, under a veil', [0.8, 0.82, 0.9], 0.01],
    ['deeper in the dark', [1.05, 1, 1], -0.002],
  ] as const)('is told by gain and offset while somebody hides a part: %s', (_, gain, offset) => {
    const plate = cellsOf([1, 1, 1], 0, false)
    const frame = cellsOf(gain, offset, true)
    const found = measureLight(frame, plate, null, measureGain(frame, plate, null))
    expect(Math.abs(found.offset - offset)).toBeLessThan(0.0004)
    for (const [c, g] of gain.entries()) expect(Math.abs(found.gain[c]! / g - 1)).toBeLessThan(0.006)
  })

  it('is put onto a plate so that it is what was filmed in it', () => {
    const [plate, frame] = [cellsOf([1, 1, 1], 0, false), cellsOf([0.9, 1, 1.1], 0.01, false)]
    const lit = blankCells(k, size)
    inLight(plate, { gain: [0.9, 1, 1.1], offset: 0.01 }, lit)
    for (const of of ['y', 'u', 'v', 'luma'] as const) {
      const off = Array.from(frame[of], (code, i) => Math.abs(code - lit[of][i]!)).sort((a, b) => a - b)
      // Both have grain: in the middle, and at worst where the dark of the plate has lost its codes.
      expect(off[off.length >> 1]).toBeLessThan(1.6)
      expect(off[Math.floor(off.length * 0.98)]).toBeLessThan(9)
    }
  })

  it('adds nothing where there is too little to tell', () => {
    const plate = cellsOf([1, 1, 1], 0, false)
    const busy = planeIn(k, plate.width * plate.height).fill(1)
    expect(measureLight(plate, plate, busy, [1, 2, 3])).toEqual({ gain: [1, 2, 3], offset: 0 })
  })
})
