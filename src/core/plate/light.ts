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

/** Cells from one that is looked at to the next, either way, at least; and how many of them are enough. */
const STEP = 3
const ENOUGH = 20_000
/** Codes in which nothing can be told from black or white: what is clipped has no light of its own. */
const DARKEST = 30
const BRIGHTEST = 255 + 14.025 - 12
/** Codes from which on what is added to light is told: it is seen in the dark most of all. */
const DARK = 18

/** Bins of the logarithm of a factor, and how far it may reach either way. */
const BINS = 241
const REACH = 1.2

/** An odd one: what coding does lies in squares of even sides, of which all places are to count alike. */
const stepOf = ({ width, height }: Size): number =>
  Math.max(STEP, 2 * Math.floor(Math.sqrt((width * height) / ENOUGH) / 2) + 1)

/** Codes that kernels may write behind those they are given. */
const SLACK = 4

/** Cells that are looked at, at most. */
const sampled = (size: Size): number => Math.ceil(size.height / stepOf(size)) * Math.ceil(size.width / stepOf(size))

/** Codes of a channel where both show the set, as many of the plate as of the frame. */
interface Pairs {
  from: Plane
  to: Plane
}

/** Red, green and blue where neither is darker than `least` or clipped, until the present scope is left. Throws OutOfMemory. */
function pairsOf(frame: Cells, plate: Cells, busy: Plane | null, least: number): Pairs[] {
  const { k, width, height } = frame
  const room = sampled(frame) + SLACK
  const [planes, counts, out] = [k.alloc(28), k.alloc(12), k.alloc(6 * room * 4)]
  const addresses = [plate, frame].flatMap(({ y, u, v }) => [y, u, v].map(plane => plane.byteOffset))
  k.ints(planes, 7).set([...addresses, busy?.byteOffset ?? 0])
  k.lightPairs({ planes, width, height, step: stepOf(frame), least, most: BRIGHTEST, room, out, counts })
  return Array.from(k.ints(counts, 3), (n, c) => {
    const [from, to] = [0, 1].map(i => k.floats(out + (2 * c + i) * room * 4, n)) as [Plane, Plane]
    return { from, to }
  })
}

/**
 * The gain of `frame` over `plate`, channel by channel: the ratio that most of the picture shares, as `sharedRatio` tells it. `busy`: what is known to be
 * somebody, 0..1 for each cell, or null. Where people fill the picture, what is left of it decides. Throws OutOfMemory.
 */
export function measureGain(frame: Cells, plate: Cells, busy: Plane | null): Gain {
  const { k } = frame
  return k.scope(() => {
    const histogram = k.alloc(BINS * 4)
    const [r, g, b] = pairsOf(frame, plate, busy, DARKEST).map(({ from, to }) => {
      k.ints(histogram, BINS).fill(0)
      const pairs = { from: from.byteOffset, to: to.byteOffset, n: from.length }
      return Math.exp(k.sharedRatio({ ...pairs, reach: REACH, bins: BINS, histogram })) ** (1 / POWER)
    })
    return [r!, g!, b!]
  })
}

/** Steps of what is added that are small enough, of white. */
const TOLD = 1e-5
/** Codes by which what is the set may be off, at least, and count in full; rounds of weighing; samples without which nothing is said. */
const CLOSE = 1
const WEIGHINGS = 5
const FEW = 200

/** What tells a line through lights, as `lightSums` adds it up. */
interface Sums {
  n: number
  a: number
  b: number
  aa: number
  ab: number
  squares: number
  weights: number
}

/**
 * The same with what is added to all of it, such as stray light: least squares in linear light of what both show of the set, each place counted by how sure its code tells
 * light, those that are off counting little (iterated reweighting, Tukey's biweight). Begins with the gain that is known without. `busy`: as there. Throws OutOfMemory.
 */
export function measureLight(frame: Cells, plate: Cells, busy: Plane | null, known: Gain): Light {
  const { k } = frame
  return k.scope(() => {
    const all = pairsOf(frame, plate, busy, DARK).map(({ from, to }) => {
      const [n, lights] = [from.length, k.alloc(from.length * 24)]
      k.pairLights({ from: from.byteOffset, to: to.byteOffset, n, out: lights })
      return { n, lights }
    })
    const sums = k.doubles(k.alloc(7 * 8), 7)
    const summed = (c: number, gain: number, offset: number, reach: number): Sums => {
      k.lightSums({ ...all[c]!, gain, offset, reach, sums: sums.byteOffset })
      const [n = 0, a = 0, b = 0, aa = 0, ab = 0, squares = 0, weights = 0] = sums
      return { n, a, b, aa, ab, squares, weights }
    }
    return all.some(({ n }) => n < FEW) ? { gain: known, offset: 0 } : lineThrough(summed, known)
  })
}

/** The light by which frames stand to their plate, told again and again from those that are near what was told. */
function lineThrough(summed: (c: number, gain: number, offset: number, reach: number) => Sums, known: Gain): Light {
  let gain: Gain = known
  let offset = 0
  let spread = 4
  for (let round = 0; round < WEIGHINGS; round++) {
    const sums = gain.map((g, c) => summed(c, g, offset, 4 * spread))
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
