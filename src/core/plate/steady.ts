// What stands still stays as it was.
import type { Cells } from './cells'
import type { Noise } from './noise'
import { type Plane, placed, whole } from './plane'

/** How much of the alpha before stays where nothing moves, and by how much the new one may differ (of 255) to be taken for noise. */
const KEEP = 0.85
const NEAR = 96
/** Three squares of unit variance are there by chance alone: at so many of them all is new, at so many fewer all is still. */
const MOVES = 11
const REST = 4

/** Y, u and v of cells. */
export type Tones = Record<'y' | 'u' | 'v', Plane>

/**
 * Brings alpha of a frame (where its px lie) nearer to that before where nothing moves and the two differ by little. `before`: what the frame before looked like; of a part of its px all
 * else is left alone. Throws OutOfMemory.
 */
export function steady(
  frame: Cells,
  before: Tones,
  noise: Noise,
  { now, before: old }: { now: number; before: number },
  part = whole(frame.full),
): void {
  const { k, full } = frame
  k.scope(() => {
    const planes = k.alloc(24)
    k.ints(planes, 6).set([frame, before].flatMap(({ y, u, v }) => [y, u, v].map(plane => plane.byteOffset)))
    const grain = placed(k, noise.y)
    const [perU, perV] = [0.5 / noise.u, 0.5 / noise.v]
    const { width, height } = full
    const { x, y } = part
    const [toX, toY] = [x + part.width, y + part.height]
    k.steadyAlpha({
      alpha: now,
      before: old,
      width,
      height,
      planes,
      grain,
      perU,
      perV,
      near: NEAR,
      keep: KEEP,
      moves: MOVES,
      rest: REST,
      x0: x,
      y0: y,
      x1: toX,
      y1: toY,
    })
  })
}
