import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  counter,
  framesIn,
  frameToSample,
  frameToSeconds,
  lengthText,
  nearestRate,
  rateInUse,
  secondsToFrame,
} from './time'

const RATES = [
  { num: 24000, den: 1001 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 60, den: 1 },
]

describe.each(RATES)('at $num / $den', rate => {
  it('comes back from seconds to the same frame, however far in', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1000, max: 2_000_000 }), frame => {
        expect(secondsToFrame(frameToSeconds(frame, rate), rate)).toBe(frame)
        // Any moment inside the frame shows it.
        expect(secondsToFrame(frameToSeconds(frame + 0.98, rate), rate)).toBe(frame)
      }),
    )
  })

  it('shares out every sound sample to exactly one frame', () => {
    let last = 0
    for (let frame = 1; frame <= 3000; frame++) {
      const next = frameToSample(frame, rate, 48_000)
      expect(Math.abs(next - last - (48_000 * rate.den) / rate.num)).toBeLessThan(1)
      last = next
    }
    expect(frameToSample(rate.num, rate, 48_000)).toBe(48_000 * rate.den)
  })

  it('counts the frames that cover a length', () => {
    for (const n of [1, 7, 184]) expect(framesIn(frameToSeconds(n, rate), rate)).toBe(n)
    expect(framesIn(0, rate)).toBe(1)
  })
})

it('recognises rates that containers only give roughly', () => {
  expect(nearestRate(29.97)).toEqual({ num: 30000, den: 1001 })
  expect(nearestRate(30.0001)).toEqual({ num: 30, den: 1 })
  expect(nearestRate(23.976)).toEqual({ num: 24000, den: 1001 })
  expect(nearestRate(17.5)).toEqual({ num: 17500, den: 1000 })
  expect(rateInUse(9.934)).toEqual({ num: 10, den: 1 })
  expect(rateInUse(29.4)).toEqual({ num: 30000, den: 1001 })
  expect(rateInUse(1000)).toEqual({ num: 240, den: 1 })
})

it('writes counters and lengths', () => {
  expect(counter(77, { num: 30, den: 1 })).toBe('00:02:17')
  expect(counter(1800, { num: 30000, den: 1001 })).toBe('01:00:00')
  expect(lengthText(184, { num: 30, den: 1 })).toBe('6 s 04 f')
  // Where a frame lasts longer than a second.
  expect(counter(3, { num: 1, den: 10 })).toBe('00:30:00')
  expect(lengthText(4, { num: 1, den: 1_000_000 })).toBe('4000000 s 00 f')
})
