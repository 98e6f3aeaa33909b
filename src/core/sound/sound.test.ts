import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../testing/documents'
import { frameToSample } from '../time'
import { mixdown, resampler, soundParts, toStereo } from '.'

const RATE = 48_000

/** Every take sounds as its own sample numbers, a million apart, in millionths. */
const read = async (digest: string, from: number, count: number): Promise<[Float32Array, Float32Array]> => {
  const value = (i: number) => (from + i < 0 ? 0 : (digest.charCodeAt(0) - 96) * 0.1 + ((from + i) % 1000) * 1e-5)
  const side = Float32Array.from({ length: count }, (_, i) => value(i))
  return [side, side.slice()]
}

describe('the mix', () => {
  it('has every sample of every layer at its place and gain, whatever pieces it is asked in', async () => {
    const rate = { num: 30000, den: 1001 }
    const shot = testShot(
      [
        testLayer(0, { span: { from: 3, to: 20 }, timing: { kind: 'play', from: 0.5 } }),
        testLayer(1, {
          span: { from: -2, to: 40 },
          sound: {
            on: true,
            gain: {
              keys: [
                { frame: 0, value: 0, ease: 'linear' },
                { frame: 10, value: 1, ease: 'hold' },
              ],
            },
          },
        }),
        testLayer(2, { sound: { on: false, gain: 1 } }),
        testLayer(3, { on: false }),
      ],
      rate,
    )
    const parts = soundParts(shot, RATE)
    const total = frameToSample(50, rate, RATE)
    const [whole] = await mixdown(parts, 0, total, read)
    const first = frameToSample(3, rate, RATE)
    for (const at of [0, 1, first - 1, first, first + 777, frameToSample(20, rate, RATE), total - 1]) {
      const a = at >= first && at < frameToSample(20, rate, RATE) ? 0.1 + ((24_000 + at - first) % 1000) * 1e-5 : 0
      const gain = Math.min(1, (at * 30000) / 1001 / RATE / 10)
      const skipped = Math.round((2 * 1001 * RATE) / 30000)
      const b = at < frameToSample(40, rate, RATE) ? (0.2 + ((skipped + at) % 1000) * 1e-5) * gain : 0
      expect(whole[at]).toBeCloseTo(a + b, 5)
    }
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: total - 1 }),
        fc.integer({ min: 1, max: 5000 }),
        async (from, count) => {
          const n = Math.min(count, total - from)
          const [piece] = await mixdown(parts, from, n, read)
          expect(piece).toEqual(whole.slice(from, from + n))
        },
      ),
      { numRuns: 20 },
    )
  })

  it('hears a group as its layers, at the place of the group', async () => {
    const inner = testShot([testLayer(0, { span: { from: 5, to: 50 } })])
    const group = testLayer(1, {
      source: { kind: 'group', shot: inner },
      span: { from: 10, to: 60 },
      sound: { on: true, gain: 0.5 },
    })
    const [heard] = await mixdown(soundParts(testShot([group]), RATE), 0, frameToSample(70, inner.rate, RATE), read)
    const start = frameToSample(15, inner.rate, RATE)
    expect(heard[start - 1]).toBe(0)
    expect(heard[start]).toBeCloseTo(0.05, 6)
    expect(heard[start + 7]).toBeCloseTo(0.5 * (0.1 + 7e-5), 6)
  })
})

describe('resampling', () => {
  it.each([8000, 44_100, 96_000])('keeps a tone from %s Hz', rate => {
    const tone = (i: number, at: number) => Math.sin((2 * Math.PI * 440 * i) / at)
    const { from, count, run } = resampler(rate, RATE, 48_000, 2000)
    const got = run(Float32Array.from({ length: count }, (_, i) => tone(from + i, rate)))
    for (let i = 0; i < 2000; i += 37) expect(got[i]).toBeCloseTo(tone(48_000 + i, RATE), 2)
  })
})

it('folds channels to two', () => {
  const ones = (v: number) => new Float32Array(3).fill(v)
  expect(toStereo([ones(0.5)])[1]![0]).toBe(0.5)
  const [left, right] = toStereo([ones(0.1), ones(0.2), ones(0.1), ones(9), ones(0.1), ones(0)])
  expect(left[0]).toBeCloseTo(0.1 + 0.2 * Math.SQRT1_2, 6)
  expect(right[0]).toBeCloseTo(0.2 + 0.1 * Math.SQRT1_2, 6)
})
