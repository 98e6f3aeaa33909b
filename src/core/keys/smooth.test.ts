// Jitter taken out of keys.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { noise } from '../../testing/kernels'
import { keysOf, sample, smoothKeys, type Value } from '.'

const keyed = <T>(values: readonly T[]): Value<T> => ({
  keys: values.map((value, frame) => ({ frame: frame + 10, value, ease: 'linear' })),
})

it('leaves slow movement where it was, and takes most of what trembles about it', () => {
  fc.assert(
    fc.property(fc.integer(), seed => {
      // White: what is slow of it is movement.
      const jitter = noise(60, 2001, seed).map(v => v / 1000 - 1)
      const slow = (i: number) => ({ x: 100 + 3 * i + 20 * Math.sin(i / 9), y: 50 - 0.05 * i * i, name: 'kept' })
      const shaken = jitter.map((by, i) => ({ ...slow(i), x: slow(i).x + by }))
      const calm = smoothKeys(keyed(shaken))
      const off = (of: Value<(typeof shaken)[0]>) =>
        shaken.map((_, i) => sample(of, 10 + i).x - slow(i).x).reduce((sum, d) => sum + d * d, 0)
      expect(off(calm)).toBeLessThan(0.6 * off(keyed(shaken)))
      for (let i = 0; i < 60; i++) expect(Math.abs(sample(calm, 10 + i).y - slow(i).y)).toBeLessThan(0.4)
      expect(sample(calm, 30).name).toBe('kept')
      expect([keysOf(calm)[0]!.frame, keysOf(calm).at(-1)!.frame]).toEqual([10, 69])
    }),
    { endOnFailure: true },
  )
})

it('leaves what stands still, moves by two keys, or is no number as it is', () => {
  expect(smoothKeys(7)).toBe(7)
  const two = keyed([1, 5])
  expect(smoothKeys(two)).toBe(two)
  const words = keyed(['a', 'b', 'c'])
  expect(smoothKeys(words)).toBe(words)
  const outline = keyed([
    [1, 2],
    [3, 1],
    [1, 2],
  ])
  expect(smoothKeys(outline)).toBe(outline)
})
