// A take as frames that are counted, read one by one or one after the other.
import { type Cells, canShrink, readCells, readSmaller } from '../core/plate'
import type { Kernels, Picture } from '../core/render'
import { resample } from '../core/render'
import type { Film, Size, Take } from '../core/shot'
import { framesIn, frameToSeconds, type Rate, secondsToFrame } from '../core/time'
import { listen } from './listen'
import { Dropped } from './problem'

/** Where frames of takes come from, in use until they are given back. */
export interface Frames {
  get(digest: string, seconds: number, isWanted?: () => boolean): Promise<Picture>
  release(picture: Picture): void
}

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

/** Reads a frame of a take into cells, fitted to their size. Throws Dropped when `isWanted` turns false. */
export async function readFrame(
  k: Kernels,
  frames: Frames,
  of: Counted,
  index: number,
  isWanted: () => boolean,
  out: Cells,
): Promise<void> {
  readAs(k, frames, await frames.get(of.digest, momentOf(of, index), isWanted), out)
}

/**
 * Reads frames of a take one after the other, each into the cells that `into` gives for it, and names each once it is there: the next one is decoded while whoever asked looks
 * at it. Throws Dropped when `isWanted` turns false.
 */
export async function* framesInTurn(
  k: Kernels,
  frames: Frames,
  of: Counted,
  indices: readonly number[],
  isWanted: () => boolean,
  into: (index: number) => Cells,
): AsyncGenerator<number, void, undefined> {
  const asked = (at: number): Promise<Picture> | null => {
    const index = indices[at]
    if (index === undefined) return null
    const picture = frames.get(of.digest, momentOf(of, index), isWanted)
    // Nobody may come to wait for it.
    picture.catch(() => {})
    return picture
  }
  let coming = asked(0)
  try {
    for (const [at, index] of indices.entries()) {
      if (!isWanted()) throw new Dropped('A newer frame is wanted.')
      const picture = await coming!
      coming = asked(at + 1)
      readAs(k, frames, picture, into(index))
      if (coming) await listen()
      yield index
    }
  } finally {
    coming?.then(frames.release, () => {})
  }
}

/** Whole numbers from one to before another, up or down; none where both are the same. */
export const indicesFrom = (from: number, end: number): number[] =>
  Array.from({ length: Math.abs(end - from) }, (_, i) => from + (end < from ? -i : i))
