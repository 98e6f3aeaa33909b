// What was measured of a take, applied to its layers: the light comes to the plate's, the set stands still.
import { expect, it } from 'vitest'
import { testLayer, testProject } from '../../../testing/documents'
import { carry } from '../../affine'
import { isKeyed, keysOf, sample } from '../../keys'
import { placeMap } from '../place'
import type { Layer, Shot } from '../types'
import { matchLight, matchLightAt, type Shift, steadyLayer } from './measured'

const rate = { num: 25, den: 1 }
const MIDDLE = { x: 32, y: 18 }

function shown(changes: Partial<Layer> = {}): { shot: Shot; layer: () => Layer } {
  const { shot } = testProject([testLayer(0, { span: { from: 5, to: 45 }, ...changes })])
  shot.rate = rate
  return { shot, layer: () => shot.layers[0]! }
}

const lit = (r: number, g: number, b: number, offset = 0) => ({ gain: [r, g, b], offset }) as const

const gainOf = ({ looks }: Layer, frame: number): number[] => {
  const { exposure, red, blue } = looks[0]!.values
  const stops = [exposure, red, blue].map(v => sample(v!, frame)) as [number, number, number]
  return [2 ** (stops[0] + stops[1]), 2 ** stops[0], 2 ** (stops[0] + stops[2])]
}

it('multiplies light by what was measured the other way round, by as few keys as tell it', () => {
  const { shot, layer } = shown()
  const values = Array.from({ length: 60 }, (_, i) => lit(1 + i * 0.002, 1, 0.9))
  matchLight(shot, 'layer-0', { rate, values })
  for (const frame of [5, 20, 44]) {
    gainOf(layer(), frame).forEach((gain, c) => {
      expect(gain * values[frame - 5]!.gain[c]!).toBeCloseTo(1, 2)
    })
  }
  const { red, exposure } = layer().looks[0]!.values
  expect(keysOf(red!).length).toBeLessThan(6)
  expect(isKeyed(exposure!)).toBe(false)
  // Once more changes nothing, and no second look comes to it.
  const before = structuredClone(layer().looks)
  matchLight(shot, 'layer-0', { rate, values })
  expect(layer().looks).toEqual(before)
})

it('matches the frame that a layer shows, whatever its timing, and stays within what a document may hold', () => {
  const values = Array.from({ length: 60 }, (_, i) => (i < 10 ? lit(1, 1, 1) : lit(2, 2, 2)))
  const frozen = shown({ timing: { kind: 'freeze', at: 20.5 / 25 } })
  matchLight(frozen.shot, 'layer-0', { rate, values })
  expect(frozen.layer().looks[0]!.values.exposure).toBe(-1)
  const dark = shown()
  matchLight(dark.shot, 'layer-0', { rate: null, values: [lit(1e-9, 1, 1)] })
  expect(dark.layer().looks[0]!.values.red).toBe(2)
  const locked = shown({ locked: true })
  matchLight(locked.shot, 'layer-0', { rate, values })
  expect(locked.layer().looks).toEqual([])
})

it('takes away what was added to all of the light, after it is multiplied', () => {
  const { shot, layer } = shown()
  const values = Array.from({ length: 60 }, (_, i) => lit(0.8, 0.8, 0.8, 0.004 + i * 0.0001))
  matchLight(shot, 'layer-0', { rate, values })
  for (const frame of [5, 20, 44]) {
    const { gain, offset } = values[frame - 5]!
    const added = sample(layer().looks[0]!.values.offset!, frame) / 100
    // Of light of the plate, as it is seen and brought back.
    const seen = 0.3 * gain[1] + offset
    expect(seen * gainOf(layer(), frame)[1]! + added).toBeCloseTo(0.3, 3)
  }
  matchLight(shot, 'layer-0', { rate, values: values.map(() => lit(0.8, 0.8, 0.8, 99)) })
  expect(layer().looks[0]!.values.offset).toBe(-20)
})

it('matches what was measured at some frames only, evenly between them and still beyond', () => {
  const { shot, layer } = shown()
  matchLightAt(shot, 'layer-0', [
    { frame: 10, light: lit(1, 1, 1) },
    { frame: 30, light: lit(2, 2, 2) },
  ])
  const at = (frame: number) => gainOf(layer(), frame)[1]!
  expect(at(5)).toBeCloseTo(1, 2)
  expect(at(20)).toBeCloseTo(1 / 1.5, 2)
  expect(at(44)).toBeCloseTo(0.5, 2)
  matchLightAt(shot, 'nobody', [{ frame: 0, light: lit(1, 1, 1) }])
})

it.each([
  ['as it lies', {}],
  ['scaled and turned', { place: { x: 40, y: 10, scale: 0.5, angle: 30 } }],
  ['mirrored', { flip: { across: true, down: false }, anchor: { x: 5, y: 30 } }],
])('lets every place of the set lie where the plate has it, %s', (_, changes) => {
  const { shot, layer } = shown(changes as Partial<Layer>)
  const still = structuredClone(layer())
  const shift = (i: number): Shift => ({ x: i < 12 ? 0 : 2.5, y: i * 0.05, turn: i * 0.0004, scale: 1 + i * 0.0003 })
  const values = Array.from({ length: 60 }, (_, i) => shift(i))
  steadyLayer(shot, 'layer-0', { rate, values }, MIDDLE)
  for (const frame of [5, 16, 17, 30, 44]) {
    const { x, y, turn, scale } = values[frame - 5]!
    for (const [px, py] of [
      [0, 0],
      [64, 36],
      [20, 30],
    ] as const) {
      const [dx, dy] = [px - MIDDLE.x, py - MIDDLE.y]
      const inPlate = {
        x: MIDDLE.x + scale * (Math.cos(turn) * dx - Math.sin(turn) * dy) + x,
        y: MIDDLE.y + scale * (Math.sin(turn) * dx + Math.cos(turn) * dy) + y,
      }
      const wanted = carry(placeMap(still, sample(still.place, 0)), inPlate)
      const found = carry(placeMap(layer(), sample(layer().place, frame)), { x: px, y: py })
      expect(Math.hypot(found.x - wanted.x, found.y - wanted.y)).toBeLessThan(0.1)
    }
  }
  const before = structuredClone(layer().place)
  steadyLayer(shot, 'layer-0', { rate, values }, MIDDLE)
  expect(layer().place).toEqual(before)
})
