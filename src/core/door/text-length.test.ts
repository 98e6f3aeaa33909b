import fc from 'fast-check'
import { expect, it } from 'vitest'
import { textLength } from './text-length'

it('is how long data is as JSON, whatever it is and whenever it is asked', () => {
  const plain = fc.jsonValue({ maxDepth: 5 })
  const odd = fc.record({
    a: fc.constantFrom(undefined, Number.NaN, -0, 1e21, 1e-9),
    b: fc.array(fc.constantFrom(undefined, 1)),
  })
  fc.assert(
    fc.property(fc.oneof(plain, odd), data => {
      expect(textLength(data)).toBe(JSON.stringify(data).length)
      // A part that is known already counts as before.
      expect(textLength({ data, again: [data] })).toBe(JSON.stringify({ data, again: [data] }).length)
    }),
  )
})
