// Takes cut out by their plates, some frames at a time: whoever asks for which frame first, it comes out the same.
import { blankCells, type Cells, type Cut, type Cutout, cutout, meanCells, medianCells, readCells } from '../core/plate'
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
export const TOGETHER = 6
const LEAD = 1

/** Frames of a plate that are averaged at most. */
const PLATE_FRAMES = 12

/** By how much the sides of a plate may be in another proportion than the take's. */
const ASKEW = 0.01

export interface CutFrame {
  index: number
  /** Of each px, 0..255: how much of it is somebody. */
  alpha: Uint8Array
  /** Of each cell of 2×2 px, 0..1. */
  shadow: Float32Array
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

async function readFrame(
  k: Kernels,
  frames: Frames,
  of: Counted,
  index: number,
  isWanted: () => boolean,
  out: Cells,
): Promise<void> {
  const picture = await frames.get(of.digest, momentOf(of, index), isWanted)
  try {
    const { width, height } = out.full
    if (picture.width === width && picture.height === height) return readCells(k, picture, out)
    const fit = { width, height, x: 0, y: 0, scaleX: width / picture.width, scaleY: height / picture.height }
    const fitted = resample(k, picture, fit)
    try {
      readCells(k, fitted, out)
    } finally {
      k.free(fitted.ptr)
    }
  } finally {
    frames.release(picture)
  }
}

/** The mean of a plate's frames from one moment to another, in px of the take. Throws MediaProblem where it cannot be that take's plate. */
export async function readPlate(
  k: Kernels,
  frames: Frames,
  plate: Counted,
  { from, to }: Pick<Cut, 'from' | 'to'>,
  size: Size,
  isWanted: () => boolean,
): Promise<Cells> {
  const askew = (plate.size.width * size.height) / (plate.size.height * size.width)
  if (Math.abs(askew - 1) > ASKEW) {
    const told = ({ width, height }: Size) => `${width}×${height}`
    throw new MediaProblem(`the plate is ${told(plate.size)}, which is another shape than ${told(size)}`)
  }
  const [first, last] = [frameAt(plate, from), Math.max(frameAt(plate, from), frameAt(plate, to))]
  const count = Math.min(PLATE_FRAMES, last - first + 1)
  const read: Cells[] = []
  for (let i = 0; i < count; i++) {
    const cells = blankCells(size)
    await readFrame(
      k,
      frames,
      plate,
      first + Math.round((i * (last - first)) / Math.max(1, count - 1)),
      isWanted,
      cells,
    )
    read.push(cells)
  }
  return meanCells(read)
}

/** Frames of a take of which a plate is made while people are in them. */
const SETTLED_FRAMES = 15

/** A plate of takes in which people move about: what shows most of the time, as it is in px of the first. Throws MediaProblem. */
export async function settledPlate(k: Kernels, frames: Frames, takes: readonly Counted[], size: Size): Promise<Cells> {
  const each = Math.max(3, Math.ceil(SETTLED_FRAMES / takes.length))
  const read: Cells[] = []
  for (const take of takes) {
    const count = Math.min(each, take.count)
    for (let i = 0; i < count; i++) {
      const cells = blankCells(size)
      await readFrame(k, frames, take, Math.floor(((i + 0.5) * take.count) / count), () => true, cells)
      read.push(cells)
    }
  }
  return medianCells(read)
}

/** Each value of cells of 0..1 for its 2×2 px, 0..255. */
export function spreadCells(cells: Float32Array, { width, height }: Size): Uint8Array {
  const across = (width + 1) >> 1
  return Uint8Array.from({ length: width * height }, (_, p) => {
    const y = Math.floor(p / width)
    return Math.round(cells[(y >> 1) * across + ((p - y * width) >> 1)]! * 255)
  })
}

/** A take that is cut out. */
export interface Cutting {
  /** The frames that are made together with one, in order, each as it is there. Throws Dropped when `isWanted` turns false. */
  together(index: number, isWanted: () => boolean): AsyncGenerator<CutFrame, void, unknown>
}

/** Prepares a take for being cut out by its plate, which is as large. */
export function startCutting(k: Kernels, frames: Frames, take: Counted, plate: Cells, sensitive: number): Cutting {
  const cutter: Cutout = cutout(plate, sensitive)
  const frame = blankCells(take.size)
  return {
    async *together(index, isWanted) {
      const start = index - (index % TOGETHER)
      cutter.restart()
      for (let i = Math.max(0, start - LEAD); i < Math.min(take.count, start + TOGETHER); i++) {
        if (!isWanted()) throw new Dropped('A newer frame is wanted.')
        await readFrame(k, frames, take, i, isWanted, frame)
        const { alpha, shadow } = cutter.next(frame)
        if (i >= start) yield { index: i, alpha, shadow }
      }
    },
  }
}
