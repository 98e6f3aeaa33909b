// Small frames and loudness that the server brings along with its takes, kept as if they had been made here.
import type { Take } from '../../core/shot'
import { loudnessRecipe, sheetRecipe } from '../../core/small-frames'
import { keepMade } from './made'

/** A sheet of small frames as it is kept. */
export interface KeptSheet {
  picture: Blob
}

/** What lies at an address; null where nothing does, since all of it can be made again. */
async function brought(path: string, signal: AbortSignal): Promise<Blob | null> {
  const answer = await fetch(path, { signal }).catch(() => null)
  return answer?.ok ? answer.blob() : null
}

/** Keeps what lies beside a take under `path`, its address without the ending. */
export async function keepBrought(take: Take, path: string, signal: AbortSignal): Promise<void> {
  if (take.picture?.kind !== 'film') return
  const [picture, loud] = await Promise.all([
    brought(`${path}.small.jpg`, signal),
    take.sound ? brought(`${path}.loud`, signal) : null,
  ])
  if (picture) await keepMade(sheetRecipe(take.digest), { picture } satisfies KeptSheet)
  if (loud) await keepMade(loudnessRecipe(take.digest), new Uint8Array(await loud.arrayBuffer()))
}
