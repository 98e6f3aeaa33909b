// plan -> frames -> picture, with whatever frames the plan needs fetched first.
import {
  type DerivedNeed,
  type Find,
  type Found,
  type FrameNeed,
  type LettersNeed,
  type Need,
  needsOf,
  pictureKind,
} from '../core/picture'
import { neededFor, type Plan, type PlannedLayer } from '../core/plan'
import { recipeKey } from '../core/recipe'
import { type Codes, hides, isOpaque, type Kernels, mayHide, OutOfMemory, renderFrame } from '../core/render'
import type { FrameStore } from './frames'
import { Dropped, MediaProblem } from './problem'

export interface Painted {
  picture: Codes
  failed: Failed
}

const keyOf = (needed: Need): string => {
  if ('letters' in needed) return JSON.stringify(needed.letters)
  if ('recipe' in needed) return `${recipeKey(needed.recipe)} ${needed.part}@${needed.seconds}`
  return `${needed.digest}@${needed.seconds}@${needed.scale ?? 1}`
}

interface DepthPart {
  needed: Need[]
  /** The farthest layer of the part, which may hide all that lies behind. */
  last: PlannedLayer | null
}

/** The layers in parts, nearest first, each ending at a layer without a matte: those hide what is behind, as a rule. */
function depthParts(plan: Plan): DepthPart[] {
  const parts: DepthPart[] = []
  let layers: PlannedLayer[] = []
  const close = (last: PlannedLayer | null) => {
    if (layers.length > 0) parts.push({ needed: neededFor({ ...plan, layers }), last })
    layers = []
  }
  for (const layer of plan.layers) {
    layers.push(layer)
    if (mayHide(layer) && pictureKind(layer.picture).shows) close(layer)
  }
  close(null)
  return parts
}

const tooMuch = () =>
  new MediaProblem(
    'This frame needs more pictures at once than there is memory for. Use fewer layers or copies here, or smaller takes.',
  )

/** Paints; where room runs out, once more without the frames that are only kept for later. */
async function retried<T>(store: FrameStore, make: () => T | Promise<T>): Promise<T> {
  try {
    return await make()
  } catch (error) {
    if (!(error instanceof OutOfMemory)) throw error
    store.clear()
  }
  return make()
}

/** Takes whose frame could not be had, with the reason: their layers are missing from what was made. */
export type Failed = { digest: string; reason: string }[]

/**
 * Fetches what a plan needs and makes something of it. Throws Dropped when `isWanted` turns false meanwhile, and
 * MediaProblem where there is not enough memory.
 */
export async function withPictures<T>(
  store: FrameStore,
  plan: Plan,
  isWanted: () => boolean,
  make: (find: Find) => T | Promise<T>,
): Promise<{ made: T; failed: Failed }> {
  const pictures = new Map<string, Found>()
  const failed: Failed = []
  const fetchLetters = async (needed: LettersNeed) => {
    const letters = await store.letters(needed.letters)
    if (letters) pictures.set(keyOf(needed), letters)
    else failed.push(...needed.letters.fonts.map(digest => ({ digest, reason: 'its font is missing' })))
  }
  const fetchOne = async (needed: FrameNeed | DerivedNeed) => {
    const of = 'recipe' in needed ? needed.recipe.of : [needed.digest]
    const missing = of.filter(digest => !store.has(digest))
    if (missing.length > 0) {
      failed.push(...missing.map(digest => ({ digest, reason: 'its file is missing' })))
      return
    }
    try {
      const picture =
        'recipe' in needed
          ? await store.derived(needed, isWanted)
          : await store.get(needed.digest, needed.seconds, isWanted, needed.scale)
      pictures.set(keyOf(needed), picture)
    } catch (error) {
      if (error instanceof Dropped || error instanceof OutOfMemory) throw error
      failed.push({ digest: of[0]!, reason: error instanceof Error ? error.message : String(error) })
    }
  }
  const fetched: PromiseSettledResult<void>[] = []
  for (const part of depthParts(plan)) {
    const wanted = new Map(part.needed.map(n => [keyOf(n), n] as const).filter(([key]) => !pictures.has(key)))
    fetched.push(
      ...(await Promise.allSettled([...wanted.values()].map(n => ('letters' in n ? fetchLetters(n) : fetchOne(n))))),
    )
    if (fetched.some(f => f.status === 'rejected')) break
    // What lies behind a layer that hides everything need not be decoded.
    const picture = part.last ? pictures.get(keyOf(needsOf(part.last.picture)[0]!)) : undefined
    const seen = picture && picture.kind !== 'letters' ? picture : null
    const size = part.last && seen && pictureKind(part.last.picture).shows!(part.last.picture, seen)
    if (part.last && size && hides(plan, part.last, { ...size, opaque: isOpaque(seen!) })) break
  }
  try {
    const refused = fetched.find(f => f.status === 'rejected')
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    if (refused) throw refused.reason
    return { made: await retried(store, () => make(n => pictures.get(keyOf(n)) ?? null)), failed }
  } catch (error) {
    throw error instanceof OutOfMemory ? tooMuch() : error
  } finally {
    for (const picture of pictures.values()) if (picture.kind !== 'letters') store.release(picture)
  }
}

/** Fetches and paints. The caller frees `picture`. A take whose decoder fails leaves its layer out. Throws as `withPictures`. */
export async function paintPlan(
  k: Kernels,
  store: FrameStore,
  plan: Plan,
  isWanted: () => boolean = () => true,
): Promise<Painted> {
  const { made, failed } = await withPictures(store, plan, isWanted, find => renderFrame(k, plan, find))
  return { picture: made, failed }
}
