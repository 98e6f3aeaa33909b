// Pictures that are made of takes by recipe, when they are first asked for, and kept packed.
import { LRUCache } from 'lru-cache'
import type { Box } from '../core/affine'
import type { DerivedNeed } from '../core/picture'
import { CARRIED_METHOD, COLOURS_PART, CUTOUT_METHOD, cutOf, strokesOf } from '../core/plate'
import { type Recipe, recipeKey } from '../core/recipe'
import type { Codes, Kernels } from '../core/render'
import type { Size } from '../core/shot'
import { startCarrying } from './carry'
import { type Counted, type Frames, frameAt } from './counted'
import { startCutting, TOGETHER } from './cutout'
import { type DerivedFrame, type FramePlace, packFrame, runsOf, unpackColours } from './derived-frame'
import type { Held, HeldPictures } from './held'
import { readPlate } from './plate'
import { MediaProblem } from './problem'
import { unpackRuns } from './runs'

/** Bytes that what makes frames may hold together; what is used last is kept whatever it holds. */
const PREPARED = 450 * 2 ** 20
/** Bytes of packed pictures that are kept. */
const KEPT = 96 * 2 ** 20

/** Cells of 2×2 px that a picture has. */
const cellsOf = ({ width, height }: Size): number => ((width + 1) >> 1) * ((height + 1) >> 1)

/** What makes frames by recipes that share what is prepared for them. */
interface Prepared {
  /** The frames that come with one and were not made yet, in order. */
  frames(recipe: Recipe, index: number, isWanted: () => boolean): AsyncIterable<DerivedFrame>
  /** That it holds. */
  bytes: number
}

interface Method {
  /** What of a recipe has to be the same for sharing what is prepared. */
  shared(recipe: Recipe): Recipe
  /** So many frames, counted from the first of the take, are made one after another; Infinity: all of them. */
  together: number
  prepare(k: Kernels, source: DerivedSource, recipe: Recipe, isWanted: () => boolean): Promise<Prepared>
}

export interface DerivedSource extends Frames {
  /** A take as frames that are counted. Throws MediaProblem where it has none. */
  counted(digest: string): Promise<Counted>
}

/** How each method makes what its recipes ask for. */
const METHODS: Readonly<Record<string, Method>> = {
  [CUTOUT_METHOD]: {
    shared(recipe) {
      const { from, to } = cutOf(recipe)
      return { ...recipe, settings: { from, to } }
    },
    together: TOGETHER,
    async prepare(k, source, recipe, isWanted) {
      const [take, plate] = [await source.counted(recipe.of[0]!), await source.counted(recipe.of[1]!)]
      const { from, to } = cutOf(recipe)
      const cells = await readPlate(k, source, plate, { from, to }, take.size, isWanted)
      const cutting = startCutting(k, source, take, cells)
      return {
        async *frames(recipe, index, isWanted) {
          const telling = { name: recipeKey(recipe), ...cutOf(recipe) }
          for await (const { index: at, alpha, colours, shadow, seen } of cutting.upTo(index, telling, isWanted))
            yield { index: at, parts: { alpha, shadow }, colours, told: { unsure: seen.unsure } }
        },
        bytes: cells.k.total,
      }
    },
  },
  [CARRIED_METHOD]: {
    shared: recipe => recipe,
    together: Number.POSITIVE_INFINITY,
    async prepare(k, source, recipe) {
      const take = await source.counted(recipe.of[0]!)
      const carrying = await startCarrying(k, source, take, strokesOf(recipe))
      const shadow = new Uint8Array(cellsOf(take.size))
      return {
        async *frames(_, index, isWanted) {
          for await (const { alpha, colours, unsure, index: at } of carrying.towards(index, isWanted))
            yield { index: at, parts: { alpha, shadow }, colours, told: { unsure } }
        },
        bytes: carrying.bytes,
      }
    },
  },
}

/** So many frames of a recipe, counted from the first, are made one after another: whoever makes them beside each other parts them there. */
export const madeTogether = ({ method }: Recipe): number => METHODS[method]?.together ?? 1

const nameOf = (key: string, index: number): string => `${key} ${index}`

/** Where anything of a plane of bytes is covered, and so many px round it. */
function coveredBy(k: Kernels, plane: number, { width, height }: Size, round: number): Box {
  const box = k.alloc(16)
  k.coveredBox(plane, width, height, box)
  const [left, right, top, bottom] = k.ints(box, 4) as unknown as [number, number, number, number]
  if (right < left) return { left: 0, right: 0, top: 0, bottom: 0 }
  return {
    left: Math.max(0, left - round),
    right: Math.min(width, right + 1 + round),
    top: Math.max(0, top - round),
    bottom: Math.min(height, bottom + 1 + round),
  }
}

/** Writes a plane of a byte for each px. */
type Fill = (plane: number) => void

/** A picture that is made of a plane of bytes, and clear where that is nought, but for so many px round it. */
function madeOf(k: Kernels, size: Size, fill: Fill, round: number, make: (plane: number, out: number) => void): Codes {
  const ptr = k.alloc(size.width * size.height * 4)
  try {
    const extent = k.scope(() => {
      const plane = k.alloc(size.width * size.height)
      fill(plane)
      make(plane, ptr)
      return coveredBy(k, plane, size, round)
    })
    return { kind: 'codes', ...size, ptr, opaque: false, extent }
  } catch (error) {
    k.free(ptr)
    throw error
  }
}

const whiteWith = (k: Kernels, { width, height }: Size, fill: Fill): Codes =>
  madeOf(k, { width, height }, fill, 0, (plane, out) => k.whiteRow(plane, out, width * height))

/** px round what is soft that have its colours, too: a picture that is moved or made smaller mixes them in. */
const RINGS = 2

/** Colours at their px and a little round them, clear elsewhere. */
const coloursAt = (k: Kernels, { width, height }: Size, fill: Fill, colours: Uint8Array): Codes =>
  madeOf(k, { width, height }, fill, RINGS, (plane, out) => {
    const packed = k.alloc(colours.length)
    k.bytes(packed, colours.length).set(colours)
    const most = Math.floor(colours.length / 3)
    k.spreadColours({ alpha: plane, packed, most, width, height, rings: RINGS, out })
  })

/** The pictures that a packed frame tells; null where it is damaged or has none of that name. */
function pictureOf(k: Kernels, size: Size, packed: Uint8Array, part: string): (() => Codes) | null {
  const isColours = part === COLOURS_PART
  const isCells = part === 'shadow'
  const length = isCells ? cellsOf(size) : size.width * size.height
  const runs = runsOf(packed, isColours ? 'alpha' : part, length)
  const colours = isColours ? unpackColours(packed) : null
  if (!runs || (isColours && !colours)) return null
  const unpack: Fill = plane => unpackRuns(runs, k.bytes(plane, length))
  const spread: Fill = plane => {
    const cells = k.alloc(length)
    unpack(cells)
    k.spreadCells(cells, size.width, size.height, plane)
  }
  const fill = isCells ? spread : unpack
  return () => (colours ? coloursAt(k, size, fill, colours) : whiteWith(k, size, fill))
}

export interface DerivedFrames {
  /** What a recipe makes of a moment of its take, in use. Throws MediaProblem, Dropped, OutOfMemory. */
  at(needed: DerivedNeed, isWanted: () => boolean): Promise<Held>
}

/** `place`: where what is made is kept beyond this thread, and looked up before it is made. */
export function derivedFrames(
  k: Kernels,
  held: HeldPictures,
  source: DerivedSource,
  place: FramePlace | null = null,
): DerivedFrames {
  // Those used longest ago are given up first.
  const packed = new LRUCache<string, Uint8Array>({ maxSize: KEPT, sizeCalculation: frame => frame.length })
  // In order of use, the latest last.
  const prepared = new Map<string, Prepared>()

  /** What makes the frames of a recipe. It is large, so only a few are kept. */
  async function preparedFor(recipe: Recipe, isWanted: () => boolean): Promise<Prepared> {
    const method = METHODS[recipe.method]
    if (!method) throw new MediaProblem(`nothing here knows how to make “${recipe.method}”`)
    const key = recipeKey(method.shared(recipe))
    const made = prepared.get(key) ?? (await method.prepare(k, source, recipe, isWanted))
    prepared.delete(key)
    prepared.set(key, made)
    let bytes = 0
    for (const [name, of] of [...prepared].reverse()) {
      bytes += of.bytes
      if (bytes > PREPARED && name !== key) prepared.delete(name)
    }
    return made
  }

  async function made(recipe: Recipe, key: string, index: number, isWanted: () => boolean): Promise<Uint8Array> {
    const { frames } = await preparedFor(recipe, isWanted)
    let asked: Uint8Array | null = null
    for await (const frame of frames(recipe, index, isWanted)) {
      const bytes = packFrame(frame)
      packed.set(nameOf(key, frame.index), bytes)
      await place?.put(recipe, frame.index, bytes)
      if (frame.index === index) asked = bytes
    }
    if (!asked) throw new MediaProblem('the take gives no picture at this moment')
    return asked
  }

  /** A frame that was made before, here or elsewhere. */
  async function kept(recipe: Recipe, key: string, index: number): Promise<Uint8Array | null> {
    const name = nameOf(key, index)
    const here = packed.get(name)
    const bytes = here ?? (await place?.get(recipe, index)) ?? null
    if (bytes && !here) packed.set(name, bytes)
    return bytes
  }

  return {
    async at(needed, isWanted) {
      const key = recipeKey(needed.recipe)
      const take = await source.counted(needed.recipe.of[0]!)
      const { size } = take
      const index = frameAt(take, needed.seconds)
      const name = `${nameOf(key, index)} ${needed.part}`
      const found = held.at(name, 0)
      if (found) return held.pinned(found)
      const { recipe, part } = needed
      const before = await kept(recipe, key, index)
      const picture =
        (before && pictureOf(k, size, before, part)) ??
        pictureOf(k, size, await made(recipe, key, index, isWanted), part)
      if (!picture) throw new MediaProblem(`nothing here knows “${part}” of what is made`)
      const always = { from: Number.NEGATIVE_INFINITY, to: Number.POSITIVE_INFINITY }
      return held.take({ digest: name, ...always }, size.width * size.height * 4, picture)
    },
  }
}
