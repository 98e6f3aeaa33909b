// A take looked through for what its camera, its light and its people do: smaller than it is, which tells as much and takes a fraction of the time.
import { blankCells, cutout, type Kept, keptCells, occupied, type Seen } from '../core/plate'
import type { Kernels } from '../core/render'
import type { Size, Stretch } from '../core/shot'
import { type Counted, type Frames, framesInTurn, indicesFrom } from './counted'
import { APART, takeGrain } from './grain'
import { readPlate, settledPlate } from './plate'

/** px of the longer side that is looked at. */
const LOOKED = 640

/** Frames, spread over a take, by which somebody is told who stands in its plate. */
const COMPARED = 9

/** Where in a take its grain is told, in shares of its length. */
const GRAINED = [0.25, 0.5, 0.75]

const looked = ({ width, height }: Size): Size => {
  const share = Math.min(1, LOOKED / Math.max(width, height))
  return { width: Math.max(2, Math.round(width * share)), height: Math.max(2, Math.round(height * share)) }
}

/**
 * What each frame of a take tells against its plate, in order; against what shows most of the time in the take itself where there is none. Movement is in px of the take.
 * Throws MediaProblem, and Dropped when `isWanted` turns false.
 */
export async function* lookThrough(
  k: Kernels,
  frames: Frames,
  take: Counted,
  plate: (Stretch & { of: Counted }) | null,
  isWanted: () => boolean = () => true,
): AsyncGenerator<Seen> {
  const size = looked(take.size)
  const cells = plate
    ? await readPlate(k, frames, plate.of, plate, size, isWanted)
    : await settledPlate(k, frames, [take], size)
  const cutter = cutout(cells)
  const two = [blankCells(cells.k, size), blankCells(cells.k, size)] as const
  const px = take.size.width / size.width
  // Told as soon as the last of the frames that it is told from has come: the others are at hand then.
  const grained = new Map(
    GRAINED.map(share => Math.floor(share * take.count)).map(at => [Math.min(at + APART, take.count - 1), at]),
  )
  const compared: Kept[] = []
  for await (const i of framesInTurn(k, frames, take, indicesFrom(0, take.count), isWanted, i => two[i % 2]!)) {
    const frame = two[i % 2]!
    if (plate && i === Math.floor(((compared.length + 0.5) * take.count) / COMPARED)) compared.push(keptCells(frame))
    const isLast = i === take.count - 1
    const { movement, gain, share, unsure, shade, sharp, dark, bright, where } = cutter.look(frame)
    const { x, y, turn, scale } = movement
    const at = grained.get(i)
    const grain = at === undefined ? null : await takeGrain(k, frames, take, at)
    yield {
      ...(grain && { grain }),
      ...(isLast && compared.length > 1 && { occupied: occupied(cells, compared) }),
      movement: { x: x * px, y: y * px, turn, scale },
      gain,
      veiled: cutter.light(frame),
      share,
      unsure,
      shade,
      sharp,
      dark,
      bright,
      where,
    }
  }
}
