// How much grain footage has, so that what stands beside it can be given as much.
import { type Grain, grainSize } from '../look/grain'
import { type Cells, LIFT } from './cells'
import { Counts, LARGEST, MAD } from './counts'

/** Codes at which dark ends and light begins. */
const [DARK, LIGHT] = [85, 170]
/** σ beyond which px have moved and are left out, at first and then. */
const [AT_FIRST, BEYOND] = [6, 3.5]
const ROUNDS = 4
/** Of so small a share of the px nothing is told. */
const FEW = 0.01
/** Of so many rows one is looked at. */
const STEP = 4
/** What v adds to red (ITU-R BT.709), and what grain of its own in each channel makes of red − luma and of luma. */
const RED_V = 1.5748
const [OWN_RED, OWN_LUMA] = [1.137, 0.567]

/** Differences of some rows of two planes, as large as the grain of one of them is. */
function differences(one: Float32Array, other: Float32Array, width: number): Float32Array {
  const rows = Math.ceil(one.length / width / STEP)
  const out = new Float32Array(rows * width)
  for (let row = 0; row < rows; row++) {
    const from = row * STEP * width
    for (let x = 0; x < width; x++) out[row * width + x] = (one[from + x]! - other[from + x]!) * Math.SQRT1_2
  }
  return out
}

/** By how much px differ that have moved, at least: seen from where the middle half of them lies. */
function movedFrom(values: Float32Array): number {
  const counts = new Counts()
  for (const d of values) counts.add(Math.abs(d))
  return Math.min(LARGEST, Math.max(2, AT_FIRST * MAD * counts.median()))
}

/** The variance of differences about nought, and of how many it is told: what has moved is left out, at first what differs by `moved`. */
function spreadOf(values: Float32Array, moved: number): { variance: number; count: number } {
  let most = moved
  let told = { variance: 0, count: 0 }
  for (let round = 0; round < ROUNDS; round++) {
    let [sum, count] = [0, 0]
    for (let i = 0; i < values.length; i++) {
      const d = values[i]!
      if (d > most || d < -most) continue
      sum += d * d
      count++
    }
    told = { variance: count > 0 ? sum / count : 0, count }
    most = Math.min(moved, Math.max(1, BEYOND * Math.sqrt(told.variance)))
  }
  return told
}

const varianceOf = (values: Float32Array): number => spreadOf(values, movedFrom(values)).variance

/** How much neighbours along rows are alike, -1..1. */
function likeness(values: Float32Array, width: number, variance: number): number {
  const most = BEYOND * Math.sqrt(variance)
  let [sum, count] = [0, 0]
  for (let i = 1; i < values.length; i++) {
    const [d, before] = [values[i]!, values[i - 1]!]
    if (i % width === 0 || Math.abs(d) > most || Math.abs(before) > most) continue
    sum += d * before
    count++
  }
  return count > 0 && variance > 0 ? sum / count / variance : 0
}

/** Differences of px that are dark, neither, and light. */
function byBrightness({ full: { width }, luma }: Cells, values: Float32Array): Float32Array[] {
  const rooms = [0, 1, 2].map(() => new Float32Array(values.length))
  const counts = [0, 0, 0]
  for (let i = 0, at = 0; i < values.length; at += STEP * width) {
    for (let x = 0; x < width; x++, i++) {
      const code = luma[at + x]! - LIFT
      const bin = code < DARK ? 0 : code < LIGHT ? 1 : 2
      rooms[bin]![counts[bin]!++] = values[i]!
    }
  }
  return rooms.map((room, bin) => room.subarray(0, counts[bin]))
}

/** The grain of two frames of one take in the same light (photon transfer), told from what differs where nothing moves. */
export function grainBetween(one: Cells, other: Cells): Grain {
  const { width } = one.full
  const luma = differences(one.luma, other.luma, width)
  const moved = movedFrom(luma)
  const all = spreadOf(luma, moved).variance
  const [dark, middle, light] = byBrightness(one, luma).map(those => {
    // Where most of the dark walks about, it tells nothing of the dark.
    const { variance, count } = spreadOf(those, moved)
    return Math.sqrt(count < FEW * luma.length || count < those.length / 2 ? all : variance)
  })
  const cells = varianceOf(differences(one.y, other.y, one.width))
  const red = varianceOf(differences(one.v, other.v, one.width)) * RED_V ** 2
  const ratio = cells > 0 ? red / cells : 0
  return {
    dark: dark!,
    middle: middle!,
    light: light!,
    size: grainSize(likeness(luma, width, all)),
    // What is seen of channels' own grain in red − luma, against luma's.
    colour: Math.min(1, ratio / (OWN_RED + (1 - OWN_LUMA) * ratio)),
  }
}
