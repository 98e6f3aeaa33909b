// Takes cut out by their plates, some frames at a time: whoever asks for which frame first, it comes out the same.
import { LRUCache } from 'lru-cache'
import {
  blankCells,
  type Cells,
  type Cutout,
  cutout,
  type Hint,
  hintOf,
  type Measured,
  type Stroke,
} from '../core/plate'
import type { Kernels } from '../core/render'
import { type Counted, type Frames, frameAt, framesInTurn, indicesFrom, readFrame } from './counted'

/** Frames that are cut out together, and those before them from which is learnt how somebody looks. */
export const TOGETHER = 8
const LEAD = 1

export interface CutFrame {
  index: number
  /** Of each px, 0..255: how much of it is somebody. */
  alpha: Uint8Array
  /** Red, green and blue of px that are neither nought nor all somebody's, in order: theirs. */
  colours: Uint8Array
  /** Of each cell of 2×2 px, 0..255. */
  shadow: Uint8Array
  seen: Measured
}

/** How somebody is told from their plate. */
export interface Telling {
  /** Equal names tell equally. */
  name: string
  /** 0..100, how little they have to differ from it. */
  sensitive: number
  /** All that bear on what is asked for. */
  strokes: readonly Stroke[]
}

/** A take that is cut out. */
export interface Cutting {
  /** The frames that lead to one, in order, it being the last, and those after it that will be asked for as well; each as it is there. Throws Dropped when `isWanted` turns false. */
  upTo(index: number, telling: Telling, isWanted: () => boolean): AsyncGenerator<CutFrame, void, unknown>
}

/** Strokes with the frames that they were painted on; those are read into `cells`. */
async function hintsOf(
  k: Kernels,
  frames: Frames,
  take: Counted,
  strokes: readonly Stroke[],
  cells: Cells,
  isWanted: () => boolean,
): Promise<{ hint: Hint; index: number }[]> {
  const found: { hint: Hint; index: number }[] = []
  for (const stroke of strokes) {
    const index = frameAt(take, stroke.at)
    await readFrame(k, frames, take, index, isWanted, cells)
    found.push({ hint: hintOf(stroke, cells), index })
  }
  return found
}

/** Prepares a take for being cut out by its plate, which is as large. */
export function startCutting(k: Kernels, frames: Frames, take: Counted, plate: Cells): Cutting {
  const cutter: Cutout = cutout(plate)
  const two = [blankCells(plate.k, take.size), blankCells(plate.k, take.size)] as const
  let painted: { name: string; hints: { hint: Hint; index: number }[] } | null = null
  /** The first of those together that were begun last, how they are told, and which of them comes next. */
  let begun: { name: string; start: number; next: number } | null = null
  /** Those that were left before their end; whoever comes back to any is seen to go to and fro, and waits less for all at once. */
  const left = new LRUCache<string, true>({ max: 64 })
  let toAndFro: string | null = null
  const endOf = (start: number) => Math.min(take.count, start + TOGETHER)

  /** Which frame comes first on the way to one. */
  function beginFor(index: number, start: number, { name, sensitive }: Telling): number {
    if (begun?.name === name && begun.start === start && begun.next <= index) return begun.next
    if (begun && begun.next < endOf(begun.start)) left.set(`${begun.name} ${begun.start}`, true)
    if (left.has(`${name} ${start}`)) toAndFro = name
    begun = null
    cutter.restart(sensitive)
    return Math.max(0, start - LEAD)
  }

  return {
    async *upTo(index, telling, isWanted) {
      const { name, strokes } = telling
      const start = index - (index % TOGETHER)
      const first = beginFor(index, start, telling)
      if (painted?.name !== name) painted = { name, hints: await hintsOf(k, frames, take, strokes, two[0], isWanted) }
      const { hints } = painted
      const end = toAndFro === name ? endOf(start) : index + 1
      // The next one is decoded while this one is cut out, for whoever comes back for it, too.
      const all = indicesFrom(first, endOf(start))
      for await (const i of framesInTurn(k, frames, take, all, isWanted, i => two[i % 2]!)) {
        begun = null
        const near = hints.map(({ hint, index }) => ({ hint, apart: Math.abs(index - i) }))
        const { alpha, colours, shadow, ...seen } = cutter.next(two[i % 2]!, near)
        begun = { name, start, next: i + 1 }
        if (i >= start) yield { index: i, alpha, colours, shadow, seen }
        if (i + 1 === end) return
      }
    },
  }
}
