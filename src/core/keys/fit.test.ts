import fc from 'fast-check'
import { expect, it } from 'vitest'
import { linearKeys, placesToKeep, sample } from '.'

const curve = fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 60 })

it('keeps so many places that lines between them lie within what is allowed, of every curve', () => {
  fc.assert(
    fc.property(
      curve,
      fc.double({ min: 0.01, max: 10, noNaN: true }),
      fc.integer({ min: -20, max: 20 }),
      (own, within, first) => {
        const other = own.map((v, i) => Math.sin(i) - v / 3)
        const places = placesToKeep([own, other], [within, within])
        for (const of of [own, other]) {
          const value = { keys: linearKeys(of, first, places) }
          of.forEach((v, i) => {
            expect(Math.abs(sample(value, first + i) - v)).toBeLessThanOrEqual(within + 1e-9)
          })
        }
      },
    ),
  )
})

it('tells a line by its ends, a step by four, and what stands still by one', () => {
  const at = (of: number[]) => placesToKeep([of], [0.1])
  expect(at(Array.from({ length: 50 }, (_, i) => i * 0.7))).toEqual([0, 49])
  expect(at(Array.from({ length: 50 }, (_, i) => (i < 20 ? 0 : 3)))).toEqual([0, 19, 20, 49])
  expect(at(Array.from({ length: 50 }, (_, i) => 0.04 * (i % 2)))).toEqual([0])
  expect(at([])).toEqual([])
})
