// How much light of the set somebody takes away.
import type { Size } from '../shot/types'
import { POWER } from './light'
import { boxMean } from './smooth'

/** Shares of light that noise alone takes away here and there. */
const NOISE = 0.04
/** Cells over which it is evened out, and those beside somebody over which it goes on beneath them. */
const EVEN = 1
const BENEATH = 4

/** Of each cell, 0..1, from the light that is `left` of the plate (1: all of it) where nobody is (`told` ≤ 0). Beneath somebody it goes on as beside them. */
export function shadowOf(size: Size, told: Float32Array, left: Float32Array, room: Float32Array): Float32Array {
  const n = told.length
  const out = new Float32Array(n)
  const seen = new Float32Array(n)
  for (let i = 0; i < n; i++) {
    if (told[i]! > 0) continue
    const taken = 1 - Math.min(1, left[i]!) ** (1 / POWER)
    seen[i] = 1
    out[i] = taken <= NOISE ? 0 : Math.min(1, (taken - NOISE) / (1 - 2 * NOISE))
  }
  const share = new Float32Array(n)
  const near = new Float32Array(n)
  boxMean(size, seen, BENEATH, share, room)
  boxMean(size, out, BENEATH, near, room)
  for (let i = 0; i < n; i++) if (seen[i] === 0) out[i] = share[i]! > 0 ? near[i]! / share[i]! : 0
  boxMean(size, out, EVEN, out, room)
  return out
}
