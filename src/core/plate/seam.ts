// Seams between two takes, and the straight line along which two takes differ least over a stretch of time, with their people on either side.
import { radians } from '../affine'
import type { Line } from '../shape'
import type { Size } from '../shot/types'

/** Codes beyond which two takes in the same light show something else: somebody, or their shadow. */
const SOMEBODY = 20
/** Share of the time for which that has to be so. */
const SELDOM = 0.04
/** Share of all that is somebody which has to lie on either side, and of the picture that is worth the name. */
export const SIDE = 0.15
export const LEAST = 0.002
/** Degrees by which the line may be turned from where it was, and of a step; cells of a step aside. */
const TURN = 24
const DEGREE = 1.5
/** Codes that a cell of somebody under the line counts for, and a picture's width by which it is moved. */
export const COSTS = 200
const AWAY = 1.5
/** Codes that the largest turn counts for. */
const TURNED = 0.2
/** px of feather for each code that is left, at least, and at most. */
const A_CODE = 9
const [LEAST_FEATHER, MOST_FEATHER] = [4, 160]

/** What two takes differ by over time, cell by cell. */
export interface Differences extends Size {
  /** Codes on the whole, in the same light. */
  mean: Float32Array
  /** 1 where somebody is in one of them at some time, else 0. */
  somebody: Float32Array
}

/** Frames of differences told together. */
export function differencesOf({ width, height }: Size, frames: readonly Float32Array[]): Differences {
  const mean = new Float32Array(width * height)
  const somebody = new Float32Array(width * height)
  for (let i = 0; i < mean.length; i++) {
    let [sum, count, often] = [0, 0, 0]
    for (const of of frames) {
      if (of[i]! > SOMEBODY) often++
      else {
        sum += of[i]!
        count++
      }
    }
    mean[i] = count > 0 ? sum / count : SOMEBODY
    somebody[i] = often > frames.length * SELDOM ? 1 : 0
  }
  return { width, height, mean, somebody }
}

/** A seam that bends: where it crosses each row from top to bottom, or each column from left to right; cells. */
export interface Bend {
  runs: 'down' | 'across'
  at: readonly number[]
}

/** In cells. */
export type Seam = Line | Bend

/** The cell in which a bend crosses its row or column; -1 beyond the picture. */
function crossed({ width, height }: Size, { runs, at }: Bend, i: number): number {
  const j = Math.floor(at[i]!)
  if (j < 0 || j >= (runs === 'down' ? width : height)) return -1
  return runs === 'down' ? i * width + j : j * width + i
}

/** Goes along a seam as far as a picture reaches, a cell at a time. */
function along(size: Size, seam: Seam, visit: (cell: number) => void): void {
  if ('runs' in seam) {
    seam.at.forEach((_, i) => {
      const cell = crossed(size, seam, i)
      if (cell >= 0) visit(cell)
    })
    return
  }
  const { width, height } = size
  const { x, y, angle } = seam
  const a = radians(angle)
  const [dx, dy] = [-Math.sin(a), Math.cos(a)]
  const far = width + height
  for (let t = -far; t <= far; t++) {
    const [px, py] = [Math.floor(x + t * dx), Math.floor(y + t * dy)]
    if (px >= 0 && py >= 0 && px < width && py < height) visit(py * width + px)
  }
}

/** A seam so many cells aside. */
function aside(seam: Seam, by: number): Seam {
  if ('runs' in seam) return { ...seam, at: seam.at.map(j => j + by) }
  const a = radians(seam.angle)
  return { ...seam, x: seam.x + by * Math.cos(a), y: seam.y + by * Math.sin(a) }
}

/** What is on the whole under a seam; null where it misses the picture. */
export function meanAlong(size: Size, of: Float32Array, line: Seam): number | null {
  let [sum, count] = [0, 0]
  along(size, line, cell => {
    sum += of[cell]!
    count++
  })
  return count === 0 ? null : sum / count
}

/** Whether of all that is somebody enough lies on either side of lines of some angle, by how far they lie from the origin. */
function sides({ width, somebody }: Differences, angle: number) {
  const a = radians(angle)
  const [nx, ny] = [Math.cos(a), Math.sin(a)]
  const at: number[] = []
  somebody.forEach((is, i) => {
    if (is > 0) at.push(((i % width) + 0.5) * nx + (Math.floor(i / width) + 0.5) * ny)
  })
  at.sort((p, q) => p - q)
  if (at.length < somebody.length * LEAST) return () => true
  const [first, last] = [at[Math.floor(at.length * SIDE)]!, at[Math.floor(at.length * (1 - SIDE))]!]
  return (distance: number) => distance > first && distance < last
}

/**
 * Of all lines near one (in cells), that which costs least: what the takes differ by along it, and next to it, and much for each cell of somebody that it cuts
 * through; null where none parts the people.
 */
export function findSeam(of: Differences, from: Line): Line | null {
  const { width, height, mean, somebody } = of
  const cost = mean.map((v, i) => v + COSTS * somebody[i]!)
  const [cx, cy] = [width / 2, height / 2]
  const reach = Math.hypot(width, height) / 2
  let best: Line | null = null
  let least = Number.POSITIVE_INFINITY
  for (let turn = -TURN; turn <= TURN; turn += DEGREE) {
    const angle = from.angle + turn
    const [nx, ny] = [Math.cos(radians(angle)), Math.sin(radians(angle))]
    const parts = sides(of, angle)
    const was = (from.x - cx) * nx + (from.y - cy) * ny
    for (let distance = -reach; distance < reach; distance++) {
      if (!parts(distance + cx * nx + cy * ny)) continue
      const line = { x: cx + distance * nx, y: cy + distance * ny, angle }
      const here = meanAlong(of, cost, line)
      if (here === null || !crosses(of, line)) continue
      const next = [-1, 1].map(by => meanAlong(of, cost, aside(line, by)) ?? here)
      const sum =
        here + (next[0]! + next[1]!) / 4 + (AWAY * Math.abs(distance - was)) / width + (TURNED * Math.abs(turn)) / TURN
      if (sum >= least) continue
      least = sum
      best = line
    }
  }
  return best
}

/** Whether a line goes through a picture from one side to the one opposite: across a corner it parts nothing. */
function crosses({ width, height }: Size, line: Line): boolean {
  let count = 0
  along({ width, height }, line, () => count++)
  return count >= Math.min(width, height) * 0.98
}

/** px of feather, inside and outside together, that hide what is left along a seam (codes) without reaching somebody. `px`: of a cell. */
export function featherFor(of: Differences, seam: Seam, left: number, px: number): number {
  const wanted = Math.max(LEAST_FEATHER, Math.min(MOST_FEATHER, left * A_CODE))
  let room = 0
  while (room * px * 2 < wanted) {
    const isFree = [-room - 1, room + 1].every(by => (meanAlong(of, of.somebody, aside(seam, by)) ?? 0) === 0)
    if (!isFree) break
    room++
  }
  return Math.round(Math.max(LEAST_FEATHER, Math.min(wanted, room * 2 * px)))
}
