// What a plain difference to the plate makes of a scene, cleaned up as is usual: how hard the scene is.
import type { Cells } from '../../src/core/plate'

/** Codes of difference from which a px is somebody: whichever does best counts. */
export const THRESHOLDS: readonly number[] = [12, 16, 24, 32, 44]
/** px: what is thinner is taken for noise, and gaps no wider are filled. */
const [NOISE, GAP] = [1, 4]
/** px of islands and holes that are dropped. */
const ISLAND = 1500

const ON = 255

/** The least or the most within `reach` px of each along one axis, `step` apart. */
function spread(of: Uint8Array, count: number, step: number, lines: number, stride: number, reach: number, on: number) {
  const out = new Uint8Array(of.length)
  for (let line = 0; line < lines; line++) {
    const start = line * stride
    // Where the last px that is `on` lies behind, and the next one ahead.
    let last = Number.NEGATIVE_INFINITY
    for (let i = 0; i < count; i++) {
      if (of[start + i * step] === on) last = i
      out[start + i * step] = i - last <= reach ? on : ON - on
    }
    let next = Number.POSITIVE_INFINITY
    for (let i = count - 1; i >= 0; i--) {
      if (of[start + i * step] === on) next = i
      if (next - i <= reach) out[start + i * step] = on
    }
  }
  return out
}

/** Grows what is `on` by a square (Serra, Image Analysis and Mathematical Morphology). */
const grown = (of: Uint8Array, width: number, height: number, reach: number, on: number): Uint8Array =>
  spread(spread(of, width, 1, height, width, reach, on), height, width, width, 1, reach, on)

/** Turns islands of fewer px than `ISLAND` over. */
function dropIslands(matte: Uint8Array, width: number, on: number): void {
  const seen = new Uint8Array(matte.length)
  for (let from = 0; from < matte.length; from++) {
    if (seen[from] || matte[from] !== on) continue
    const island = [from]
    seen[from] = 1
    for (const i of island) {
      const x = i % width
      for (const next of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
        if (next < 0 || seen[next] || matte[next] !== on) continue
        seen[next] = 1
        island.push(next)
      }
    }
    if (island.length < ISLAND) for (const i of island) matte[i] = ON - on
  }
}

/** The median of what a frame's luma is of the plate's. */
function lightOf({ luma }: Cells, plate: Cells): number {
  const ratios: number[] = []
  for (let i = 0; i < luma.length; i += 97) if (plate.luma[i]! > 30) ratios.push(luma[i]! / plate.luma[i]!)
  return ratios.sort((a, b) => a - b)[ratios.length >> 1] ?? 1
}

/** Somebody before the plate, 0 or 255 a px; `light` is brought together over all of the frame, the camera is not. */
export function plainDifference(frame: Cells, plate: Cells, threshold: number): Uint8Array {
  const { width, height } = frame.full
  const light = lightOf(frame, plate)
  const matte = new Uint8Array(width * height)
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const c = (y >> 1) * frame.width + (x >> 1)
      const off =
        Math.abs(frame.luma[i]! - light * plate.luma[i]!) +
        Math.abs(frame.u[c]! - plate.u[c]!) +
        Math.abs(frame.v[c]! - plate.v[c]!)
      if (off > threshold) matte[i] = ON
    }
  }
  const opened = grown(grown(matte, width, height, NOISE, 0), width, height, NOISE, ON)
  const closed = grown(grown(opened, width, height, GAP, ON), width, height, GAP, 0)
  dropIslands(closed, width, ON)
  dropIslands(closed, width, 0)
  return closed
}
