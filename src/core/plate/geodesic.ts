// How far cells lie from what was painted, where it costs to cross from one colour to another.
import type { Cells } from './cells'

/** What a step costs where colours are alike, and codes of difference that cost as much as one cell. */
const STEP = 0.03
const CODES = 5
/** Rounds of sweeps down and up again; what winds more than that is a little farther than it should be. */
const ROUNDS = 2

/**
 * Distances in the memory of nobody: `from` are the cells that lie at nought. By sweeps over eight neighbours (Borgefors 1986; as a
 * segmentation by strokes: Bai and Sapiro, "A geodesic framework for fast interactive image and video segmentation and matting", 2009).
 */
export function geodesic({ width, height, y, u, v }: Cells, from: Iterable<number>): Float32Array {
  const far = new Float32Array(width * height).fill(1e6)
  for (const cell of from) far[cell] = 0
  const nearer = (i: number, j: number, wide: number) => {
    const before = far[j]!
    if (before >= far[i]!) return
    const [dy, du, dv] = [y[i]! - y[j]!, u[i]! - u[j]!, v[i]! - v[j]!]
    // Colour parts things that light alone does not.
    const there = before + STEP * wide + Math.sqrt(dy * dy + 4 * (du * du + dv * dv)) / CODES
    if (there < far[i]!) far[i] = there
  }
  const visit = (x: number, row: number, sign: 1 | -1) => {
    const i = row * width + x
    const above = row - sign >= 0 && row - sign < height
    const back = x - sign >= 0 && x - sign < width
    const ahead = x + sign >= 0 && x + sign < width
    if (back) nearer(i, i - sign, 1)
    if (!above) return
    nearer(i, i - sign * width, 1)
    if (back) nearer(i, i - sign * width - sign, Math.SQRT2)
    if (ahead) nearer(i, i - sign * width + sign, Math.SQRT2)
  }
  for (let round = 0; round < ROUNDS; round++) {
    for (let row = 0; row < height; row++) for (let x = 0; x < width; x++) visit(x, row, 1)
    for (let row = height - 1; row >= 0; row--) for (let x = width - 1; x >= 0; x--) visit(x, row, -1)
  }
  return far
}
