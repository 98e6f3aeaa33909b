// Pictures by need: whatever a plan asks for, from wherever it comes, held within a limit of memory.

import type { Letters, Wording } from '../core/graphic'
import type { Kernels, Picture } from '../core/render'
import { filmFrames } from './film-frames'
import { type FontStore, fontStore } from './fonts'
import { type Held, type HeldPictures, heldPictures, scaledDigest } from './held'
import type { OpenMedia } from './open'
import { Dropped } from './problem'
import { drawnPicture, numberedStills, stillPicture } from './still-frames'

/** Where the pictures of one file come from. It is asked for one at a time: two would fight over its decoders. */
export interface Supply {
  /** The picture at a moment that is not held yet, in use; of drawings, with `scale` px for each of theirs. Throws Dropped when `isWanted` turns false. */
  at(t: number, isWanted: () => boolean, scale: number): Promise<Held>
  close(): Promise<void>
}

/** How each kind of file gives its pictures; null where it has none. */
const SUPPLIES: {
  [K in OpenMedia['kind']]: (
    k: Kernels,
    held: HeldPictures,
    digest: string,
    media: Extract<OpenMedia, { kind: K }>,
  ) => Supply | null
} = { film: filmFrames, still: stillPicture, sequence: numberedStills, drawing: drawnPicture, font: () => null }

export interface FrameStore {
  /** A take that only sounds gives no frames and is passed over. */
  add(digest: string, media: OpenMedia): void
  has(digest: string): boolean
  /**
   * The take's last frame whose time is not after `seconds` (its first for earlier ones), pinned until `release`.
   * Throws Dropped when `isWanted` turns false, and whatever the decoder throws.
   */
  get(digest: string, seconds: number, isWanted?: () => boolean, scale?: number): Promise<Picture>
  /** A text as its fonts set it; null where one of them is not there. */
  letters(wording: Wording): Promise<Letters | null>
  release(picture: Picture): void
  /** Gives up every frame that is not in use. */
  clear(): void
  /** Bytes held. */
  used(): number
  close(): Promise<void>
}

export function frameStore(k: Kernels, limit: number): FrameStore {
  const held = heldPictures(k, limit)
  const supplies = new Map<string, Supply>()
  const fonts: FontStore = fontStore()
  const queue = new Map<string, Promise<unknown>>()

  async function fetched(digest: string, t: number, isWanted: () => boolean, scale: number): Promise<Held> {
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    const found = held.at(scaledDigest(digest, scale), t)
    return found ? held.pinned(found) : supplies.get(digest)!.at(t, isWanted, scale)
  }

  return {
    add(digest, media) {
      const supply = SUPPLIES[media.kind](k, held, digest, media as never)
      if (supply) supplies.set(digest, supply)
      if (media.kind === 'font') fonts.add(digest, media)
    },
    has: digest => supplies.has(digest),
    letters: fonts.letters,
    async get(digest, seconds, isWanted = () => true, scale = 1) {
      const t = Math.max(0, seconds)
      const before = queue.get(digest) ?? Promise.resolve()
      const job = before.catch(() => {}).then(() => fetched(digest, t, isWanted, scale))
      queue.set(digest, job)
      return (await job).picture
    },
    release: held.release,
    clear: held.clear,
    used: held.used,
    async close() {
      for (const supply of supplies.values()) await supply.close()
      supplies.clear()
      held.close()
    },
  }
}
