import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isKeyed, type Key, keysOf, moveKey, removeKey, sample, setAt, setEase, setKey, shiftKeys, type Value } from '.'

const keys = (...list: Key<number>[]): Value<number> => ({ keys: list })

describe('sampling', () => {
  const value = keys(
    { frame: 10, value: 0, ease: 'linear' },
    { frame: 20, value: 100, ease: 'smooth' },
    { frame: 30, value: 0, ease: 'hold' },
    { frame: 40, value: 50, ease: 'linear' },
  )
  it.each([
    [0, 0],
    [10, 0],
    [15, 50],
    [20, 100],
    [25, 50],
    [22.5, 100 * (1 - (0.25 ** 2 * 3 - 2 * 0.25 ** 3))],
    [30, 0],
    [39, 0],
    [40, 50],
    [900, 50],
  ])('at %s is %s', (frame, want) => expect(sample(value, frame)).toBeCloseTo(want, 9))

  it('moves the parts of a record together', () => {
    const line: Value<{ x: number; angle: number }> = {
      keys: [
        { frame: 0, value: { x: 0, angle: 10 }, ease: 'linear' },
        { frame: 4, value: { x: 8, angle: -10 }, ease: 'linear' },
      ],
    }
    expect(sample(line, 1)).toEqual({ x: 2, angle: 5 })
  })
})

const anyValue: fc.Arbitrary<Value<number>> = fc.oneof(
  fc.integer({ min: -100, max: 100 }),
  fc
    .uniqueArray(fc.record({ frame: fc.integer({ min: 0, max: 60 }), value: fc.integer({ min: -100, max: 100 }) }), {
      selector: k => k.frame,
      minLength: 1,
      maxLength: 8,
    })
    .map(list => ({ keys: list.sort((a, b) => a.frame - b.frame).map(k => ({ ...k, ease: 'linear' as const })) })),
)

describe('editing', () => {
  it('shows what was set where it was set, and keeps keys in order, one a frame', () => {
    fc.assert(
      fc.property(
        anyValue,
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: -100, max: 100 }),
        (value, frame, to) => {
          for (const next of [setKey(value, frame, to), setAt(value, frame, to)]) {
            expect(sample(next, frame)).toBe(to)
            const frames = keysOf(next).map(k => k.frame)
            expect(frames).toEqual([...new Set(frames)].sort((a, b) => a - b))
          }
          expect(isKeyed(setAt(value, frame, to))).toBe(isKeyed(value))
        },
      ),
    )
  })

  it('leaves the picture alone when a key is set to what is there already', () => {
    fc.assert(
      fc.property(anyValue, fc.integer({ min: 0, max: 60 }), (value, frame) => {
        const next = setKey(value, frame, sample(value, frame))
        if (!isKeyed(value)) return
        for (let f = 0; f <= 60; f += 3) expect(sample(next, f)).toBeCloseTo(sample(value, f), 9)
      }),
    )
  })

  it('removes down to standing still, and moves, eases and shifts', () => {
    const one = setKey<number>(5, 10, 7)
    expect(removeKey(one, 10)).toBe(7)
    expect(removeKey(5, 10)).toBe(5)
    const two = setKey(one, 20, 9, 'hold')
    expect(keysOf(moveKey(two, 10, 20))).toEqual([{ frame: 20, value: 7, ease: 'smooth' }])
    expect(keysOf(moveKey(two, 10, 30)).map(k => k.frame)).toEqual([20, 30])
    expect(keysOf(setEase(two, 20, 'linear'))[1]!.ease).toBe('linear')
    expect(keysOf(shiftKeys(two, -15)).map(k => k.frame)).toEqual([-5, 5])
  })
})
