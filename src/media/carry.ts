// Takes cut out by strokes alone, stretch by stretch between the frames that were painted on.
import { blankCells, type Carrier, type Cells, carrier, hintOf, type Stroke, type Told } from '../core/plate'
import type { Kernels } from '../core/render'
import { type Counted, type Frames, frameAt, ownKernels, readFrame } from './cutout'
import { Dropped } from './problem'

export interface CarriedFrame {
  index: number
  alpha: Uint8Array
  colours: Uint8Array
  unsure: number
}

export interface Carrying {
  /** Bytes that it holds. */
  bytes: number
  /** The frames that are made on the way to one, it among them. Throws Dropped when `isWanted` turns false. */
  towards(index: number, isWanted: () => boolean): AsyncGenerator<CarriedFrame, void, unknown>
}

/** How far it has been carried from a painted frame one way. */
interface Reached {
  index: number
  carrier: Carrier
}

/**
 * Prepares a take for being cut out by strokes on one of its frames, or on two: then what lies between them is told from both sides. From one alone it is carried as far as it
 * is asked for. Throws MediaProblem, OutOfMemory.
 */
export async function startCarrying(
  k: Kernels,
  frames: Frames,
  take: Counted,
  strokes: readonly Stroke[],
): Promise<Carrying> {
  const own = await ownKernels(k, take.size)
  const frame: Cells = blankCells(own, take.size)
  const painted = [...new Set(strokes.map(s => frameAt(take, s.at)))].sort((a, b) => a - b)
  const sides = new Map<number, Reached>()
  let shared: Carrier | null = null

  const read = (index: number, isWanted: () => boolean) => {
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    return readFrame(k, frames, take, index, isWanted, frame)
  }

  async function begin(at: Carrier, index: number, isWanted: () => boolean): Promise<void> {
    await read(index, isWanted)
    at.begin(
      frame,
      strokes.filter(s => frameAt(take, s.at) === index).map(s => hintOf(s, frame)),
    )
  }

  /** One side after the other has the same room. */
  const carrying = (): Carrier => {
    shared ??= carrier(own, take.size)
    return shared
  }

  async function* fromOne(from: number, index: number, isWanted: () => boolean): AsyncGenerator<CarriedFrame> {
    const step = index < from ? -1 : 1
    const at = carrying()
    let reached = sides.get(step)
    // Both ways share their room: what the other way left there is of no use.
    if (!reached || (index - reached.index) * step < 0) {
      sides.clear()
      await begin(at, from, isWanted)
      reached = { index: from, carrier: at }
      if (index === from) yield { index, ...at.finish(frame, [{ told: at.told(), weight: 1 }]) }
      sides.set(step, reached)
    }
    while (reached.index !== index) {
      await read(reached.index + step, isWanted)
      at.go(frame)
      reached.index += step
      const told = at.told()
      yield { index: reached.index, ...at.finish(frame, [{ told, weight: 1 }]) }
    }
  }

  async function* fromBoth(first: number, last: number, isWanted: () => boolean): AsyncGenerator<CarriedFrame> {
    const at = carrying()
    const forward: Told[] = []
    sides.clear()
    await begin(at, first, isWanted)
    for (let i = first + 1; i < last; i++) {
      await read(i, isWanted)
      at.go(frame)
      forward.push(at.told())
    }
    await begin(at, last, isWanted)
    for (let i = last - 1; i > first; i--) {
      await read(i, isWanted)
      at.go(frame)
      const back = (i - first) / (last - first)
      const told = [
        { told: forward[i - first - 1]!, weight: 1 - back },
        { told: at.told(), weight: back },
      ]
      yield { index: i, ...at.finish(frame, told) }
    }
  }

  return {
    bytes: own.total,
    async *towards(index, isWanted) {
      const [first, last] = painted
      if (first === undefined) return
      if (last === undefined || index <= first || index >= last) {
        yield* fromOne(index <= first || last === undefined ? first : last, index, isWanted)
      } else yield* fromBoth(first, last, isWanted)
    },
  }
}
