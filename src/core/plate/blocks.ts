// Where squares of a picture went to in the next one.
import type { Size } from '../shot/types'

/** Cells of a square's side, and of what is looked at about it to each side. */
export const BLOCK = 8
const AROUND = 2
/** By how much the picture is made smaller to look far at once, and how far is looked there. */
const SMALLER = 4
const FAR = 5
/** Cells to each side in which it is made exact. */
const NEAR = 4
/** Codes a cell by which a place has to be better for each cell that it lies farther. */
const LAZY = 0.06

type Tones = Size & { y: Float32Array }

/** The mean of SMALLER² cells each. */
function reduced({ width, height, y }: Tones): Tones {
  const [w, h] = [Math.max(1, Math.floor(width / SMALLER)), Math.max(1, Math.floor(height / SMALLER))]
  const out = new Float32Array(w * h)
  for (let row = 0; row < h; row++) {
    for (let x = 0; x < w; x++) {
      let [sum, count] = [0, 0]
      for (let v = row * SMALLER; v < Math.min(height, (row + 1) * SMALLER); v++) {
        for (let u = x * SMALLER; u < Math.min(width, (x + 1) * SMALLER); u++) {
          sum += y[v * width + u]!
          count++
        }
      }
      out[row * w + x] = sum / count
    }
  }
  return { width: w, height: h, y: out }
}

/** How much a square of the new picture at (x, y) differs from the old one shifted by (dx, dy), a cell; stops beyond `most`. */
function apart(
  now: Tones,
  old: Tones,
  x: number,
  y: number,
  side: number,
  dx: number,
  dy: number,
  most: number,
): number {
  const { width, height } = now
  let sum = 0
  const limit = most * side * side
  for (let v = Math.max(0, y); v < Math.min(height, y + side); v++) {
    const row = Math.max(0, Math.min(height - 1, v + dy)) * width
    for (let u = Math.max(0, x); u < Math.min(width, x + side); u++) {
      const from = Math.max(0, Math.min(width - 1, u + dx))
      sum += Math.abs(now.y[v * width + u]! - old.y[row + from]!)
    }
    if (sum > limit) return Number.POSITIVE_INFINITY
  }
  return sum / (side * side)
}

/** The shift about (cx, cy), `reach` to each side, at which a square differs least; the nearer one where it hardly matters. */
function best(now: Tones, old: Tones, x: number, y: number, side: number, cx: number, cy: number, reach: number) {
  let found = { x: cx, y: cy }
  let least = apart(now, old, x, y, side, cx, cy, Number.POSITIVE_INFINITY)
  for (let dy = cy - reach; dy <= cy + reach; dy++) {
    for (let dx = cx - reach; dx <= cx + reach; dx++) {
      const cost = LAZY * Math.hypot(dx - cx, dy - cy)
      const value = apart(now, old, x, y, side, dx, dy, least - cost) + cost
      if (value >= least) continue
      least = value
      found = { x: dx, y: dy }
    }
  }
  return found
}

/** Of each square of BLOCK² cells, row by row: where in the old picture it comes from, in cells. */
export interface Shifts extends Size {
  x: Int16Array
  y: Int16Array
}

/** Tells where squares of a picture come from, by their brightness: first far and roughly, then exactly. Those for which `isWanted` is false stay where they are. */
export function shiftsOf(now: Tones, old: Tones, isWanted: (column: number, row: number) => boolean): Shifts {
  const [width, height] = [Math.ceil(now.width / BLOCK), Math.ceil(now.height / BLOCK)]
  const out = { width, height, x: new Int16Array(width * height), y: new Int16Array(width * height) }
  const [small, smallOld] = [reduced(now), reduced(old)]
  const rough = BLOCK / SMALLER + 2
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      if (!isWanted(column, row)) continue
      const [sx, sy] = [(column * BLOCK) / SMALLER - 1, (row * BLOCK) / SMALLER - 1]
      const far = best(small, smallOld, sx, sy, rough, 0, 0, FAR)
      const [x, y] = [column * BLOCK - AROUND, row * BLOCK - AROUND]
      const near = best(now, old, x, y, BLOCK + 2 * AROUND, far.x * SMALLER, far.y * SMALLER, NEAR)
      // What stands still is told by the exact picture.
      const still = apart(now, old, x, y, BLOCK + 2 * AROUND, 0, 0, Number.POSITIVE_INFINITY)
      const there = apart(now, old, x, y, BLOCK + 2 * AROUND, near.x, near.y, Number.POSITIVE_INFINITY)
      const isStill = still <= there + LAZY * Math.hypot(near.x, near.y)
      out.x[row * width + column] = isStill ? 0 : near.x
      out.y[row * width + column] = isStill ? 0 : near.y
    }
  }
  return out
}

/** A plane of cells as it comes to lie after such shifts. */
export function shifted({ width, height }: Size, plane: Float32Array, shifts: Shifts, out: Float32Array): void {
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / BLOCK)
    for (let x = 0; x < width; x++) {
      const at = row * shifts.width + Math.floor(x / BLOCK)
      const fx = Math.max(0, Math.min(width - 1, x + shifts.x[at]!))
      const fy = Math.max(0, Math.min(height - 1, y + shifts.y[at]!))
      out[y * width + x] = plane[fy * width + fx]!
    }
  }
}
