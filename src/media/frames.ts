// Pictures by need: whatever a plan asks for, from wherever it comes, held within a limit of memory.

import type { Letters, Wording } from '../core/graphic'
import type { DerivedNeed } from '../core/picture'
import type { Kernels, Picture } from '../core/render'
import { type Counted, countedFrames } from './counted'
import { derivedFrames } from './derived'
import type { FramePlace } from './derived-frame'
import { filmFrames } from './film-frames'
import { type FontStore, fontStore } from './fonts'
import { type Held, type HeldPictures, heldPictures, scaledDigest } from './held'
import { describeTake, type OpenMedia } from './open'
import { Dropped, MediaProblem } from './problem'
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
  /** Fetches what comes next after all that is held from a moment on, if that is near: a decoder that goes along where pictures are kept need not catch up where they end. */
  lead(digest: string, seconds: number, isWanted: () => boolean): void
  /** What a recipe makes of a moment of its take, pinned until `release`. Throws as `get`, and MediaProblem. */
  derived(needed: DerivedNeed, isWanted?: () => boolean): Promise<Picture>
  /** A take as frames that are counted. Throws MediaProblem where it has no picture. */
  counted(digest: string): Promise<Counted>
  /** A text as its fonts set it; null where one of them is not there. */
  letters(wording: Wording): Promise<Letters | null>
  release(picture: Picture): void
  /** Gives up every frame that is not in use. */
  clear(): void
  /** Bytes held. */
  used(): number
  close(): Promise<void>
}

/** Seconds within which what is held has to end for more to be fetched. */
const NEAR = 0.7

/** `place`: where frames made by recipe are kept beyond this thread. `first`: bytes held as long as none that was given up is wanted again. */
export function frameStore(k: Kernels, limit: number, place: FramePlace | null = null, first = limit): FrameStore {
  const held = heldPictures(k, limit, first)
  const supplies = new Map<string, Supply>()
  const fonts: FontStore = fontStore()
  const queue = new Map<string, Promise<unknown>>()
  const files = new Map<string, OpenMedia>()
  const counted = new Map<string, Promise<Counted>>()
  const source = {
    get: (digest: string, seconds: number, isWanted?: () => boolean) => get(digest, seconds, isWanted),
    release: held.release,
    counted(digest: string) {
      const known = counted.get(digest) ?? countedOf(digest)
      counted.set(digest, known)
      return known
    },
  }
  const derived = derivedFrames(k, held, source, place)

  async function countedOf(digest: string): Promise<Counted> {
    const media = files.get(digest)
    const of = media && countedFrames(digest, (await describeTake(media, 0)).picture)
    if (!of) throw new MediaProblem('it has no picture that can be cut out')
    return of
  }

  /** One after the other of what is asked of the same file, or by the same recipe. */
  function inTurn<T>(name: string, work: () => Promise<T>): Promise<T> {
    const job = (queue.get(name) ?? Promise.resolve()).catch(() => {}).then(work)
    queue.set(name, job)
    return job
  }

  const get = async (digest: string, seconds: number, isWanted = () => true, scale = 1): Promise<Picture> => {
    const t = Math.max(0, seconds)
    const found = isWanted() && held.at(scaledDigest(digest, scale), t)
    // What is held does not wait for what is being decoded.
    if (found) return held.pinned(found).picture
    return (await inTurn(digest, () => fetched(digest, t, isWanted, scale))).picture
  }

  const leading = new Set<string>()
  /** The moment for which each file was last decoded. */
  const reached = new Map<string, number>()
  function lead(digest: string, seconds: number, isWanted: () => boolean): void {
    const ahead = (reached.get(digest) ?? 0) - seconds
    // A decoder that is a little ahead already goes on when it is needed; farther ahead, what is held soon would make room for it.
    if (leading.has(digest) || (ahead > 0 && ahead < NEAR)) return
    let end = Math.max(0, seconds)
    const soon: Held[] = []
    for (let h = held.at(digest, end); h && end < seconds + NEAR; h = held.at(digest, end)) {
      soon.push(h)
      end = h.to
    }
    if (soon.length === 0 || end >= seconds + NEAR) return
    // What is wanted soon is not what makes room.
    for (const h of soon) held.release(held.pinned(h).picture)
    leading.add(digest)
    get(digest, end, isWanted)
      // Whoever comes to need it is told what is wrong with it.
      .then(held.release, () => {})
      .finally(() => leading.delete(digest))
  }

  async function fetched(digest: string, t: number, isWanted: () => boolean, scale: number): Promise<Held> {
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    const found = held.at(scaledDigest(digest, scale), t)
    if (found) return held.pinned(found)
    reached.set(digest, t)
    return supplies.get(digest)!.at(t, isWanted, scale)
  }

  return {
    add(digest, media) {
      const supply = SUPPLIES[media.kind](k, held, digest, media as never)
      if (supply) supplies.set(digest, supply)
      files.set(digest, media)
      if (media.kind === 'font') fonts.add(digest, media)
    },
    has: digest => supplies.has(digest),
    letters: fonts.letters,
    counted: source.counted,
    get,
    lead,
    async derived(needed, isWanted = () => true) {
      // What is made by recipe looks at the same frames over and over.
      held.holdAll()
      const job = () => {
        if (!isWanted()) throw new Dropped('A newer frame is wanted.')
        return derived.at(needed, isWanted)
      }
      return (await inTurn('derived', async () => job())).picture
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
