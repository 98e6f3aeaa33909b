// The way through a picture along which two takes differ least, which may bend where a straight line would cut through somebody.
import { radians } from '../affine'
import type { Line } from '../shape'
import { type Bend, COSTS, type Differences, findSeam, LEAST, meanAlong, SIDE } from './seam'

/** Codes for each cell that it goes aside from one row to the next, cells that it may, and codes for a picture's width away from the straight line. */
const BENT = 0.5
const STEEP = 6
const AWAY = 3
/** Shares of the picture to either side of the straight line in which it may run: where one was found, and where none parts the people. */
const [BESIDE, ANYWHERE] = [0.2, 0.4]

/** Where a line crosses the middle of a row (or a column, where it runs across). */
const crossing = ({ x, y, angle }: Line, runs: Bend['runs'], i: number): number => {
  const a = radians(angle)
  return runs === 'down'
    ? x - ((i + 0.5 - y) * Math.sin(a)) / Math.cos(a)
    : y - ((i + 0.5 - x) * Math.cos(a)) / Math.sin(a)
}

/** Whether enough of all that is somebody lies on either side. */
function parts({ width, height, somebody }: Differences, { runs, at }: Bend): boolean {
  let [before, all] = [0, 0]
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (somebody[y * width + x] === 0) continue
      all++
      if (runs === 'down' ? x < at[y]! : y < at[x]!) before++
    }
  }
  return all < somebody.length * LEAST || (before >= SIDE * all && before <= (1 - SIDE) * all)
}

/**
 * The cheapest way from side to side near a line (in cells), by dynamic programming over its rows or columns, as seams of textures are cut (Efros and Freeman 2001): what
 * the takes differ by along it, and much for each cell of somebody that it cuts through; null where none parts the people.
 */
export function findBend(of: Differences, from: Line): Bend | null {
  const { width, height, mean, somebody } = of
  const best = findSeam(of, from)
  const straight = best && meanAlong(of, somebody, best) === 0 ? best : null
  const about = straight ?? from
  const runs = Math.abs(Math.cos(radians(about.angle))) >= Math.SQRT1_2 ? 'down' : 'across'
  const [rows, across] = runs === 'down' ? [height, width] : [width, height]
  const reach = (straight ? BESIDE : ANYWHERE) * across
  const cellAt = (i: number, j: number) => (runs === 'down' ? i * width + j : j * width + i)
  const cost = (i: number, j: number): number => {
    const off = Math.abs(j + 0.5 - crossing(about, runs, i))
    if (off > reach) return Number.POSITIVE_INFINITY
    const cell = cellAt(i, j)
    return mean[cell]! + COSTS * somebody[cell]! + (AWAY * off) / across
  }
  let sums = Float64Array.from({ length: across }, (_, j) => cost(0, j))
  const came: Int8Array[] = []
  for (let i = 1; i < rows; i++) {
    // What the cells before each cost together, so that those passed on the way aside count, too; as dear as can be where it may not run.
    const passed = new Float64Array(across + 1)
    for (let j = 0; j < across; j++) passed[j + 1] = passed[j]! + Math.min(COSTS, cost(i, j))
    const next = new Float64Array(across)
    const by = new Int8Array(across)
    for (let j = 0; j < across; j++) {
      let least = Number.POSITIVE_INFINITY
      for (let step = -STEEP; step <= STEEP; step++) {
        const before = sums[j + step] ?? Number.POSITIVE_INFINITY
        const aside = step < 0 ? passed[j]! - passed[Math.max(0, j + step)]! : passed[j + step + 1]! - passed[j + 1]!
        const sum = before + BENT * Math.abs(step) + aside
        if (sum < least) [least, by[j]] = [sum, step]
      }
      next[j] = least + cost(i, j)
    }
    came.push(by)
    sums = next
  }
  let j = sums.indexOf(Math.min(...sums))
  if (!Number.isFinite(sums[j]!)) return null
  const at = [j]
  for (const by of came.reverse()) {
    j += by[j]!
    at.push(j)
  }
  const bend: Bend = { runs, at: at.reverse().map(v => v + 0.5) }
  return parts(of, bend) ? bend : null
}
