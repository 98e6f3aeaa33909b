import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../testing/documents'
import { frameToSample } from '../time'
import { mixdown, peakBetween, peaksOf, resampler, sounds, toStereo } from '.'

const RATE = 48_000
const NONE = { in: 0, out: 0 }

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
        testLayer(0, { span: { from: 3, to: 20 }, timing: { kind: 'play', from: 0.5, speed: 1, mixed: null } }),
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
            fade: NONE,
          },
        }),
        testLayer(2, { sound: { on: false, gain: 1, fade: NONE } }),
        testLayer(3, { on: false }),
      ],
      rate,
    )
    const total = frameToSample(50, rate, RATE)
    const [whole] = await mixdown(shot, RATE, 0, total, read)
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
          const [piece] = await mixdown(shot, RATE, from, n, read)
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
      sound: { on: true, gain: 0.5, fade: NONE },
    })
    const [heard] = await mixdown(testShot([group]), RATE, 0, frameToSample(70, inner.rate, RATE), read)
    const start = frameToSample(15, inner.rate, RATE)
    expect(heard[start - 1]).toBe(0)
    expect(heard[start]).toBeCloseTo(0.05, 6)
    expect(heard[start + 7]).toBeCloseTo(0.5 * (0.1 + 7e-5), 6)
  })
})

const play = (from: number, speed: number) => ({ kind: 'play' as const, from, speed, mixed: null })

/** A tone in a take of ten seconds: 480 Hz, its loudness growing with the second. */
const tone = async (_: string, from: number, count: number): Promise<[Float32Array, Float32Array]> => {
  const value = (i: number) => (i < 0 || i >= 480_000 ? 0 : Math.sin((2 * Math.PI * i) / 100) * 0.5)
  const side = Float32Array.from({ length: count }, (_, i) => value(from + i))
  return [side, side.slice()]
}

/** How often a sound goes up through nothing in a second. */
const pitch = (sound: Float32Array): number => {
  let ups = 0
  for (let i = 1; i < sound.length; i++) if (sound[i - 1]! < 0 && sound[i]! >= 0) ups++
  return (ups * RATE) / sound.length
}

describe('time in the mix', () => {
  const heard = async (changes: object, from: number, count: number) => {
    const shot = testShot([testLayer(0, { span: { from: 0, to: 100 }, ...changes })])
    return (await mixdown(shot, RATE, from, count, tone))[0]
  }

  it.each([
    [0.5, 240],
    [2, 960],
    [-1, 480],
    [-0.25, 120],
  ])('at speed %s a tone of 480 Hz is one of %s', async (speed, want) => {
    const sound = await heard({ timing: play(speed < 0 ? 6 : 1, speed) }, 9600, 24_000)
    expect(pitch(sound)).toBeCloseTo(want, -1)
    expect(Math.max(...sound)).toBeCloseTo(0.5, 1)
  })

  it('is silent where it is frozen or beyond the take', async () => {
    expect((await heard({ timing: { kind: 'freeze', at: 2 } }, 0, 4800)).every(v => v === 0)).toBe(true)
    expect((await heard({ timing: play(9.9, 1) }, 48_000, 4800)).every(v => v === 0)).toBe(true)
    expect(sounds(testShot([testLayer(0, { timing: { kind: 'freeze', at: 0 } })]))).toBe(false)
  })

  it('repeats a loop sample by sample, and lets the ends of passes dissolve', async () => {
    const loop = { kind: 'loop', from: 1, to: 1.4, style: 'cut', over: 0, speed: 1, begun: 0 } as const
    const cut = await heard({ timing: loop }, 0, 60_000)
    expect(cut.subarray(19_200, 38_400)).toEqual(cut.subarray(0, 19_200))
    const soft = await heard({ timing: { ...loop, style: 'dissolve', over: 2 } }, 0, 60_000)
    // Two passes of the same tone at the same phase add up to what they were.
    expect(Math.max(...soft.subarray(15_360, 19_200))).toBeCloseTo(0.5, 2)
    const swing = await heard({ timing: { ...loop, style: 'swing' } }, 0, 40_000)
    expect(pitch(swing.subarray(18_500, 36_000))).toBeCloseTo(480, -1)
  })

  it('fades sample by sample', async () => {
    const sound = { on: true, gain: 1, fade: { in: 25, out: 50 } }
    const mix = await heard({ sound }, 0, 192_000)
    const loud = (at: number) => Math.max(...mix.subarray(at, at + 200))
    expect(loud(24_000)).toBeCloseTo(0.25, 2)
    expect(loud(60_000)).toBeCloseTo(0.5, 2)
    expect(loud(144_000)).toBeCloseTo(0.25, 2)
    expect(mix[191_999]!).toBeCloseTo(0, 3)
  })

  it('comes out the same in whatever pieces it is asked for', async () => {
    const layers = [
      testLayer(0, { span: { from: 0, to: 90 }, timing: play(0.3, 0.37) }),
      testLayer(1, { span: { from: 10, to: 90 }, timing: play(7, -1.6) }),
      testLayer(2, {
        span: { from: 5, to: 80 },
        timing: { kind: 'loop', from: 2, to: 2.5, style: 'dissolve', over: 4, speed: 1.5, begun: 3 },
      }),
    ]
    const group = testLayer(3, {
      source: { kind: 'group', shot: testShot(layers) },
      timing: play(0.1, 1.25),
      span: { from: 2, to: 70 },
    })
    const shot = testShot([...layers, group])
    const [whole] = await mixdown(shot, RATE, 0, 150_000, tone)
    for (const [from, count] of [
      [0, 1],
      [1919, 7000],
      [77_777, 4321],
      [149_000, 1000],
    ] as const) {
      const [piece] = await mixdown(shot, RATE, from, count, tone)
      for (let i = 0; i < count; i += 13) expect(piece[i]).toBeCloseTo(whole[from + i]!, 5)
    }
  })
})

it('sounds a hundredfold the same whether it is asked for by a quarter of a second or by half of that', async () => {
  // A recording so slow that a hundredfold it is a tone of 480 Hz.
  const slow = async (_: string, from: number, count: number): Promise<[Float32Array, Float32Array]> => {
    const side = Float32Array.from({ length: count }, (_, i) => Math.sin((2 * Math.PI * (from + i)) / 10_000) * 0.5)
    return [side, side.slice()]
  }
  const shot = testShot([testLayer(0, { span: { from: 0, to: 100 }, timing: play(0, 100) })])
  const [quarter] = await mixdown(shot, RATE, 0, 12_000, slow)
  const [half] = await mixdown(shot, RATE, 6000, 6000, slow)
  expect(pitch(quarter)).toBeCloseTo(480, -1)
  for (let i = 0; i < 6000; i += 97) expect(half[i]).toBeCloseTo(quarter[6000 + i]!, 4)
})

it('tells how loud a recording is, in whatever pieces it comes', () => {
  const meter = peaksOf(RATE)
  const samples = Float32Array.from({ length: RATE * 2 }, (_, i) => (i >= 50_000 && i < 50_100 ? -0.8 : 0.1))
  for (let at = 0; at < samples.length; at += 7777) meter.add(samples.subarray(at, at + 7777), at)
  expect(meter.length()).toBe(200)
  const peaks = meter.slice(0)
  expect(peakBetween(peaks, 1.03, 1.06)).toBeCloseTo(0.8, 2)
  expect(peakBetween(peaks, 1.5, 1.2)).toBeCloseTo(0.1, 2)
  expect(peakBetween(peaks, 7, 9)).toBe(0)
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
