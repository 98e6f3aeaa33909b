// Panels, fills and letters as pictures, against plain arithmetic and many samples.
import { beforeAll, describe, expect, it } from 'vitest'
import { testShot } from '../../testing/documents'
import { decode, encode, testKernels } from '../../testing/kernels'
import { corner } from '../outline'
import { planFrame, planView } from '../plan'
import { type Kernels, renderFrame } from '../render'
import { openRings } from '../shape'
import { type Layer, makeLettering, makePanel } from '../shot'
import type { Letters } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const [WIDTH, HEIGHT] = [64, 36]

const square = (from: number, to: number, turned = false) => {
  const points = [
    [from, from],
    [to, from],
    [to, to],
    [from, to],
  ].map(([x, y]) => corner({ x: x!, y: y! }))
  return turned ? points.reverse() : points
}

/** A letter that is a frame: a square of an em with a hole in it. */
const LETTERS: Letters = {
  kind: 'letters',
  ascent: 1,
  descent: 0,
  lines: [{ width: 1, letters: 1, glyphs: [{ outline: 0, x: 0, y: -1, after: 0 }] }],
  lacks: '',
  outlines: [[square(0, 1), square(0.25, 0.75, true)]],
}

function shown(layer: Layer, backdrop = '#000000', scale = 1): (x: number, y: number) => number[] {
  const shot = { ...testShot([layer]), backdrop }
  const made = renderFrame(k, planFrame(shot, 0, scale), need => ('letters' in need ? LETTERS : null))
  const bytes = k.bytes(made.ptr, made.width * made.height * 4).slice()
  k.free(made.ptr)
  return (x, y) => [...bytes.subarray((y * made.width + x) * 4, (y * made.width + x) * 4 + 3)]
}

const base = testShot([])
const panel = (changes: object, shape: 'box' | null = null): Layer => {
  const layer = makePanel(base, shape)
  return { ...layer, source: { ...layer.source, ...changes } as Layer['source'] }
}

describe('a panel', () => {
  it('covers everything with exactly its colour', () => {
    const at = shown(panel({ fill: { kind: 'plain', colour: '#123456' } }))
    for (const [x, y] of [
      [0, 0],
      [63, 35],
    ] as const)
      expect(at(x, y)).toEqual([0x12, 0x34, 0x56])
  })

  it('goes from one colour to another, straight or round, and lets through what it says', () => {
    const stops = [
      { at: 0, colour: '#ffffff', opacity: 1 },
      { at: 1, colour: '#ffffff', opacity: 0 },
    ]
    const straight = shown(
      panel({ fill: { kind: 'gradient', form: 'straight', from: { x: 0, y: 0 }, to: { x: 64, y: 0 }, stops } }),
    )
    for (const x of [0, 15, 32, 63]) {
      const light = 1 - (x + 0.5) / 64
      for (const v of straight(x, 9)) expect(Math.abs(v - encode(light))).toBeLessThanOrEqual(1)
    }
    const round = shown(
      panel({ fill: { kind: 'gradient', form: 'round', from: { x: 32, y: 18 }, to: { x: 32, y: 28 }, stops } }),
    )
    expect(round(32, 18)[0]).toBeGreaterThan(240)
    expect(round(42, 18)[0]).toBeLessThan(10)
    expect(Math.abs(round(32 + 5, 18)[0]! - encode(1 - Math.hypot(5.5, 0.5) / 10))).toBeLessThanOrEqual(1)
  })

  it('mixes colours evenly to the eye: halfway as the mean of square roots of light', () => {
    const stops = [
      { at: 0, colour: '#000000', opacity: 1 },
      { at: 1, colour: '#ff0000', opacity: 1 },
    ]
    const at = shown(
      panel({ fill: { kind: 'gradient', form: 'straight', from: { x: 0, y: 0 }, to: { x: 64, y: 0 }, stops } }),
    )
    expect(Math.abs(at(32, 0)[0]! - encode((32.5 / 64) ** 2))).toBeLessThanOrEqual(1)
    expect(at(63, 0)[0]).toBeGreaterThan(250)
    expect(at(63, 0)[1]).toBe(0)
  })

  it('has a line round its form and a shadow behind that, also where it is seen through', () => {
    const border = { colour: '#00ff00', opacity: 1, width: 3 }
    const shadow = { colour: '#0000ff', opacity: 1, x: 6, y: 0, soft: 0 }
    const layer = panel({ fill: { kind: 'plain', colour: '#ff0000' }, border, shadow }, 'box')
    // The box is 18 px wide, in the middle.
    const at = shown(layer)
    expect([at(32, 18), at(21, 18), at(45, 18), at(10, 18)]).toEqual([
      [255, 0, 0],
      [0, 255, 0],
      [0, 0, 255],
      [0, 0, 0],
    ])
    // Half of it is half of what it is, with no line seen through it.
    const half = shown({ ...layer, opacity: 0.5 })
    expect(Math.abs(half(32, 18)[0]! - encode(0.5))).toBeLessThanOrEqual(1)
    expect(half(32, 18)[1]).toBe(0)
    // Its matte is that of all its parts, and nothing else.
    const plan = planView(planFrame({ ...testShot([{ ...layer, opacity: 0.5 }]) }, 0), 'matte', layer.id)
    const matte = renderFrame(k, plan, () => null)
    const bytes = k.bytes(matte.ptr, WIDTH * HEIGHT * 4)
    expect([32, 21, 45, 10].map(x => bytes[(18 * WIDTH + x) * 4])).toEqual([255, 255, 255, 0])
    k.free(matte.ptr)
    expect(Math.abs(half(21, 18)[1]! - encode(0.5))).toBeLessThanOrEqual(1)
  })
})

describe('lettering', () => {
  const word = (changes: object = {}, place = { x: 32, y: 18, scale: 1, angle: 0 }): Layer => {
    const layer = makeLettering(base, 'x', ['a'.repeat(64)])
    const values = { size: 16, spacing: 0, leading: 1 }
    return {
      ...layer,
      place,
      source: { ...layer.source, values, fill: { kind: 'plain', colour: '#ffffff' }, ...changes } as Layer['source'],
    }
  }

  it('covers exactly what its outlines wind round, holes left out', () => {
    const at = shown(word())
    // An em of 16 px about the middle; its hole is half of that.
    expect([at(24, 10), at(39, 25), at(32, 18), at(23, 18), at(27, 13)]).toEqual([
      [255, 255, 255],
      [255, 255, 255],
      [0, 0, 0],
      [0, 0, 0],
      [255, 255, 255],
    ])
    const shifted = shown(word({}, { x: 32.25, y: 18, scale: 1, angle: 0 }))
    expect(Math.abs(shifted(24, 18)[0]! - encode(0.75))).toBeLessThanOrEqual(1)
  })

  it('is as sharp at any scale, turned or not, and in a smaller preview', () => {
    const at = shown(word({}, { x: 32, y: 18, scale: 2, angle: 90 }))
    expect([at(16, 18), at(15, 18), at(25, 18), at(32, 18)].map(([r]) => r)).toEqual([255, 0, 0, 0])
    const small = shown(word(), '#000000', 0.5)
    expect([small(12, 9)[0], small(11, 9)[0], small(16, 9)[0]]).toEqual([255, 0, 0])
  })

  it('has a line and a shadow, the line in its holes too', () => {
    const border = { colour: '#00ff00', opacity: 1, width: 2 }
    const shadow = { colour: '#0000ff', opacity: 0.5, x: 0, y: 14, soft: 0 }
    const at = shown(word({ border, shadow }))
    expect([at(22, 18), at(29, 18), at(32, 18), at(25, 11)]).toEqual([
      [0, 255, 0],
      [0, 255, 0],
      [0, 0, 0],
      [255, 255, 255],
    ])
    expect(Math.abs(at(26, 33)[2]! - encode(0.5))).toBeLessThanOrEqual(1)
    expect(decode(at(26, 33)[0]!)).toBe(0)
  })

  it('shows nothing without its font, and nothing where it says nothing', () => {
    const shot = testShot([word()])
    const made = renderFrame(k, planFrame(shot, 0), () => null)
    expect(new Set(k.bytes(made.ptr, WIDTH * HEIGHT * 4).filter((_, i) => i % 4 < 3))).toEqual(new Set([0]))
    k.free(made.ptr)
    expect(shown(word({ fill: null }))(24, 10)).toEqual([0, 0, 0])
  })
})

it('several rings are one shape: nothing is nearer to one than to the other in the middle between them', () => {
  const free = k.largestFree()
  const row = k.scope(() => {
    const out = k.alloc(WIDTH * 4)
    const right = square(4, 14).map(p => ({ ...p, x: p.x + 14 }))
    const soft = { grow: 0, inside: 0, outside: 4 }
    openRings(k, [square(4, 14), right], soft, { width: WIDTH, height: HEIGHT }).row(9, out)
    return [...k.floats(out, WIDTH)]
  })
  const ramp = (d: number) => (1 - d / 4) ** 2 * (3 - 2 * (1 - d / 4))
  // From 14 to 18 lies nothing but feather, of both of them.
  for (const [x, d] of [
    [14, 0.5],
    [15, 1.5],
    [16, 1.5],
    [17, 0.5],
    [29, 1.5],
  ] as const)
    expect(Math.abs(row[x]! - ramp(d))).toBeLessThan(0.02)
  expect([row[5], row[20], row[40]]).toEqual([1, 1, 0])
  expect(k.largestFree()).toBe(free)
})
