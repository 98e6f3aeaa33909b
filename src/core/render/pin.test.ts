// Pictures in perspective, against ones told px by px from a picture that is known everywhere.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { decode, encode, putBytes, testKernels } from '../../testing/kernels'
import { findIn } from '../../testing/planned'
import { type Point, UNMOVED } from '../affine'
import type { PlannedLayer } from '../plan'
import { pinMap, project, type Quad, quadOf, unproject } from '../projective'
import { type Codes, type Kernels, renderFrame } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const size = { width: 150, height: 90 }

/** How bright a picture is anywhere, linear, with so many px to a wave. */
const waves =
  (wave: number) =>
  (x: number, y: number, c: number): number =>
    0.5 + 0.3 * Math.sin((x * 2 * Math.PI) / wave + c) * Math.cos((y * 2 * Math.PI) / wave)

function pictureOf(width: number, height: number, look: ReturnType<typeof waves>): Codes {
  const data = Array.from({ length: width * height * 4 }, (_, i) => {
    const p = i >> 2
    const value = look((p % width) + 0.5, Math.floor(p / width) + 0.5, i % 4)
    return i % 4 === 3 ? 255 : encode(value)
  })
  return { kind: 'codes', width, height, ptr: putBytes(k, data), opaque: true }
}

function pinned(source: Codes, corners: Quad) {
  const box = { left: 0, top: 0, right: source.width, bottom: source.height }
  const layer = {
    id: 'a',
    picture: { kind: 'pinned', picture: { kind: 'take', digest: 'a', seconds: 0 }, box, corners },
    place: UNMOVED,
    opacity: 1,
    blend: 'normal',
    matte: [],
    looks: [],
  } satisfies PlannedLayer
  const made = renderFrame(k, { size, backdrop: null, layers: [layer] }, findIn({ a: source }))
  const out = k.bytes(made.ptr, size.width * size.height * 4).slice()
  k.free(made.ptr)
  return out
}

/** The same by the mean of many samples a px: light and how much of the px is covered. */
function told(source: Codes, look: ReturnType<typeof waves>, corners: Quad) {
  const { width, height } = source
  const back = unproject(pinMap({ left: 0, top: 0, right: width, bottom: height }, corners)!)
  const SAMPLES = 12
  return (x: number, y: number, c: number): { light: number; covered: number } => {
    let [light, covered] = [0, 0]
    for (let j = 0; j < SAMPLES; j++)
      for (let i = 0; i < SAMPLES; i++) {
        const p = project(back, { x: x + (i + 0.5) / SAMPLES, y: y + (j + 0.5) / SAMPLES })
        if (p.x < 0 || p.y < 0 || p.x > width || p.y > height) continue
        covered++
        light += look(p.x, p.y, c)
      }
    return { light: covered ? light / covered : 0, covered: covered / SAMPLES ** 2 }
  }
}

const TURNED_AWAY: Quad = [
  { x: 12.3, y: 8.1 },
  { x: 140.7, y: 30.2 },
  { x: 133.1, y: 61.9 },
  { x: 20.4, y: 84.6 },
]

it.each([
  ['enlarged', 60, 40, 24, TURNED_AWAY],
  ['as large', 150, 90, 14, TURNED_AWAY],
  ['reduced', 620, 420, 40, TURNED_AWAY],
  [
    'seen from behind, lying down',
    200,
    200,
    30,
    [
      { x: 110, y: 10 },
      { x: 40.5, y: 12 },
      { x: -30, y: 85 },
      { x: 170, y: 80 },
    ] as const,
  ],
])('is the picture as its corners see it: %s', (_, width, height, wave, corners) => {
  const look = waves(wave)
  const source = pictureOf(width, height, look)
  const got = pinned(source, corners)
  const truth = told(source, look, corners)
  let [worst, sum, count, rim] = [0, 0, 0, 0]
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const at = (y * size.width + x) * 4
      const { covered } = truth(x, y, 0)
      rim = Math.max(rim, Math.abs(got[at + 3]! / 255 - covered))
      if (covered < 1) continue
      for (let c = 0; c < 3; c++) {
        const off = Math.abs(decode(got[at + c]!) - truth(x, y, c).light)
        worst = Math.max(worst, off)
        sum += off
        count++
      }
    }
  }
  // Samples tell an edge to a twelfth of a px, and beside the border the picture repeats itself.
  expect(rim).toBeLessThan(0.05)
  expect(sum / count).toBeLessThan(0.004)
  expect(worst).toBeLessThan(0.05)
  k.free(source.ptr)
})

it('at its own corners is itself', () => {
  const source = pictureOf(size.width, size.height, waves(9))
  const own = k.bytes(source.ptr, size.width * size.height * 4).slice()
  expect(pinned(source, quadOf({ left: 0, top: 0, right: size.width, bottom: size.height }))).toEqual(own)
  k.free(source.ptr)
})

it('is something sensible wherever its corners lie', () => {
  const source = pictureOf(40, 30, waves(12))
  const anywhere = fc.oneof(fc.double({ min: -200, max: 300, noNaN: true }), fc.constantFrom(-1e6, 1e6, 0, 40, 1e-9))
  const corner: fc.Arbitrary<Point> = fc.record({ x: anywhere, y: anywhere })
  fc.assert(
    fc.property(fc.tuple(corner, corner, corner, corner), corners => {
      const got = pinned(source, corners)
      for (let at = 3; at < got.length; at += 4) {
        // Nothing is brighter than the picture is anywhere.
        if (got[at]! > 8 && got[at - 1]! > 245) throw new Error(`too bright at ${at}`)
      }
    }),
    { numRuns: 150 },
  )
  k.free(source.ptr)
})
