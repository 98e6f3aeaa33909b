// What stands still stays as it was.
import type { Cells } from './cells'
import type { Noise } from './noise'
import { boxMean, type Plane, placed } from './plane'

/** How much of the alpha before stays where nothing moves, and by how much the new one may differ (of 255) to be taken for noise. */
const KEEP = 0.8
const NEAR = 64

/** 1 where a cell and those beside it are as they were a frame before, 0 where something moves there. Throws OutOfMemory. */
export function stillness(frame: Cells, before: Cells, noise: Noise, out: Plane): void {
  const { k, y, u, v } = frame
  k.scope(() => {
    const now = [y.byteOffset, u.byteOffset, v.byteOffset] as const
    const then = [before.y.byteOffset, before.u.byteOffset, before.v.byteOffset] as const
    const grain = placed(k, noise.y)
    k.changeCells(...now, ...then, out.length, grain, 0.5 / noise.u, 0.5 / noise.v, out.byteOffset)
    boxMean(k, frame, out, 1, out)
  })
  // Three squares of unit variance are there by chance alone.
  for (let i = 0; i < out.length; i++) out[i] = Math.max(0, Math.min(1, (9 - out[i]!) / 4))
}

/** Brings alpha of a frame nearer to that before where nothing moves and the two differ by little. */
export function steady({ full, width }: Cells, alpha: Uint8Array, before: Uint8Array, still: Float32Array): void {
  for (let y = 0; y < full.height; y++) {
    const row = (y >> 1) * width
    for (let x = 0, p = y * full.width; x < full.width; x++, p++) {
      const d = before[p]! - alpha[p]!
      if (d === 0 || d >= NEAR || d <= -NEAR) continue
      alpha[p] = Math.round(alpha[p]! + d * still[row + (x >> 1)]! * KEEP)
    }
  }
}
