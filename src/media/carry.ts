// Takes cut out by strokes alone, stretch by stretch between the frames that were painted on.
import { blankCells, type Carrier, type Cells, carrier, hintOf, type Stroke, type Told } from '../core/plate'
import type { Kernels } from '../core/render'
import { type Counted, type Frames, frameAt, readFrame } from './counted'
import { ownKernels } from './own-kernels'
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
  /** Each way has room of its own: whoever goes outward from a painted frame asks now for the one, now for the other. */
  const ways = new Map<1 | -1, Carrier>()
  const reached = new Map<1 | -1, number>()
  const carrierOf = (way: 1 | -1): Carrier => {
    const at = ways.get(way) ?? carrier(own, take.size)
    ways.set(way, at)
    return at
  }

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

  async function* fromOne(from: number, index: number, isWanted: () => boolean): AsyncGenerator<CarriedFrame> {
    const way = index < from ? -1 : 1
    const at = carrierOf(way)
    let now = reached.get(way)
    if (now === undefined || (index - now) * way <= 0) {
      reached.delete(way)
      await begin(at, from, isWanted)
      now = from
      reached.set(way, now)
      if (index === from) yield { index, ...at.finish(frame, [{ told: at.told(), weight: 1 }]) }
    }
    while (now !== index) {
      await read(now + way, isWanted)
      at.go(frame)
      now += way
      // Stopped on the way it goes on from there.
      reached.set(way, now)
      yield { index: now, ...at.finish(frame, [{ told: at.told(), weight: 1 }]) }
    }
  }

  async function* fromBoth(first: number, last: number, isWanted: () => boolean): AsyncGenerator<CarriedFrame> {
    const at = carrierOf(1)
    const forward: Told[] = []
    reached.clear()
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
