// plan -> frames -> picture, with whatever frames the plan needs fetched first.
import { neededFrames, type Plan } from '../core/plan'
import { type Codes, type Kernels, type Picture, renderFrame } from '../core/render'
import { Dropped, type FrameStore } from './frames'

export interface Painted {
  picture: Codes
  /** Takes whose frame could not be had, with the reason: their layers are missing from the picture. */
  failed: { digest: string; reason: string }[]
}

const keyOf = (needed: { digest: string; seconds: number }): string => `${needed.digest}@${needed.seconds}`

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
  const wanted = new Map(neededFrames(plan).map(n => [keyOf(n), n]))
  const fetched = await Promise.allSettled([...wanted.values()].map(fetchOne))
  try {
    const dropped = fetched.find(f => f.status === 'rejected')
    if (dropped || !isWanted()) throw new Dropped('A newer frame is wanted.')
    return { picture: renderFrame(k, plan, n => pictures.get(keyOf(n)) ?? null), failed }
  } finally {
    for (const picture of pictures.values()) store.release(picture)
  }
}
