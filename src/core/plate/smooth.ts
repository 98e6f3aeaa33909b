// Means over squares, in time that does not grow with them.
import type { Size } from '../shot/types'

/** The mean over (2r + 1)² cells round each, those outside left out. `room` is as large as the plane; `out` may be the plane. */
export function boxMean(
  { width, height }: Size,
  plane: Float32Array,
  r: number,
  out: Float32Array,
  room: Float32Array,
): void {
  const reach = Math.min(r, width - 1)
  for (let y = 0; y < height; y++) {
    const row = y * width
    let sum = 0
    for (let x = 0; x < reach; x++) sum += plane[row + x]!
    const inner = Math.max(reach, width - reach)
    for (let x = 0; x < width; x++) {
      if (x + reach < width) sum += plane[row + x + reach]!
      if (x > reach) sum -= plane[row + x - reach - 1]!
      const n = x >= reach && x < inner ? 2 * reach + 1 : Math.min(width - 1, x + reach) - Math.max(0, x - reach) + 1
      room[row + x] = sum / n
    }
  }
  const sums = new Float32Array(width)
  for (let y = 0; y < Math.min(r, height); y++) for (let x = 0, i = y * width; x < width; x++, i++) sums[x]! += room[i]!
  for (let y = 0; y < height; y++) {
    const share = 1 / (Math.min(height - 1, y + r) - Math.max(0, y - r) + 1)
    const add = (y + r) * width
    const take = (y - r - 1) * width
    if (y + r < height && y > r) for (let x = 0; x < width; x++) sums[x]! += room[add + x]! - room[take + x]!
    else if (y + r < height) for (let x = 0; x < width; x++) sums[x]! += room[add + x]!
    else if (y > r) for (let x = 0; x < width; x++) sums[x]! -= room[take + x]!
    for (let x = 0, i = y * width; x < width; x++, i++) out[i] = sums[x]! * share
  }
}
