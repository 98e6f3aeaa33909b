// Takes cut out by their plates, some frames at a time: whoever asks for which frame first, it comes out the same.
import { LRUCache } from 'lru-cache'
import {
  blankCells,
  type Cells,
  CUTTING_BYTES,
  type Cutout,
  canShrink,
  cutout,
  type Hint,
  hintOf,
  type Measured,
  readCells,
  readSmaller,
  type Stroke,
} from '../core/plate'
import type { Kernels, Picture } from '../core/render'
import { resample } from '../core/render'
import type { Film, Size, Take } from '../core/shot'
import { framesIn, frameToSeconds, type Rate, secondsToFrame } from '../core/time'
import { Dropped, MediaProblem } from './problem'

/** Where frames of takes come from, in use until they are given back. */
export interface Frames {
  get(digest: string, seconds: number, isWanted?: () => boolean): Promise<Picture>
  release(picture: Picture): void
}

/** Frames that are cut out together, and those before them from which is learnt how somebody looks. */
export const TOGETHER = 8
const LEAD = 1

/** No memory of WebAssembly is larger than twice that, and few machines have more to spare. */
const MOST_BYTES = 2 ** 31

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

/** A take as frames that are counted. */
export interface Counted {
  digest: string
  size: Size
  /** Of a still there is one frame, of which any moment is. */
  rate: Rate | null
  count: number
}

/** A take's picture as counted frames; null where it has none that can be cut out. */
export function countedFrames(digest: string, picture: Take['picture']): Counted | null {
  if (!picture || picture.kind === 'drawing') return null
  if (picture.kind === 'still') return { digest, size: picture.size, rate: null, count: 1 }
  const { size, rate, seconds }: Film = picture
  return { digest, size, rate, count: framesIn(seconds, rate) }
}

/** The frame that shows at a moment. */
export const frameAt = ({ rate, count }: Counted, seconds: number): number =>
  rate ? Math.max(0, Math.min(count - 1, secondsToFrame(seconds + 1e-3, rate))) : 0

const momentOf = ({ rate }: Counted, frame: number): number => (rate ? frameToSeconds(frame, rate) : 0)

/** Reads a frame of a take into cells, fitted to their size. Throws Dropped when `isWanted` turns false. */
export async function readFrame(
  k: Kernels,
  frames: Frames,
  of: Counted,
  index: number,
  isWanted: () => boolean,
  out: Cells,
): Promise<void> {
  const picture = await frames.get(of.digest, momentOf(of, index), isWanted)
  readAs(k, frames, picture, out)
}

/** Reads a picture into cells, fitted to their size, and gives it back. */
function readAs(k: Kernels, frames: Frames, picture: Picture, out: Cells): void {
  try {
    const { width, height } = out.full
    if (picture.width === width && picture.height === height) readCells(k, picture, out)
    else if (canShrink(picture, out)) readSmaller(k, picture, out)
    else {
      const fit = { width, height, x: 0, y: 0, scaleX: width / picture.width, scaleY: height / picture.height }
      const fitted = resample(k, picture, fit)
      try {
        readCells(k, fitted, out)
      } finally {
        k.free(fitted.ptr)
      }
    }
  } finally {
    frames.release(picture)
  }
}

/** A memory of their own for what cuts pictures of a size out: it is large, and goes with it. Throws MediaProblem where there is none so large. */
export async function ownKernels(k: Kernels, { width, height }: Size): Promise<Kernels> {
  const bytes = 2 ** 22 + (width + 2) * (height + 2) * CUTTING_BYTES
  try {
    if (bytes <= MOST_BYTES) return await k.apart(bytes)
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
  }
  throw new MediaProblem(`there is not enough memory to cut pictures of ${width}×${height} out by a plate`)
}

/** Cells of 2×2 px that a picture has. */
export const cellsOf = ({ width, height }: Size): number => ((width + 1) >> 1) * ((height + 1) >> 1)

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
  const asked = (i: number, isWanted: () => boolean) => {
    const picture = frames.get(take.digest, momentOf(take, i), isWanted)
    // Nobody may come to wait for it.
    picture.catch(() => {})
    return picture
  }

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
      const { hints: all } = painted
      const end = toAndFro === name ? endOf(start) : index + 1
      let coming: Promise<Picture> | null = asked(first, isWanted)
      try {
        for (let i = first; i < end; i++) {
          if (!isWanted()) throw new Dropped('A newer frame is wanted.')
          const [frame, picture]: [Cells, Picture] = [two[i % 2]!, await coming!]
          // The next one is decoded while this one is cut out, for whoever comes back for it, too.
          coming = i + 1 < endOf(start) ? asked(i + 1, isWanted) : null
          begun = null
          readAs(k, frames, picture, frame)
          const hints = all.map(({ hint, index }) => ({ hint, apart: Math.abs(index - i) }))
          const { alpha, colours, shadow, ...seen } = cutter.next(frame, hints)
          begun = { name, start, next: i + 1 }
          if (i >= start) yield { index: i, alpha, colours, shadow, seen }
        }
      } finally {
        coming?.then(
          picture => frames.release(picture),
          () => {},
        )
      }
    },
  }
}
