// The set where somebody hid it for most of the time, and was gone for the rest.
import { ALIKE, type Kept, medianCells } from './background'
import type { Cells } from './cells'
import { boxMean, type Plane, planeIn } from './plane'
import { framesLike, framesUnlike, isAlike, isFramed, liveliness, spread, thingsIn } from './things'

/** Cells over whose mean a soft shadow is told, and codes of brightness that it takes there at least. */
const SOFT = 3
const SHADED = 2
/** Cells between a shadow and whoever casts it, how far from there it reaches at most as a share of the picture's width, and cells round both that are put right with them. */
const BESIDE = 12
const REACHES = 0.08
const ROUNDED = 4
/** Share of a thing's cells that change from one frame to another at least where somebody lives, and how many times those of the set. */
const LIVES = 0.01
const LIVELIER = 3

/** A thing with its soft shadow, scraps too small to be things, and all that is close to them: 1, else 0. What else differs is another thing, which the frame may not be right about. */
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
    const isScrap = (i: number) => differs[i] === 0 && !isAlike(plate, frame, i)
    for (let i = 0; i < seen.length; i++) if (beside[i]! > 0 && (seen[i] === 0 || isScrap(i))) own.push(i)
    for (const i of own) seen[i] = 1
    spread(own, seen, width, REACHES * width)
    out.fill(0)
    for (const i of own) out[i] = 1
    boxMean(k, plate, out, ROUNDED, out)
    for (let i = 0; i < out.length; i++) out[i] = out[i]! > 0 && differs[i] === 0 ? 1 : 0
    for (const i of own) out[i] = 1
  })
}

/** Frames that show the set where the plate has somebody, if one of them does; null where it does not, or they are too few to tell. */
function framesWithout(all: readonly Kept[], plate: Cells, frame: Kept, differs: Plane, cells: readonly number[]) {
  const empty = framesLike(all, frame, cells)
  const hidden = framesUnlike(all, frame, cells)
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
