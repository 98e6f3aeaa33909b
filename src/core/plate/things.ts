// Things by which frames of a set differ: what hangs together, what moves in it, and whose border it has.
import { ALIKE, type Kept } from './background'
import type { Cells } from './cells'
import { boxMean, type Plane } from './plane'

/** Cells round each that have to differ for the most part. */
const ROUND = 2
/** Cells between parts of one thing, and between what is compared on both sides of its border. */
const JOINS = 3
/** Share of all cells that is something, and by how much less the set's own border has to differ than that of whoever stands before it. */
const SMALLEST = 0.0005
const SMOOTHER = 0.75
/** Shares of a thing's cells that have to look the same in two frames, or not, for both to show the same there. */
const SAME = 0.8
const OTHER = 0.5

/** Whether two frames look the same at a cell. */
export const isAlike = (a: Kept, b: Kept, i: number): boolean =>
  Math.abs(a.y[i]! - b.y[i]!) < ALIKE.y &&
  Math.abs(a.u[i]! - b.u[i]!) < ALIKE.u &&
  Math.abs(a.v[i]! - b.v[i]!) < ALIKE.v

const apart = (a: Kept, i: number, b: Kept, j: number): number =>
  Math.abs(a.y[i]! - b.y[j]!) + Math.abs(a.u[i]! - b.u[j]!) + Math.abs(a.v[i]! - b.v[j]!)

/** Where cells differ for the most part: 1, else 0. */
function differing(plate: Cells, frame: Kept, out: Plane): void {
  for (let i = 0; i < out.length; i++) out[i] = isAlike(plate, frame, i) ? 0 : 1
  boxMean(plate.k, plate, out, ROUND, out)
  for (let i = 0; i < out.length; i++) out[i] = out[i]! > 0.5 ? 1 : 0
}

/** Adds to cells those that hang together with them, at most so many steps away. `seen`: 1 for what is not to be come to. */
export function spread(found: number[], seen: Uint8Array, width: number, steps: number): number[] {
  for (let at = 0, ring = found.length, step = 0; at < found.length && step < steps; at++) {
    const i = found[at]!
    const x = i % width
    for (const j of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
      if (j < 0 || j >= seen.length || seen[j]) continue
      seen[j] = 1
      found.push(j)
    }
    if (at + 1 === ring) [ring, step] = [found.length, step + 1]
  }
  return found
}

/** Cells that hang together, thing by thing: those that differ, and those between them. */
function* joined(near: Plane, width: number): Generator<number[]> {
  const seen = new Uint8Array(near.length)
  for (let i = 0; i < seen.length; i++) seen[i] = near[i] === 0 ? 1 : 0
  for (let start = 0; start < near.length; start++) {
    if (seen[start]) continue
    seen[start] = 1
    yield spread([start], seen, width, Number.POSITIVE_INFINITY)
  }
}

const shareAlike = (a: Kept, b: Kept, cells: readonly number[]): number =>
  cells.filter(i => isAlike(a, b, i)).length / cells.length

/** Frames that show the same at some cells as one does. */
export const framesLike = (all: readonly Kept[], frame: Kept, cells: readonly number[]): Kept[] =>
  all.filter(other => shareAlike(frame, other, cells) >= SAME)

/** Frames that show something else there. */
export const framesUnlike = (all: readonly Kept[], frame: Kept, cells: readonly number[]): Kept[] =>
  all.filter(other => shareAlike(frame, other, cells) < OTHER)

/** Share of cells that change from one frame to the next, on average. */
export function liveliness(frames: readonly Kept[], cells: readonly number[]): number {
  let changed = 0
  for (let f = 1; f < frames.length; f++) {
    for (const i of cells) if (!isAlike(frames[f - 1]!, frames[f]!, i)) changed++
  }
  return changed / Math.max(1, (frames.length - 1) * cells.length)
}

/** Whether a thing's border is that of something in the plate, and none in a frame. `differs`: 1 where the two differ. */
export function isFramed(plate: Cells, frame: Kept, differs: Plane, cells: readonly number[]): boolean {
  const { width, height } = plate
  let [here, there] = [0, 0]
  for (const i of cells) {
    const [x, y] = [i % width, Math.floor(i / width)]
    for (const [dx, dy] of [
      [JOINS, 0],
      [-JOINS, 0],
      [0, JOINS],
      [0, -JOINS],
    ] as const) {
      if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue
      const j = i + dy * width + dx
      if (differs[j] === 1) continue
      here += apart(plate, i, plate, j)
      there += apart(frame, i, plate, j)
    }
  }
  return there < SMOOTHER * here
}

/** Cells that differ, and with them those between them. */
export interface Thing {
  cells: number[]
  found: number[]
}

/** What differs in a frame, thing by thing, each with all that it takes up; what is too small to be one is none, and taken out of `differs`. */
export function thingsIn(plate: Cells, frame: Kept, differs: Plane, near: Plane): Thing[] {
  differing(plate, frame, differs)
  boxMean(plate.k, plate, differs, JOINS, near)
  return [...joined(near, plate.width)]
    .map(found => ({ found, cells: found.filter(i => differs[i] === 1) }))
    .filter(({ cells }) => {
      const isOne = cells.length >= SMALLEST * differs.length
      if (!isOne) for (const i of cells) differs[i] = 0
      return isOne
    })
}
