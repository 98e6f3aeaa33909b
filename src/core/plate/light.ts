// How a take's light differs from its plate's.
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import { type Part, type Plane, partAt, placed, pxOf, whole } from './plane'
import type { Tones } from './steady'

/** What each channel is multiplied by, in linear light: red, green, blue. */
export type Gain = readonly [number, number, number]

/** ITU-R BT.709 luma of red, green, blue, and what blue and red differ from it by, in u and v of full range. */
const [KR, KG, KB] = [0.2126, 0.7152, 0.0722]
const CB = 2 * (1 - KB)
const CR = 2 * (1 - KR)

/** How the light of a frame stands to its plate's: multiplied, channel by channel, and then added to, both linear. */
export interface Light {
  gain: Gain
  /** Of white. */
  offset: number
}

/** In lifted codes a factor of light is this power of it. */
export const POWER = 1 / 2.4
/** Codes at white, as they are lifted. */
const WHITE = 255 + 14.025
/** Entries of a channel's table. */
const TABLE = 1200

const linearOf = (code: number): number => (code / WHITE) ** (1 / POWER)

/** How (y, u, v) in lifted codes become those of another light: three rows of a matrix. */
function lightMatrix(gain: Gain): number[] {
  const g = gain.map(v => v ** POWER)
  // Red, green and blue as y, u and v make them, and back.
  const rgb = [
    [1, 0, CR],
    [1, (-KB * CB) / KG, (-KR * CR) / KG],
    [1, CB, 0],
  ]
  const luma = [KR, KG, KB]
  const out: number[] = []
  const row = (weights: number[]) => {
    for (let c = 0; c < 3; c++) out.push(weights.reduce((sum, w, i) => sum + w * g[i]! * rgb[i]![c]!, 0))
  }
  row(luma)
  row(luma.map((w, i) => ((i === 2 ? 1 : 0) - w) / CB))
  row(luma.map((w, i) => ((i === 0 ? 1 : 0) - w) / CR))
  return out
}

/** What lifted codes become in another light, by quarters: red, green and blue, one behind another. */
function lightTables({ gain, offset }: Light): Float32Array {
  const out = new Float32Array(3 * TABLE)
  for (let i = 0; i < TABLE; i++) {
    const light = linearOf(i / 4)
    gain.forEach((g, c) => {
      out[c * TABLE + i] = WHITE * Math.max(0, g * light + offset) ** POWER
    })
  }
  return out
}

/** The y, u and v of a plate in another light. Throws OutOfMemory. */
export function tonesInLight({ k, y, u, v }: Cells, light: Light, out: Tones): void {
  k.scope(() => {
    const from = { y: y.byteOffset, u: u.byteOffset, v: v.byteOffset, n: y.length }
    const to = { outY: out.y.byteOffset, outU: out.u.byteOffset, outV: out.v.byteOffset }
    if (light.offset === 0) k.lightCells({ ...from, ...to, matrix: placed(k, lightMatrix(light.gain)) })
    else k.veilCells({ ...from, ...to, tables: placed(k, lightTables(light)) })
  })
}

/** The luma of part of a plate in another light, at `out`, rows close together. Throws OutOfMemory. */
export function lumaInLight(plate: Cells, part: Part, light: Light, out: Plane): void {
  const { k, u, v, luma, width: cells, full } = plate
  const { x, y, width, height } = pxOf(part, full)
  k.scope(() => {
    const tones = { u: partAt(u, cells, part), v: partAt(v, cells, part), cells }
    const from = { ...tones, luma: luma.byteOffset + (y * full.width + x) * 4, step: full.width, width, height }
    const to = { out: out.byteOffset }
    if (light.offset === 0) k.lightLuma({ ...from, ...to, matrix: placed(k, lightMatrix(light.gain)) })
    else k.veilLuma({ ...from, ...to, tables: placed(k, lightTables(light)) })
  })
}

/** A plate in another light. Throws OutOfMemory. */
export function inLight(plate: Cells, light: Light, out: Cells): void {
  tonesInLight(plate, light, out)
  lumaInLight(plate, whole(plate), light, out.luma)
}

/** Light of lifted codes, by sixteenths: powers take their time. */
const FINE = 16
const LINEAR = Float64Array.from({ length: Math.ceil(WHITE) * FINE + 2 }, (_, i) => linearOf(i / FINE))

/** The same as `linearOf`, within some millionths of it, of codes that are not clipped. */
function quickLinear(code: number): number {
  const at = code * FINE
  const i = at | 0
  return LINEAR[i]! + (at - i) * (LINEAR[i + 1]! - LINEAR[i]!)
}

/** Cells from one that is looked at to the next, either way, at least; and how many of them are enough. */
const STEP = 5
const ENOUGH = 8000
/** Codes in which nothing can be told from black or white: what is clipped has no light of its own. */
const DARKEST = 30
const BRIGHTEST = 255 + 14.025 - 12
/** Codes from which on what is added to light is told: it is seen in the dark most of all. */
const DARK = 18

/** What u and v add to y for red, green and blue. */
const CHANNELS = [
  [0, CR],
  [(-KB * CB) / KG, (-KR * CR) / KG],
  [CB, 0],
] as const

/** Bins of the logarithm of a factor, and how far it may reach either way. */
const BINS = 241
const REACH = 1.2
/** Steps of the mode that are small enough. */
const SETTLED = 2e-5

const stepOf = ({ width, height }: Size): number => Math.max(STEP, Math.round(Math.sqrt((width * height) / ENOUGH)))

/** Cells that are looked at, at most. */
const sampled = (size: Size): number => Math.ceil(size.height / stepOf(size)) * Math.ceil(size.width / stepOf(size))

/** The codes of each channel of plate and frame where both show the set and neither is darker than `least` or clipped. */
function eachPair(
  frame: Cells,
  plate: Cells,
  busy: Float32Array | null,
  least: number,
  use: (channel: number, plate: number, frame: number) => void,
): void {
  const { width, height } = frame
  const step = stepOf(frame)
  const [py, pu, pv, fy, fu, fv] = [plate.y, plate.u, plate.v, frame.y, frame.u, frame.v]
  for (let y = 1; y < height; y += step) {
    for (let x = 1, i = y * width + 1; x < width; x += step, i += step) {
      if (busy && busy[i]! > 0.02) continue
      const [p, pb, pr, f, fb, fr] = [py[i]!, pu[i]!, pv[i]!, fy[i]!, fu[i]!, fv[i]!]
      for (let c = 0; c < 3; c++) {
        const [cu, cv] = CHANNELS[c]!
        const a = p + cu! * pb + cv! * pr
        const b = f + cu! * fb + cv! * fr
        if (a >= least && b >= least && a <= BRIGHTEST && b <= BRIGHTEST) use(c, a, b)
      }
    }
  }
}

const three = <T>(one: () => T): [T, T, T] => [one(), one(), one()]

/**
 * The gain of `frame` over `plate`, channel by channel: the ratio that most of the picture shares (the mode of a histogram of its
 * logarithm), made finer by iterated reweighting (Tukey's biweight). `busy`: what is known to be somebody, 0..1 for each cell, or
 * null. Where people fill the picture, what is left of it decides.
 */
export function measureGain(frame: Cells, plate: Cells, busy: Float32Array | null): Gain {
  const most = sampled(frame)
  const all = three(() => ({ ratios: new Float32Array(most), bins: new Float64Array(BINS), count: 0 }))
  eachPair(frame, plate, busy, DARKEST, (c, a, b) => {
    const r = Math.log(b / a)
    if (r >= REACH || r <= -REACH) return
    const channel = all[c]!
    channel.ratios[channel.count++] = r
    channel.bins[(((r + REACH) / (2 * REACH)) * (BINS - 1) + 0.5) | 0]!++
  })
  const [r, g, b] = all.map(
    ({ ratios, bins, count }) => Math.exp(modeOf(ratios.subarray(0, count), bins)) ** (1 / POWER),
  )
  return [r!, g!, b!]
}

/** Steps of what is added that are small enough, of white. */
const TOLD = 1e-5
/** Codes by which what is the set may be off, at least, and count in full; rounds of weighing; samples without which nothing is said. */
const CLOSE = 1
const WEIGHINGS = 5
const FEW = 200

/** Light of plate and frame at some places, linear, and by how much the latter grows with its code. */
interface Samples {
  from: Float64Array
  to: Float64Array
  slope: Float64Array
}

/** What tells a line through samples, those that are off by `reach` codes and more left out, others counted by how near and how sure they are. */
function summed({ from, to, slope }: Samples, gain: number, offset: number, reach: number) {
  let [n, a, b, aa, ab, squares, weights] = [0, 0, 0, 0, 0, 0, 0]
  for (let i = 0; i < from.length; i++) {
    const [p, q, s] = [from[i]!, to[i]!, slope[i]!]
    const off = (q - gain * p - offset) / s
    const t = off / reach
    if (t >= 1 || t <= -1) continue
    const share = (1 - t * t) ** 2
    const w = share / (s * s)
    squares += share * off * off
    weights += share
    n += w
    a += w * p
    b += w * q
    aa += w * p * p
    ab += w * p * q
  }
  return { n, a, b, aa, ab, squares, weights }
}

/**
 * The same with what is added to all of it, such as stray light: least squares in linear light of what both show of the set, each place counted by how sure its code tells
 * light, those that are off counting little (iterated reweighting, Tukey's biweight). Begins with the gain that is known without. `busy`: as there.
 */
export function measureLight(frame: Cells, plate: Cells, busy: Float32Array | null, known: Gain): Light {
  const most = sampled(frame)
  const counts = [0, 0, 0]
  const rooms = three((): Samples => {
    const [from, to, slope] = three(() => new Float64Array(most))
    return { from, to, slope }
  })
  eachPair(frame, plate, busy, DARK, (c, a, b) => {
    const { from, to, slope } = rooms[c]!
    const [at, light] = [counts[c]!++, quickLinear(b)]
    from[at] = quickLinear(a)
    to[at] = light
    slope[at] = light / (POWER * b)
  })
  const all = rooms.map(({ from, to, slope }, c): Samples => {
    const told = (values: Float64Array) => values.subarray(0, counts[c]!)
    return { from: told(from), to: told(to), slope: told(slope) }
  })
  if (all.some(({ from }) => from.length < FEW)) return { gain: known, offset: 0 }
  let gain: Gain = known
  let offset = 0
  let spread = 4
  for (let round = 0; round < WEIGHINGS; round++) {
    const sums = all.map((samples, c) => summed(samples, gain[c]!, offset, 4 * spread))
    // One sum is added to all channels; each has a gain of its own.
    const top = sums.reduce((sum, { a, b, aa, ab }) => sum + b - (a * ab) / aa, 0)
    const bottom = sums.reduce((sum, { n, a, aa }) => sum + n - (a * a) / aa, 0)
    const next = top / bottom
    if (!Number.isFinite(next)) return { gain: known, offset: 0 }
    const moved = Math.abs(next - offset)
    offset = next
    gain = sums.map(({ a, aa, ab }) => (ab - offset * a) / aa) as unknown as Gain
    const [squares, weights] = (['squares', 'weights'] as const).map(of => sums.reduce((sum, s) => sum + s[of], 0))
    spread = Math.max(CLOSE, Math.sqrt(squares! / weights!))
    if (moved < TOLD) break
  }
  return gain.every(g => g > 0 && Number.isFinite(g)) ? { gain, offset } : { gain: known, offset: 0 }
}

/** Light that is added from which on it is worth a word, of white: less is within what coding does to the dark. */
export const VEIL = 0.0005

/** How the light of frames stands to their plate's: with what is added to it where that is more than nothing over most of them. */
export function lightsOf(frames: readonly { gain: Gain; veiled: Light }[]): Light[] {
  const offsets = frames.map(f => f.veiled.offset).sort((a, b) => a - b)
  const isVeiled = Math.abs(offsets[offsets.length >> 1] ?? 0) >= VEIL
  return frames.map(({ gain, veiled }) => (isVeiled ? veiled : { gain, offset: 0 }))
}

function modeOf(ratios: Float32Array, bins: Float64Array): number {
  if (ratios.length < 50) return 0
  let best = 0
  let most = -1
  for (let i = 2; i < BINS - 2; i++) {
    const n = bins[i - 2]! + 2 * bins[i - 1]! + 3 * bins[i]! + 2 * bins[i + 1]! + bins[i + 2]!
    if (n > most) [best, most] = [i, n]
  }
  let at = (best / (BINS - 1)) * 2 * REACH - REACH
  let spread = 0.03
  for (let round = 0; round < 8; round++) {
    let sum = 0
    let weights = 0
    let squares = 0
    for (let i = 0; i < ratios.length; i++) {
      const r = ratios[i]!
      const d = (r - at) / (4 * spread)
      if (Math.abs(d) >= 1) continue
      const w = (1 - d * d) ** 2
      sum += w * r
      weights += w
      squares += w * (r - at) ** 2
    }
    if (weights === 0) break
    const moved = sum / weights - at
    at += moved
    if (Math.abs(moved) < SETTLED) break
    spread = Math.max(0.004, Math.min(0.03, Math.sqrt(squares / weights)))
  }
  return at
}
