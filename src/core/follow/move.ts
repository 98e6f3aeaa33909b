// How something moved, told by points of it.
import type { Affine, Point } from '../affine'

/** px by which points may be off, at least, and count in full; rounds of weighing. */
const CLOSE = 0.3
const ROUNDS = 8
/** Pairs that are tried. */
const PAIRS = 120

/** The turn, scale and shift that bring weighted points onto others with least squares (Umeyama 1991); a shift alone where they lie in one place. */
function fitted(from: readonly Point[], to: readonly Point[], weights: readonly number[]): Affine {
  let [sum, fx, fy, tx, ty] = [0, 0, 0, 0, 0]
  weights.forEach((w, i) => {
    sum += w
    fx += w * from[i]!.x
    fy += w * from[i]!.y
    tx += w * to[i]!.x
    ty += w * to[i]!.y
  })
  const [mx, my, nx, ny] = [fx / sum, fy / sum, tx / sum, ty / sum]
  let [re, im, square] = [0, 0, 0]
  weights.forEach((w, i) => {
    const [px, py] = [from[i]!.x - mx, from[i]!.y - my]
    const [qx, qy] = [to[i]!.x - nx, to[i]!.y - ny]
    re += w * (px * qx + py * qy)
    im += w * (px * qy - py * qx)
    square += w * (px * px + py * py)
  })
  const [a, b] = square > sum ? [re / square, im / square] : [1, 0]
  return { a, b, c: -b, d: a, x: nx - a * mx + b * my, y: ny - b * mx - a * my }
}

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0

const offBy = ({ a, b, c, d, x, y }: Affine, p: Point, q: Point): number =>
  Math.hypot(a * p.x + c * p.y + x - q.x, b * p.x + d * p.y + y - q.y)

/** Of what pairs of points tell, that which most of the others agree with best (least median of squares: Rousseeuw 1984). */
function firstGuess(from: readonly Point[], to: readonly Point[]): Affine {
  let best = fitted(
    from,
    to,
    from.map(() => 1),
  )
  let least = Number.POSITIVE_INFINITY
  const n = from.length
  const step = Math.max(1, Math.floor((n * (n - 1)) / 2 / PAIRS))
  for (let pair = 0; pair < (n * (n - 1)) / 2; pair += step) {
    const i = pair % n
    const j = (i + 1 + Math.floor(pair / n)) % n
    const map = fitted([from[i]!, from[j]!], [to[i]!, to[j]!], [1, 1])
    const off = middle(from.map((p, k) => offBy(map, p, to[k]!)))
    if (off < least) [best, least] = [map, off]
  }
  return best
}

/** How most of some points moved, those that go another way counting little (iterated reweighting, Tukey's biweight); null without any. */
export function moveOf(from: readonly Point[], to: readonly Point[]): Affine | null {
  if (from.length === 0) return null
  let weights = from.map(() => 1)
  let map = from.length > 2 ? firstGuess(from, to) : fitted(from, to, weights)
  for (let round = 0; from.length > 2 && round < ROUNDS; round++) {
    const off = from.map((p, i) => offBy(map, p, to[i]!))
    const spread = 4 * Math.max(CLOSE, 1.4826 * middle(off))
    weights = off.map(r => (r < spread ? (1 - (r / spread) ** 2) ** 2 : 0))
    if (weights.filter(w => w > 0).length < 2) break
    map = fitted(from, to, weights)
  }
  return map
}
