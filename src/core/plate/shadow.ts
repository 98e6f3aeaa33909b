// How much light of the set somebody takes away.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { POWER } from './light'
import { boxMean, type Part, type Plane, placed, planeIn, roomFor } from './plane'

/** Shares of light that noise alone takes away here and there. */
const NOISE = 0.04
/** Cells over which it is evened out, and those beside somebody over which it goes on beneath them: by fours, and how many fours. */
const EVEN = 1
const FOUR = 4
const BENEATH = [1, 2, 6, 18] as const
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
 * Of each cell, 0..255, from the light that is `left` of the plate (1: all of it) where nobody is. Beneath somebody it goes on as beside them. `is`: 1 where somebody stands, all of
 * them in `part`. Throws OutOfMemory.
 */
export function shadowOf(k: Kernels, size: Size, { is, part }: { is: Plane; part: Part }, left: Plane): Uint8Array {
  const { width, height } = size
  const small = { width: Math.ceil(width / FOUR), height: Math.ceil(height / FOUR) }
  return k.scope(() => {
    const n = width * height
    const [out, seen, near] = [roomFor(k, n), roomFor(k, n), planeIn(k, n)]
    const few = small.width * small.height
    const [sums, seens, share, mean, filled] = Array.from({ length: 5 }, () => planeIn(k, few)) as [
      Plane,
      Plane,
      Plane,
      Plane,
      Plane,
    ]
    // Close to somebody their own colours would pass for shadow.
    if (part.width > 0) boxMean(k, size, is, CLOSE, near, part)
    const [to, told] = [out.byteOffset, seen.byteOffset]
    k.shadeCells({
      near: near.byteOffset,
      left: left.byteOffset,
      width,
      height,
      table: placed(k, TAKEN),
      out: to,
      seen: told,
      outs: sums.byteOffset,
      seens: seens.byteOffset,
    })
    // What lies deep beneath somebody is told by what is farther off, and so on.
    const isTold = new Uint8Array(few)
    for (const far of BENEATH) {
      boxMean(k, small, seens, far, share)
      boxMean(k, small, sums, far, mean)
      for (let i = 0; i < few; i++) {
        if (isTold[i] === 1 || share[i]! <= SEEN * FOUR * FOUR) continue
        filled[i] = mean[i]! / share[i]!
        isTold[i] = 1
      }
    }
    k.fillCells(told, filled.byteOffset, width, height, to)
    boxMean(k, size, out, EVEN, out)
    const codes = k.alloc(n)
    k.shareCodes(out.byteOffset, codes, n)
    return k.bytes(codes, n).slice()
  })
}
