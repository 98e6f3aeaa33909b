// Places of a picture that can be held on to: corners and spots, not edges and not what is plain.
import type { Point } from '../affine'
import type { Grey } from './pyramid'

/** px between places that are looked at, to each side of one that tell of it, and between two that are taken. */
const STEP = 4
const RADIUS = 4
const APART = 12
/** The smaller eigenvalue of the slopes squared, codes² a px, that is enough. */
const ENOUGH = 6

function worthOf({ width, data }: Grey, x: number, y: number): number {
  let [a, b, c] = [0, 0, 0]
  for (let v = y - RADIUS; v <= y + RADIUS; v++) {
    for (let u = x - RADIUS; u <= x + RADIUS; u++) {
      const i = v * width + u
      const [gx, gy] = [(data[i + 1]! - data[i - 1]!) / 2, (data[i + width]! - data[i - width]!) / 2]
      a += gx * gx
      b += gx * gy
      c += gy * gy
    }
  }
  return (a + c - Math.sqrt((a - c) ** 2 + 4 * b * b)) / 2 / (2 * RADIUS + 1) ** 2
}

/** The best places inside of something, the best first (the smaller eigenvalue of the structure tensor: Shi and Tomasi 1994). Px from the left top corner. */
export function spotsIn(picture: Grey, isInside: (x: number, y: number) => boolean, most: number): Point[] {
  const { width, height } = picture
  const found: (Point & { worth: number })[] = []
  for (let y = RADIUS + 2; y < height - RADIUS - 2; y += STEP) {
    for (let x = RADIUS + 2; x < width - RADIUS - 2; x += STEP) {
      if (!isInside(x + 0.5, y + 0.5)) continue
      const worth = worthOf(picture, x, y)
      if (worth > ENOUGH) found.push({ x: x + 0.5, y: y + 0.5, worth })
    }
  }
  found.sort((p, q) => q.worth - p.worth)
  const kept: Point[] = []
  for (const { x, y } of found) {
    if (kept.length >= most) break
    if (kept.every(p => Math.hypot(p.x - x, p.y - y) >= APART)) kept.push({ x, y })
  }
  return kept
}
