import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  eased,
  isKeyed,
  type Key,
  keysOf,
  mirrorKeys,
  removeKey,
  retimeKeys,
  sample,
  setAt,
  setEase,
  setKey,
  shiftKeys,
  type Value,
} from '.'

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

it('mixes anything part by part, by a mixer of its own where one is given, and holds what cannot be mixed', () => {
  type Outline = { points: { x: number; y: number }[]; word: string; closed: boolean }
  const outline = (x: number, count: number, word: string): Outline => ({
    points: Array.from({ length: count }, (_, i) => ({ x: x + i, y: i })),
    word,
    closed: true,
  })
  const between = (a: Outline, b: Outline) =>
    sample<Outline>(
      {
        keys: [
          { frame: 0, value: a, ease: 'linear' },
          { frame: 10, value: b, ease: 'linear' },
        ],
      },
      3,
    )
  expect(between(outline(0, 4, 'soft'), outline(10, 4, 'hard'))).toEqual(outline(3, 4, 'soft'))
  expect(between(outline(0, 4, 'soft'), outline(10, 5, 'soft'))).toEqual(outline(0, 4, 'soft'))
  const keyed: Value<string> = {
    keys: [
      { frame: 0, value: 'a', ease: 'linear' },
      { frame: 4, value: 'b', ease: 'linear' },
    ],
  }
  expect(sample(keyed, 1, (a, b, t) => `${a}${b}${t}`)).toBe('ab0.25')
  expect([0, 3, 4].map(frame => sample(keyed, frame))).toEqual(['a', 'a', 'b'])
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
    expect(keysOf(retimeKeys(two, [10], () => 20))).toEqual([{ frame: 20, value: 7, ease: 'smooth' }])
    expect(keysOf(retimeKeys(two, [10], () => 30)).map(k => k.frame)).toEqual([20, 30])
    // Together they may pass over each other's places; copied they stay where they were too.
    expect(keysOf(retimeKeys(two, [10, 20], f => f + 10)).map(k => k.frame)).toEqual([20, 30])
    expect(keysOf(retimeKeys(two, [10, 20], f => f + 15, true)).map(k => k.frame)).toEqual([10, 20, 25, 35])
    // Pressed together the later of those that meet stays.
    expect(keysOf(retimeKeys(two, [10, 20], () => 12))).toMatchObject([{ frame: 12, value: keysOf(two)[1]!.value }])
    expect(retimeKeys(two, [11], () => 0)).toBe(two)
    expect(keysOf(setEase(two, 20, 'linear'))[1]!.ease).toBe('linear')
    expect(keysOf(shiftKeys(two, -15)).map(k => k.frame)).toEqual([-5, 5])
  })
})

describe('a way that is drawn', () => {
  const share = fc.integer({ min: 0, max: 100 }).map(v => v / 100)
  const handles = fc.tuple(share, fc.double({ min: -4, max: 4, noNaN: true }), share, share)

  it('begins and ends at its keys, and is even where its handles lie on the straight', () => {
    fc.assert(
      fc.property(handles, share, (curve, t) => {
        expect(eased({ curve }, 0)).toBeCloseTo(0, 6)
        expect(eased({ curve }, 1)).toBeCloseTo(1, 6)
        expect(eased({ curve: [1 / 3, 1 / 3, 2 / 3, 2 / 3] }, t)).toBeCloseTo(t, 6)
        // Swung beyond by no more than its handles.
        expect(Math.abs(eased({ curve }, t))).toBeLessThanOrEqual(4)
      }),
    )
    expect(eased({ curve: [0.42, 0, 1, 1] }, 0.5)).toBeCloseTo(0.3153, 3)
  })

  it('is gone backwards where keys are turned round', () => {
    fc.assert(
      fc.property(handles, fc.integer({ min: 0, max: 40 }), (curve, frame) => {
        const value = keys({ frame: 0, value: 5, ease: { curve } }, { frame: 40, value: 80, ease: 'hold' })
        expect(sample(mirrorKeys(value, 40), 40 - frame)).toBeCloseTo(sample(value, frame), 6)
      }),
    )
  })
})
