// How much grain footage has, so that what stands beside it can be given as much.
import { type Grain, grainSize } from '../look/grain'
import { type Cells, LIFT } from './cells'

/** Codes at which dark ends and light begins. */
const [DARK, LIGHT] = [85, 170]
/** Codes that differ by more have moved; in how many parts a code is told; and σ beyond which px are left out, at first and then. */
const LARGEST = 24
const FINE = 16
const [AT_FIRST, BEYOND] = [6, 3.5]
const ROUNDS = 4
/** σ of a normal distribution, in its median of |x|. */
const MAD = 1.4826
/** Of so small a share of the px nothing is told. */
const FEW = 0.01
/** What v adds to red (ITU-R BT.709), and what grain of its own in each channel makes of red − luma and of luma. */
const RED_V = 1.5748
const [OWN_RED, OWN_LUMA] = [1.137, 0.567]

interface Spread {
  variance: number
  count: number
}

/** The median of |differences|, of those that count. */
function usual(n: number, difference: (i: number) => number, which: (i: number) => boolean): number {
  const counts = new Uint32Array(LARGEST * FINE + 1)
  let all = 0
  for (let i = 0; i < n; i++) {
    if (!which(i)) continue
    counts[Math.min(counts.length - 1, Math.floor(Math.abs(difference(i)) * FINE))]!++
    all++
  }
  let left = all / 2
  const at = counts.findIndex(count => {
    left -= count
    return left <= 0
  })
  return (Math.max(0, at) + 0.5) / FINE
}

/** The variance of differences about nought, of those that count, what has moved left out: from where the middle half of them lies. */
function spreadOf(n: number, difference: (i: number) => number, which: (i: number) => boolean = () => true): Spread {
  let most = Math.min(LARGEST, Math.max(2, AT_FIRST * MAD * usual(n, difference, which)))
  let found: Spread = { variance: 0, count: 0 }
  for (let round = 0; round < ROUNDS; round++) {
    let [sum, count] = [0, 0]
    for (let i = 0; i < n; i++) {
      const d = difference(i)
      if (d > most || d < -most || !which(i)) continue
      sum += d * d
      count++
    }
    found = { variance: count > 0 ? sum / count : 0, count }
    most = Math.min(LARGEST, Math.max(1, BEYOND * Math.sqrt(found.variance)))
  }
  return found
}

/** How much neighbours of differences are alike along rows and columns, -1..1. */
function likeness(difference: (i: number) => number, width: number, height: number, variance: number): number {
  const most = BEYOND * Math.sqrt(variance)
  let [sum, count] = [0, 0]
  for (let y = 1; y < height; y++) {
    for (let i = y * width + 1; i < (y + 1) * width; i++) {
      const [d, left, above] = [difference(i), difference(i - 1), difference(i - width)]
      if (Math.abs(d) > most || Math.abs(left) > most || Math.abs(above) > most) continue
      sum += d * (left + above)
      count += 2
    }
  }
  return count > 0 && variance > 0 ? sum / count / variance : 0
}

/** The grain of two frames of one take in the same light (photon transfer), told from what differs where nothing moves. */
export function grainBetween(one: Cells, other: Cells): Grain {
  const { width, height } = one.full
  const between = (a: Float32Array, b: Float32Array) => (i: number) => (a[i]! - b[i]!) * Math.SQRT1_2
  const luma = between(one.luma, other.luma)
  const all = spreadOf(one.luma.length, luma)
  const within = (from: number, to: number): number => {
    const { variance, count } = spreadOf(one.luma.length, luma, i => {
      const code = one.luma[i]! - LIFT
      return code >= from && code < to
    })
    return Math.sqrt(count < FEW * one.luma.length ? all.variance : variance)
  }
  const [cells, red] = [
    spreadOf(one.y.length, between(one.y, other.y)),
    spreadOf(one.v.length, between(one.v, other.v)),
  ]
  const ratio = cells.variance > 0 ? (red.variance * RED_V ** 2) / cells.variance : 0
  return {
    dark: within(Number.NEGATIVE_INFINITY, DARK),
    middle: within(DARK, LIGHT),
    light: within(LIGHT, Number.POSITIVE_INFINITY),
    size: grainSize(likeness(luma, width, height, all.variance)),
    // What is seen of channels' own grain in red − luma, against luma's.
    colour: Math.min(1, ratio / (OWN_RED + (1 - OWN_LUMA) * ratio)),
  }
}
