// Somebody who stands in the plate.
import { type Kept, keptCells, medianCells } from './background'
import { blankCells, type Cells } from './cells'
import { inLight, measureGain } from './light'
import { planeIn } from './plane'
import { putSetBack } from './settle'
import { framesLike, isFramed, liveliness, thingsIn } from './things'

/** Share of a place's cells that changes from frame to frame where nothing but the set can be. */
const STILL = 0.01

/**
 * 0..1: on how much of the picture somebody stands in a plate, by frames of a take: there two of them at least are alike, and have no border where the plate has one. Throws OutOfMemory.
 */
export function occupied(plate: Cells, frames: readonly Kept[]): number {
  const { k, full } = plate
  return k.scope(() => {
    const [usual, lit] = [blankCells(k, full), blankCells(k, full)]
    medianCells(frames, usual)
    putSetBack(frames, usual)
    const set = keptCells(usual)
    inLight(usual, { gain: measureGain(plate, usual, null), offset: 0 }, lit)
    const take = keptCells(lit)
    const [differs, near] = [planeIn(k, plate.y.length), planeIn(k, plate.y.length)]
    const taken = thingsIn(plate, take, differs, near).filter(({ cells }) => {
      const seen = framesLike(frames, set, cells)
      return seen.length > 1 && liveliness(seen, cells) < STILL && isFramed(plate, take, differs, cells)
    })
    return taken.reduce((sum, { cells }) => sum + cells.length, 0) / plate.y.length
  })
}
