// plan -> frames -> picture, with whatever frames the plan needs fetched first.
import { neededFrames, type Plan, type PlannedLayer } from '../core/plan'
import { type Codes, hidesAll, type Kernels, type Picture, renderFrame } from '../core/render'
import { Dropped, type FrameStore } from './frames'

export interface Painted {
  picture: Codes
  /** Takes whose frame could not be had, with the reason: their layers are missing from the picture. */
  failed: { digest: string; reason: string }[]
}

const keyOf = (needed: { digest: string; seconds: number }): string => `${needed.digest}@${needed.seconds}`

interface DepthPart {
  needed: { digest: string; seconds: number }[]
  /** The farthest layer of the part, which may hide all that lies behind. */
  last: PlannedLayer | null
}

/** The layers in parts, nearest first, each ending at a layer without a matte: those hide what is behind, as a rule. */
function depthParts(plan: Plan): DepthPart[] {
  const parts: DepthPart[] = []
  let layers: PlannedLayer[] = []
  const close = (last: PlannedLayer | null) => {
    if (layers.length > 0) parts.push({ needed: neededFrames({ ...plan, layers }), last })
    layers = []
  }
  for (const layer of plan.layers) {
    layers.push(layer)
    if (layer.matte.length === 0 && layer.opacity >= 1 && layer.blend === 'normal' && layer.picture.kind === 'take')
      close(layer)
  }
  close(null)
  return parts
}

/**
 * Fetches and paints. The caller frees `picture`. A take whose decoder fails leaves its layer out and is named in
 * `failed`. Throws Dropped when `isWanted` turns false meanwhile.
 */
export async function paintPlan(
  k: Kernels,
  store: FrameStore,
  plan: Plan,
  isWanted: () => boolean = () => true,
): Promise<Painted> {
  const pictures = new Map<string, Picture>()
  const failed: Painted['failed'] = []
  const fetchOne = async (needed: { digest: string; seconds: number }) => {
    if (!store.has(needed.digest)) {
      failed.push({ digest: needed.digest, reason: 'its file is missing' })
      return
    }
    try {
      pictures.set(keyOf(needed), await store.get(needed.digest, needed.seconds, isWanted))
    } catch (error) {
      if (error instanceof Dropped) throw error
      failed.push({ digest: needed.digest, reason: error instanceof Error ? error.message : String(error) })
    }
  }
  const fetched: PromiseSettledResult<void>[] = []
  for (const part of depthParts(plan)) {
    const wanted = new Map(part.needed.map(n => [keyOf(n), n] as const).filter(([key]) => !pictures.has(key)))
    fetched.push(...(await Promise.allSettled([...wanted.values()].map(fetchOne))))
    // What lies behind a layer that hides everything need not be decoded.
    const picture = part.last?.picture.kind === 'take' ? pictures.get(keyOf(part.last.picture)) : undefined
    if (part.last && picture && hidesAll(plan, part.last, picture)) break
  }
  try {
    const dropped = fetched.find(f => f.status === 'rejected')
    if (dropped || !isWanted()) throw new Dropped('A newer frame is wanted.')
    return { picture: renderFrame(k, plan, n => pictures.get(keyOf(n)) ?? null), failed }
  } finally {
    for (const picture of pictures.values()) store.release(picture)
  }
}
