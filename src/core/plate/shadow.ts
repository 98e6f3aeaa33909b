// How much light of the set somebody takes away.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { POWER } from './light'
import { boxMean, type Plane, planeIn } from './plane'

/** Shares of light that noise alone takes away here and there. */
const NOISE = 0.04
/** Cells over which it is evened out, and those beside somebody over which it goes on beneath them. */
const EVEN = 1
const BENEATH = [8, 24, 72] as const
/** Share of what lies about a cell that has to be seen for it to tell anything: sums that ran along leave next to nothing. */
const SEEN = 0.02
/** Cells round somebody whose light is told by theirs, too. */
const CLOSE = 3

/** What is taken away where so many 1024ths are left, in lifted codes. */
const TAKEN = Float32Array.from({ length: 1025 }, (_, i) => {
  const taken = 1 - (i / 1024) ** (1 / POWER)
  return Math.max(0, Math.min(1, (taken - NOISE) / (1 - 2 * NOISE)))
})

/**
 * Of each cell, 0..1, from the light that is `left` of the plate (1: all of it) where nobody is (`told` ≤ 0). Beneath somebody it goes on as beside
 * them. Throws OutOfMemory.
 */
export function shadowOf(k: Kernels, size: Size, told: Plane, left: Plane): Float32Array {
  const n = told.length
  return k.scope(() => {
    const [out, seen, share, near, filled] = [planeIn(k, n), planeIn(k, n), planeIn(k, n), planeIn(k, n), planeIn(k, n)]
    for (let i = 0; i < n; i++) near[i] = told[i]! > 0 ? 1 : 0
    boxMean(k, size, near, CLOSE, near)
    for (let i = 0; i < n; i++) {
      // Close to somebody their own colours would pass for shadow.
      if (near[i]! > 0.001) continue
      const s = Math.min(1, left[i]!)
      seen[i] = 1
      out[i] = s > 0 ? TAKEN[(s * 1024) | 0]! : 1
    }
    // What lies deep beneath somebody is told by what is farther off, and so on.
    for (const far of BENEATH) {
      boxMean(k, size, seen, far, share)
      boxMean(k, size, out, far, near)
      for (let i = 0; i < n; i++) {
        if (seen[i] === 0 && filled[i] === 0 && share[i]! > SEEN) filled[i] = near[i]! / share[i]!
      }
    }
    for (let i = 0; i < n; i++) if (seen[i] === 0) out[i] = filled[i]!
    boxMean(k, size, out, EVEN, out)
    return out.slice()
  })
}
