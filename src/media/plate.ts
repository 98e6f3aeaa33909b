// Plates: the mean of frames that show a set empty, or what shows most of the time while people move about in it.
import { LRUCache } from 'lru-cache'
import {
  blankCells,
  type Cells,
  type Cut,
  cellsPicture,
  copyCells,
  emptyMean,
  inLight,
  type Kept,
  keptCells,
  measureGain,
  medianCells,
  putSetBack,
  seldomSeen,
} from '../core/plate'
import type { Codes, Kernels } from '../core/render'
import type { Size } from '../core/shot'
import { type Counted, type Frames, frameAt, framesInTurn, indicesFrom } from './counted'
import { ownKernels } from './own-kernels'
import { Dropped, MediaProblem } from './problem'

/** Frames of a plate that are averaged at most. */
const PLATE_FRAMES = 12

/** By how much the sides of a plate may be in another proportion than the take's. */
const ASKEW = 0.01

/** Bytes of plates that are kept once they are read: the next setting that is tried, or the next take, asks for the same one. */
const KEPT_PLATES = 64 * 2 ** 20

const PLANES = ['y', 'u', 'v', 'luma'] as const
type Mean = Record<(typeof PLANES)[number], Float32Array>

/** Of each source of frames the plates that were read of it last. */
const means = new WeakMap<Frames, LRUCache<string, Mean>>()

function meansOf(frames: Frames): LRUCache<string, Mean> {
  const sizeCalculation = (mean: Mean) => PLANES.reduce((sum, name) => sum + mean[name].byteLength, 0)
  const known = means.get(frames) ?? new LRUCache<string, Mean>({ maxSize: KEPT_PLATES, sizeCalculation })
  means.set(frames, known)
  return known
}

/** The mean of a plate's frames from one moment to another, or of the longest part of them in which nobody comes or goes, in px of the take. Throws MediaProblem where it cannot be that take's plate. */
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
  const own = await ownKernels(k, size)
  const mean = blankCells(own, size)
  const [kept, key] = [meansOf(frames), [plate.digest, first, last, size.width, size.height].join(' ')]
  const known = kept.get(key)
  if (known) {
    for (const name of PLANES) mean[name].set(known[name])
    return mean
  }
  const cells = blankCells(own, size)
  const spread = indicesFrom(0, count).map(i => first + Math.round((i * (last - first)) / Math.max(1, count - 1)))
  const empty = emptyMean(mean, count)
  for await (const _ of framesInTurn(k, frames, plate, spread, isWanted, () => cells)) empty.add(cells)
  empty.end()
  const { y, u, v, luma } = mean
  kept.set(key, { y: y.slice(), u: u.slice(), v: v.slice(), luma: luma.slice() })
  return mean
}

/** Frames of which a plate is made while people are in them, as long as they take no more bytes than that together; bytes for each of their px. */
const SETTLED_FRAMES = 15
const [MOST_KEPT, KEPT_BYTES] = [2 ** 29, 7]

/** Told how far it is, 0..1; says whether to go on. */
type OnFrame = (share: number) => boolean | Promise<boolean>

interface Sampled {
  frames: Kept[]
  /** In the memory that the plate is made in, for one picture. */
  cells: Cells
}

/** Frames of takes, spread over their time, in the light of the first of them. */
async function sampled(
  k: Kernels,
  frames: Frames,
  takes: readonly Counted[],
  size: Size,
  onFrame: OnFrame,
): Promise<Sampled> {
  const room = Math.floor(MOST_KEPT / (size.width * size.height * KEPT_BYTES))
  const each = Math.max(3, Math.ceil(Math.min(SETTLED_FRAMES, room) / takes.length))
  const own = await ownKernels(k, size)
  const [cells, lit, first] = [blankCells(own, size), blankCells(own, size), blankCells(own, size)]
  const read: Kept[] = []
  const all = takes.reduce((sum, { count }) => sum + Math.min(each, count), 0)
  for (const take of takes) {
    const count = Math.min(each, take.count)
    const spread = indicesFrom(0, count).map(i => Math.floor(((i + 0.5) * take.count) / count))
    for await (const _ of framesInTurn(
      k,
      frames,
      take,
      spread,
      () => true,
      () => cells,
    )) {
      if (!(await onFrame(read.length / all))) throw new Dropped('Nobody wants the plate any more.')
      if (take === takes[0]) {
        if (read.length === 0) copyCells(cells, first)
        read.push(keptCells(cells))
      } else {
        inLight(cells, { gain: measureGain(first, cells, null), offset: 0 }, lit)
        read.push(keptCells(lit))
      }
    }
  }
  // What is made of them is as the first of them is.
  cells.chroma = first.chroma
  return { frames: read, cells }
}

/** A plate of takes in which people move about: what shows most of the time, as it is in px and light of the first. Throws MediaProblem. */
export async function settledPlate(k: Kernels, frames: Frames, takes: readonly Counted[], size: Size): Promise<Cells> {
  const { frames: read, cells } = await sampled(k, frames, takes, size, () => true)
  medianCells(read, cells)
  putSetBack(read, cells)
  return cells
}

/** A plate as a picture. */
export interface PlatePicture {
  /** In the memory of the kernels; clear where the set was hardly ever seen, with the best guess under it. */
  picture: Codes
  /** How much of it is, 0..1. */
  open: number
}

/**
 * A plate of takes of one size, as a picture. Throws MediaProblem, OutOfMemory, and Dropped where `onFrame` says no.
 */
export async function platePicture(
  k: Kernels,
  frames: Frames,
  takes: readonly Counted[],
  onFrame: OnFrame = () => true,
): Promise<PlatePicture> {
  const { size } = takes[0]!
  const other = takes.find(t => t.size.width !== size.width || t.size.height !== size.height)
  if (other) throw new MediaProblem('takes of different sizes cannot show the same set')
  const { frames: read, cells } = await sampled(k, frames, takes, size, onFrame)
  medianCells(read, cells)
  const settled = putSetBack(read, cells)
  const seldom = seldomSeen(read, cells)
  const made = cellsPicture(cells)
  const ptr = k.alloc(size.width * size.height * 4)
  const rgba = k.bytes(ptr, size.width * size.height * 4)
  rgba.set(cells.k.bytes(made.ptr, rgba.length))
  cells.k.free(made.ptr)
  let open = 0
  for (let y = 0, p = 3; y < size.height; y++) {
    for (let x = 0; x < size.width; x++, p += 4) {
      const i = (y >> 1) * cells.width + (x >> 1)
      if (seldom[i] === 0 || settled[i] === 1) continue
      rgba[p] = 0
      open++
    }
  }
  return { picture: { kind: 'codes', ...size, ptr, opaque: open === 0 }, open: open / (size.width * size.height) }
}
