// Planes for an encoder: handed on as they came where one take shows alone, made of the finished picture elsewhere.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { filmPicture } from '../../testing/film'
import { noise, testKernels } from '../../testing/kernels'
import { plannedEdge as edge, findIn, plannedLayer as layer } from '../../testing/planned'
import { UNMOVED } from '../affine'
import type { Plan } from '../plan'
import { type Kernels, type Picture, type Planes, planesLength, renderPlanes, toCodesPicture } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** A smooth picture with grain, so that chroma that is made anew comes out near what it was. */
function film(width: number, height: number, seed: number, changes: Partial<Planes> = {}): Planes {
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1]
  const grain = noise(width * height + 2 * cw * ch, 3, seed)
  const begins = [0, width * height, width * height + cw * ch]
  const code = (plane: 0 | 1 | 2, x: number, y: number) =>
    plane === 0 ? 90 + grain[y * width + x]! + x : 110 + grain[begins[plane]! + y * cw + x]!
  return filmPicture(k, width, height, code, changes)
}

function planes(plan: Plan, pictures: Record<string, Picture>): Uint8Array {
  const size = { width: plan.size.width & ~1, height: plan.size.height & ~1 }
  const length = planesLength(size.width, size.height)
  const out = k.alloc(length)
  renderPlanes(k, plan, findIn(pictures), size, out)
  const made = k.bytes(out, length).slice()
  k.free(out)
  return made
}

const bytesOf = ({ ptr, width, height }: Planes): Uint8Array => k.bytes(ptr, planesLength(width, height)).slice()

it('hands on a take that shows alone, to the bit', () => {
  const a = film(96, 20, 3)
  const plan = { size: { width: 96, height: 20 }, backdrop: '#000000', layers: [layer('a')] }
  expect(planes(plan, { a })).toEqual(bytesOf(a))
  // Moved by whole blocks too; the rest is the backdrop, black.
  const moved = { ...plan, layers: [layer('a', { place: { ...UNMOVED, x: 32, y: 4 } })] }
  const got = planes(moved, { a })
  for (let y = 0; y < 16; y++) {
    expect(got.slice((y + 4) * 96 + 32, (y + 5) * 96)).toEqual(bytesOf(a).slice(y * 96, y * 96 + 64))
  }
  expect(new Set(got.slice(0, 4 * 96))).toEqual(new Set([16]))
})

it.each([
  ['another matrix', { matrix: 'bt601' }],
  ['the full range', { fullRange: true }],
  ['chroma elsewhere', { chroma: { across: 'between', down: 'between' } }],
] as const)('makes planes anew of a take with %s, as of any picture of its codes', (_, changes) => {
  const a = film(64, 12, 4, changes)
  const plan = { size: { width: 64, height: 12 }, backdrop: '#000000', layers: [layer('a')] }
  expect(planes(plan, { a })).toEqual(planes(plan, { a: toCodesPicture(k, a) }))
})

it('gives the luma of planes that are made anew, where it hands them on too', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 120 }),
      fc.integer({ min: 2, max: 21 }),
      fc.double({ min: -40, max: 140, noNaN: true }),
      fc.double({ min: 0, max: 6.3, noNaN: true }),
      fc.constantFrom(0, 3, 12),
      fc.constantFrom(0, 1, 2, 7, 16),
      (width, height, x, angle, feather, shift) => {
        const [a, b] = [film(width, height, 5), film(width, height, 6)]
        const size = { width, height }
        const place = { ...UNMOVED, x: shift }
        const layers = [layer('a', { matte: [edge(x, feather, { y: 10, angle })] }), layer('b', { place })]
        const plan = { size, backdrop: '#203040', layers }
        const got = planes(plan, { a, b })
        const anew = planes(plan, { a: toCodesPicture(k, a), b: toCodesPicture(k, b) })
        const luma = (width & ~1) * (height & ~1)
        for (let i = 0; i < luma; i++) {
          const px = i % (width & ~1)
          const py = Math.floor(i / (width & ~1))
          // Where both layers mix nothing is handed on; elsewhere codes are at most rounded.
          const along = (px + 0.5 - x) * Math.cos(angle) + (py + 0.5 - 10) * Math.sin(angle)
          expect(Math.abs(got[i]! - anew[i]!)).toBeLessThanOrEqual(Math.abs(along) < feather - 1 ? 0 : 2)
        }
      },
    ),
    { numRuns: 60 },
  )
})
