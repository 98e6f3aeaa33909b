// Pictures by need: whatever a plan asks for, from wherever it comes, held within a limit of memory.
import type { Kernels, Picture } from '../core/render'
import { filmFrames } from './film-frames'
import { type Held, type HeldPictures, heldPictures } from './held'
import type { OpenMedia } from './open'
import { Dropped } from './problem'
import { numberedStills, stillPicture } from './still-frames'

/** Where the pictures of one file come from. It is asked for one at a time: two would fight over its decoders. */
export interface Supply {
  /** The picture at a moment that is not held yet, in use. Throws Dropped when `isWanted` turns false. */
  at(t: number, isWanted: () => boolean): Promise<Held>
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
} = { film: filmFrames, still: stillPicture, sequence: numberedStills }

export interface FrameStore {
  /** A take that only sounds gives no frames and is passed over. */
  add(digest: string, media: OpenMedia): void
  has(digest: string): boolean
  /**
   * The take's last frame whose time is not after `seconds` (its first for earlier ones), pinned until `release`.
   * Throws Dropped when `isWanted` turns false, and whatever the decoder throws.
   */
  get(digest: string, seconds: number, isWanted?: () => boolean): Promise<Picture>
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
  const queue = new Map<string, Promise<unknown>>()

  async function fetched(digest: string, t: number, isWanted: () => boolean): Promise<Held> {
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    const found = held.at(digest, t)
    return found ? held.pinned(found) : supplies.get(digest)!.at(t, isWanted)
  }

  return {
    add(digest, media) {
      const supply = SUPPLIES[media.kind](k, held, digest, media as never)
      if (supply) supplies.set(digest, supply)
    },
    has: digest => supplies.has(digest),
    async get(digest, seconds, isWanted = () => true) {
      const t = Math.max(0, seconds)
      const before = queue.get(digest) ?? Promise.resolve()
      const job = before.catch(() => {}).then(() => fetched(digest, t, isWanted))
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
