// The colours of somebody, as far as they have been seen.
import type { Cells } from './cells'

/** Bins either way, and how many codes each is wide. */
const BINS = 24
const [WIDE_Y, WIDE_C] = [12, 6]
/** Cells that have to be known before they tell anything; how much of what was known is kept from frame to frame. */
const ENOUGH = 200
const KEEP = 0.5
/** Codes² over which colours of whom nothing is known are spread. */
export const SPREAD = 200 * 50 * 50

const binAt = (value: number): number => (value < 0 ? 0 : value >= BINS ? BINS - 1 : value | 0)
const binOf = ({ y, u, v }: Cells, i: number): number =>
  (binAt(y[i]! / WIDE_Y) * BINS + binAt((u[i]! + 72) / WIDE_C)) * BINS + binAt((v[i]! + 72) / WIDE_C)

export interface Palette {
  /** Log likelihoods of colours against evenly spread ones: of 24 bins of y (12 codes each), of u, then of v (6 codes each, from −72 on). */
  known: Float32Array
  /** Learns the cells of a frame that are surely somebody. */
  learn(frame: Cells, told: Float32Array, sure: number): void
}

/** A histogram that forgets by halves. */
export function palette(): Palette {
  const counts = new Float32Array(BINS ** 3)
  const known = new Float32Array(BINS ** 3)
  let total = 0
  return {
    known,
    learn(frame, told, sure) {
      for (let b = 0; b < counts.length; b++) counts[b]! *= KEEP
      total *= KEEP
      for (let i = 0; i < told.length; i++) {
        if (told[i]! <= sure) continue
        counts[binOf(frame, i)]!++
        total++
      }
      const even = (WIDE_Y * WIDE_C * WIDE_C) / SPREAD
      for (let b = 0; b < counts.length; b++) {
        known[b] = total < ENOUGH ? 0 : Math.log(0.4 + 0.6 * (counts[b]! / total / even))
      }
    },
  }
}
