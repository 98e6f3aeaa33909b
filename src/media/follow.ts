// A point of a take followed through its frames, there and back.
import type { Point } from '../core/affine'
import { type Followed, followPoint, type Grey } from '../core/follow'
import { blankCells, type Cells } from '../core/plate'
import type { Kernels } from '../core/render'
import { type Counted, type Frames, ownKernels, readFrame } from './cutout'
import { MediaProblem } from './problem'

export interface Place extends Followed {
  frame: number
}

/** A frame in grey, apart from the kernels' memory. */
async function greyFrame(k: Kernels, frames: Frames, take: Counted, index: number, cells: Cells): Promise<Grey> {
  await readFrame(k, frames, take, index, () => true, cells)
  return { ...take.size, data: cells.luma.slice() }
}

/**
 * Where a point of frame `from`, px from the left top corner, lies in every frame of a take, in order. Once it is lost it stays where it was last seen until it is found
 * again. Throws MediaProblem where there is too little to hold on to.
 */
export async function followThrough(
  k: Kernels,
  frames: Frames,
  take: Counted,
  from: number,
  at: Point,
  onFrame: (done: number) => void = () => {},
): Promise<Place[]> {
  const cells = blankCells(await ownKernels(k, take.size), take.size)
  const first = await greyFrame(k, frames, take, from, cells)
  const places: Place[] = [{ ...at, frame: from, sure: 1, isLost: false }]
  for (const step of [1, -1]) {
    const follower = followPoint(first, at)
    if (!follower)
      throw new MediaProblem('There is too little at this point to hold on to: choose a corner, or a spot.')
    for (let frame = from + step; frame >= 0 && frame < take.count; frame += step) {
      places.push({ ...follower.next(await greyFrame(k, frames, take, frame, cells)), frame })
      onFrame(places.length)
    }
  }
  return places.sort((a, b) => a.frame - b.frame)
}
