// The shop's sound: a room, two clocks, and a voice that says nothing in particular.
import type { Clip } from './acts'
import { chance } from './chance'

export const SAMPLE_RATE = 48_000

/** A two-pole resonator (Klatt, Software for a Cascade/Parallel Formant Synthesizer, 1980). */
function resonator(frequency: number, bandwidth: number): (x: number) => number {
  const r = Math.exp((-Math.PI * bandwidth) / SAMPLE_RATE)
  const b = 2 * r * Math.cos((2 * Math.PI * frequency) / SAMPLE_RATE)
  const c = -r * r
  let y1 = 0
  let y2 = 0
  return x => {
    const y = (1 - b - c) * x + b * y1 + c * y2
    y2 = y1
    y1 = y
    return y
  }
}

/** Formants of some vowels, Hz. */
const VOWELS = [
  [730, 1090, 2440],
  [530, 1840, 2480],
  [300, 2250, 2900],
  [570, 840, 2410],
  [440, 1020, 2240],
] as const

function say(out: Float32Array, at: number, pitch: number, seed: number): void {
  const next = chance(seed)
  const syllables = 7
  let start = at
  for (let s = 0; s < syllables; s++) {
    const length = 0.13 + next() * 0.1
    const vowel = VOWELS[Math.floor(next() * VOWELS.length)]!
    const formants = vowel.map((f, i) => resonator(f, 70 + i * 40))
    const high = pitch * (1.1 - (0.25 * s) / syllables + next() * 0.12)
    let phase = 0
    const from = Math.round(start * SAMPLE_RATE)
    const count = Math.round(length * SAMPLE_RATE)
    for (let i = 0; i < count && from + i < out.length; i++) {
      const t = i / count
      phase += (high * (1 - 0.1 * t)) / SAMPLE_RATE
      const pulse = (phase % 1) ** 3 - 0.25
      const breath = (next() - 0.5) * (t < 0.12 ? 0.7 : 0.04)
      const voiced = formants.reduce((sum, f, k) => sum + f(pulse + breath) / (k + 1), 0)
      out[from + i]! += voiced * Math.sin(Math.PI * Math.min(1, t * 1.05)) ** 0.7 * 0.42
    }
    start += length + (s === 3 ? 0.16 : 0.02)
  }
}

function tick(out: Float32Array, at: number, pitch: number, level: number): void {
  const ring = resonator(pitch, 90)
  const body = resonator(pitch * 0.31, 200)
  const from = Math.round(at * SAMPLE_RATE)
  for (let i = 0; i < 2400 && from + i < out.length; i++) {
    const strike = i < 24 ? 1 - i / 24 : 0
    out[from + i]! += (ring(strike) * 2.4 + body(strike)) * level
  }
}

/** A struck bell: some inharmonic partials, each dying away at its own pace. */
function ring(out: Float32Array, at: number): void {
  const from = Math.round(at * SAMPLE_RATE)
  const partials = [
    [1180, 1, 1.1],
    [2390, 0.6, 0.7],
    [3160, 0.35, 0.4],
    [4720, 0.2, 0.25],
  ] as const
  for (let i = 0; from + i < out.length; i++) {
    const t = i / SAMPLE_RATE
    const strike = Math.min(1, i / 40)
    for (const [frequency, level, decay] of partials) {
      out[from + i]! += 0.22 * level * strike * Math.exp(-t / decay) * Math.sin(2 * Math.PI * frequency * t)
    }
  }
}

/** Left and right of a clip. */
export function clipSound(
  seconds: number,
  { lines, bell, seed }: Pick<Clip, 'lines' | 'bell' | 'seed'>,
): [Float32Array, Float32Array] {
  const n = Math.round(seconds * SAMPLE_RATE)
  const next = chance(seed)
  const middle = new Float32Array(n)
  for (let s = 0, i = 0; s < seconds; s += 0.5, i++) tick(middle, s, i % 2 ? 1750 : 2300, 0.5)
  for (let s = 0.21; s < seconds; s += 0.37) tick(middle, s, 3400, 0.12)
  for (const line of lines) say(middle, line.at, line.pitch, seed * 31)
  if (bell !== undefined) ring(middle, bell)
  const side = () => {
    const low = resonator(120, 160)
    const out = new Float32Array(n)
    for (let i = 0; i < n; i++) out[i] = middle[i]! + low(next() - 0.5) * 0.02 + (next() - 0.5) * 0.002
    return out
  }
  return [side(), side()]
}
