// The colours of somebody, as far as they have been seen.
import type { Kernels } from '../render'
import type { Cells } from './cells'
import { type Plane, planeIn } from './plane'

/** Bins either way, and how many codes each is wide. */
const BINS = 24
const [WIDE_Y, WIDE_C] = [12, 6]
/** Cells that have to be known before they tell anything; how much of what was known is kept from frame to frame. */
const ENOUGH = 200
const KEEP = 0.5
/** Codes² over which colours of whom nothing is known are spread. */
export const SPREAD = 200 * 50 * 50

export interface Palette {
  /** Log likelihoods of colours against evenly spread ones: of 24 bins of y (12 codes each), of u, then of v (6 codes each, from −72 on). */
  known: Plane
  /** Learns the cells of a frame that are surely somebody. */
  learn(frame: Cells, told: Plane, sure: number): void
  forget(): void
}

/** A histogram that forgets by halves. It lives in the memory of `k`. Throws OutOfMemory. */
export function palette(k: Kernels): Palette {
  const counts = planeIn(k, BINS ** 3)
  const known = planeIn(k, BINS ** 3)
  let total = 0
  return {
    known,
    learn({ y, u, v }, told, sure) {
      for (let b = 0; b < counts.length; b++) counts[b]! *= KEEP
      const [ys, us, vs, odds] = [y, u, v, told].map(plane => plane.byteOffset) as [number, number, number, number]
      total =
        total * KEEP +
        k.countColours({ y: ys, u: us, v: vs, told: odds, n: told.length, sure, counts: counts.byteOffset })
      const even = (WIDE_Y * WIDE_C * WIDE_C) / SPREAD
      if (total < ENOUGH) return void known.fill(0)
      known.fill(Math.log(0.4))
      for (let b = 0; b < counts.length; b++) {
        if (counts[b]! > 0) known[b] = Math.log(0.4 + 0.6 * (counts[b]! / total / even))
      }
    },
    forget() {
      counts.fill(0)
      known.fill(0)
      total = 0
    },
  }
}
