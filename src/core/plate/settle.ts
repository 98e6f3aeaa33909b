// The set where somebody hid it for most of the time, and was gone for the rest.
import { ALIKE, type Kept, medianCells } from './background'
import type { Cells } from './cells'
import { boxMean, type Plane, planeIn } from './plane'

/** Cells round each that have to differ for the most part. */
const ROUND = 2
/** Cells between parts of one thing, and between what is compared on both sides of its border. */
const JOINS = 3
/** Cells over whose mean a soft shadow is told, and codes of brightness that it takes there at least. */
const SOFT = 3
const SHADED = 2
/** Cells between a shadow and whoever casts it, how far from there it reaches at most as a share of the picture's width, and cells round both that are put right with them. */
const BESIDE = 12
const REACHES = 0.08
const ROUNDED = 4
/** Shares of all cells that is something, and of a thing's cells that have to look the same in two frames, or not, for both to show the same there. */
const SMALLEST = 0.0005
const SAME = 0.8
const OTHER = 0.5
/** By how much less the set's own border has to differ than that of whoever stands before it. */
const SMOOTHER = 0.75
/** Share of a thing's cells that change from one frame to another at least where somebody lives, and how many times those of the set. */
const LIVES = 0.01
const LIVELIER = 3

const isAlike = (a: Kept, b: Kept, i: number): boolean =>
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
function spread(found: number[], seen: Uint8Array, width: number, steps: number): number[] {
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

/** A thing with its soft shadow and all that is close to them: 1, else 0. What else differs is another thing, which the frame may not be right about. */
function surroundings(plate: Cells, frame: Kept, differs: Plane, found: readonly number[], out: Plane): void {
  const { k, y, u, v, width } = plate
  k.scope(() => {
    const [beside, darker] = [planeIn(k, out.length), planeIn(k, out.length)]
    for (const i of found) beside[i] = 1
    boxMean(k, plate, beside, BESIDE, beside)
    for (let i = 0; i < darker.length; i++) darker[i] = frame.y[i]! - y[i]!
    boxMean(k, plate, darker, SOFT, darker)
    const isShadow = (i: number) =>
      darker[i]! >= SHADED && Math.abs(u[i]! - frame.u[i]!) < ALIKE.u && Math.abs(v[i]! - frame.v[i]!) < ALIKE.v
    const seen = new Uint8Array(out.length)
    for (let i = 0; i < seen.length; i++) seen[i] = isShadow(i) ? 0 : 1
    const own = [...found]
    for (let i = 0; i < seen.length; i++) if (seen[i] === 0 && beside[i]! > 0) own.push(i)
    for (const i of own) seen[i] = 1
    spread(own, seen, width, REACHES * width)
    out.fill(0)
    for (const i of own) out[i] = 1
    boxMean(k, plate, out, ROUNDED, out)
    for (let i = 0; i < out.length; i++) out[i] = out[i]! > 0 && differs[i] === 0 ? 1 : 0
    for (const i of own) out[i] = 1
  })
}

/** Share of cells that change from one frame to the next, on average. */
function liveliness(frames: readonly Kept[], cells: readonly number[]): number {
  let changed = 0
  for (let f = 1; f < frames.length; f++) {
    for (const i of cells) if (!isAlike(frames[f - 1]!, frames[f]!, i)) changed++
  }
  return changed / Math.max(1, (frames.length - 1) * cells.length)
}

/** Whether a thing's border is that of something in the plate, and none in a frame. `differs`: 1 where the two differ. */
function isFramed(plate: Cells, frame: Kept, differs: Plane, cells: readonly number[]): boolean {
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
interface Thing {
  cells: number[]
  found: number[]
}

/** What differs in a frame, thing by thing, each with all that it takes up; what is too small to be one is none, and taken out of `differs`. */
function thingsIn(plate: Cells, frame: Kept, differs: Plane, near: Plane): Thing[] {
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

/** Frames that show the set where the plate has somebody, if one of them does; null where it does not, or they are too few to tell. */
function framesWithout(all: readonly Kept[], plate: Cells, frame: Kept, differs: Plane, cells: readonly number[]) {
  const shares = all.map(other => cells.filter(i => isAlike(frame, other, i)).length / cells.length)
  const empty = all.filter((_, f) => shares[f]! >= SAME)
  const hidden = all.filter((_, f) => shares[f]! < OTHER)
  if (empty.length < 2 || hidden.length < 2) return null
  const isAlive = liveliness(hidden, cells) >= Math.max(LIVES, LIVELIER * liveliness(empty, cells))
  return isAlive && isFramed(plate, frame, differs, cells) ? empty : null
}

/**
 * Puts the set into a plate of frames wherever somebody stands in it who was gone in at least two of them. Somebody has a border where the set goes on, and moves where the set is still; so a thing that
 * was there, gone, and lifeless both times stays as it was most of the time. (What was taken away and what was left behind are told by their borders as in Spagnolo and others, Moving object
 * segmentation by background subtraction and temporal analysis, 2006.) Returns 1 for each cell that was settled so, else 0. Throws OutOfMemory.
 */
export function putSetBack(all: readonly Kept[], plate: Cells): Uint8Array {
  const { k } = plate
  const settled = new Uint8Array(plate.y.length)
  k.scope(() => {
    const [differs, near, where] = [planeIn(k, settled.length), planeIn(k, settled.length), planeIn(k, settled.length)]
    for (const frame of all) {
      for (const { found, cells } of thingsIn(plate, frame, differs, near)) {
        const empty = framesWithout(all, plate, frame, differs, cells)
        if (!empty) continue
        surroundings(plate, frame, differs, found, where)
        medianCells(empty, plate, where)
        for (let i = 0; i < where.length; i++) if (where[i] === 1) settled[i] = 1
      }
    }
  })
  return settled
}
