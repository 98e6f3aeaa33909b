// What may lie behind somebody, by what shows beside them: as good as is needed along their border, where there is no plate.
import { type Cells, LIFT } from './cells'
import { boxMean, planeIn } from './plane'

/** Cells about somebody that are theirs in part, and over which it goes on beneath them, the nearest that tells anything first. */
const ROUND = 2
const BENEATH = [4, 12, 40] as const
const SEEN = 0.02

/** Fills `out` with the frame where nobody is (`is` 0) and with what lies beside them elsewhere. Throws OutOfMemory. */
export function guessBehind(frame: Cells, is: Float32Array<ArrayBuffer>, out: Cells): void {
  const { k, width, height, full } = frame
  const n = width * height
  k.scope(() => {
    const [near, seen, share, sum] = [planeIn(k, n), planeIn(k, n), planeIn(k, n), planeIn(k, n)]
    boxMean(k, frame, is, ROUND, near)
    for (let i = 0; i < n; i++) seen[i] = near[i]! < 0.001 ? 1 : 0
    const tones = ['y', 'u', 'v'] as const
    for (const name of tones) out[name].set(frame[name])
    const told = new Uint8Array(n)
    for (const far of BENEATH) {
      boxMean(k, frame, seen, far, share)
      const isNew = (i: number) => seen[i] === 0 && told[i] === 0 && share[i]! > SEEN
      for (const name of tones) {
        for (let i = 0; i < n; i++) sum[i] = seen[i]! * frame[name][i]!
        boxMean(k, frame, sum, far, sum)
        for (let i = 0; i < n; i++) if (isNew(i)) out[name][i] = sum[i]! / share[i]!
      }
      for (let i = 0; i < n; i++) if (isNew(i)) told[i] = 1
    }
    // Where somebody is all there is, nothing is known: grey.
    for (let i = 0; i < n; i++) {
      if (seen[i] === 1 || told[i] === 1) continue
      out.y[i] = 128 + LIFT
      out.u[i] = 0
      out.v[i] = 0
    }
    for (let y = 0, p = 0; y < full.height; y++) {
      const row = (y >> 1) * width
      for (let x = 0; x < full.width; x++, p++) {
        const i = row + (x >> 1)
        out.luma[p] = seen[i] === 1 ? frame.luma[p]! : out.y[i]!
      }
    }
  })
}
