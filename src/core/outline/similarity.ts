// The turn, scale and shift that bring one set of points nearest to another, and parts of the way there.
import type { Affine, Point } from '../affine'

/**
 * The similarity that brings `from` as near to `to` as one can, by least squares (Procrustes without mirroring; Umeyama, 1991). Equally many
 * points in both; fewer than two that differ give a mere shift.
 */
export function bestSimilarity(from: readonly Point[], to: readonly Point[]): Affine {
  const n = from.length
  const mean = (points: readonly Point[], of: 'x' | 'y') => points.reduce((sum, p) => sum + p[of], 0) / n
  const [fx, fy, tx, ty] = n ? [mean(from, 'x'), mean(from, 'y'), mean(to, 'x'), mean(to, 'y')] : [0, 0, 0, 0]
  let [dot, cross, spread] = [0, 0, 0]
  from.forEach(({ x, y }, i) => {
    const [px, py, qx, qy] = [x - fx, y - fy, to[i]!.x - tx, to[i]!.y - ty]
    dot += px * qx + py * qy
    cross += px * qy - py * qx
    spread += px * px + py * py
  })
  const fits = spread > 1e-12 && Math.hypot(dot, cross) > 1e-9 * spread
  const a = fits ? dot / spread : 1
  const b = fits ? cross / spread : 0
  return { a, b, c: -b, d: a, x: tx - a * fx + b * fy, y: ty - b * fx - a * fy }
}

/** Below so little turn and growth a similarity goes straight. */
const STRAIGHT = 1e-4

/**
 * A share t of a similarity: turned about the point that it leaves where it is, growing evenly, by so much of the way; what only shifts goes
 * straight. In complex numbers z -> m z + c, the share is m^t z + c (m^t - 1) / (m - 1).
 */
export function shareOf({ a, b, x, y }: Affine, t: number): Affine {
  const angle = Math.atan2(b, a) * t
  const scale = Math.hypot(a, b) ** t
  const [re, im] = [scale * Math.cos(angle), scale * Math.sin(angle)]
  const [mr, mi] = [a - 1, b]
  const size = mr * mr + mi * mi
  // The share of the shift: (m^t - 1) / (m - 1), which tends to t where there is no turn and no growth.
  const [sr, si] =
    size < STRAIGHT * STRAIGHT ? [t, 0] : [((re - 1) * mr + im * mi) / size, (im * mr - (re - 1) * mi) / size]
  return { a: re, b: im, c: -im, d: re, x: sr * x - si * y, y: sr * y + si * x }
}
