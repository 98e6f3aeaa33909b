// How much grain a take has.
import type { Grain } from '../core/look'
import { blankCells, grainBetween, inLight, measureGain } from '../core/plate'
import type { Kernels } from '../core/render'
import { type Counted, type Frames, readFrame } from './counted'

/** Bytes for each px of three pictures as cells, with room to read them. */
const BYTES = 32
/** Of larger pictures nothing is told: a report is worth more than their grain. */
const MOST = 2 ** 29

/** Frames between those of which grain is told: in coded footage it stands still for some. */
export const APART = 15

/** The grain of a take about a frame; null where there are no two frames of it, or they are too large. Throws MediaProblem, OutOfMemory. */
export async function takeGrain(k: Kernels, frames: Frames, take: Counted, index: number): Promise<Grain | null> {
  const bytes = 2 ** 22 + take.size.width * take.size.height * BYTES
  if (take.count < 2 || bytes > MOST) return null
  const own = await k.apart(bytes)
  const [one, other, lit] = [blankCells(own, take.size), blankCells(own, take.size), blankCells(own, take.size)]
  await readFrame(k, frames, take, index, () => true, one)
  const about = (by: number) => [index - by, index + by].filter(i => i >= 0 && i < take.count)
  const far = about(APART)
  const beside = far.length > 0 ? far : about(1)
  const found: Grain[] = []
  for (const i of beside) {
    await readFrame(k, frames, take, i, () => true, other)
    inLight(other, { gain: measureGain(one, other, null), offset: 0 }, lit)
    found.push(grainBetween(one, lit))
  }
  // What moved adds to it and never takes away.
  const least = found.reduce((least, next) => (next.middle < least.middle ? next : least))
  const [dark, light] = [Math.min(...found.map(g => g.dark)), Math.min(...found.map(g => g.light))]
  return { ...least, dark, light }
}
