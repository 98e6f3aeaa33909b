// Pictures held in the kernels' memory, up to a limit: those used longest ago are given up first, never one in use. Where most are
// looked at once only few are held, as memory that nobody has touched yet has to be found page by page.
import { type Kernels, OutOfMemory, type Picture } from '../core/render'
import { pictureBytes } from './decode'

/** Containers round times, some to milliseconds: a frame counts as begun this much early. */
export const EARLY = 0.0011

/** What a picture of a file is held under: each of its sizes by itself. */
export const scaledDigest = (digest: string, scale: number): string => (scale === 1 ? digest : `${digest} ${scale}`)

/** The picture of a file from one moment to another, in seconds. */
export interface Held {
  digest: string
  from: number
  to: number
  picture: Picture
  bytes: number
  pins: number
}

const nameOf = ({ digest, from }: Pick<Held, 'digest' | 'from'>): string => `${digest}@${from}`

export interface HeldPictures {
  /** The one that shows at a moment, if it is held. */
  at(digest: string, t: number): Held | undefined
  /** The one that begins at a moment. */
  from(digest: string, from: number): Held | undefined
  has(held: Held): boolean
  /** Marks a picture as in use and as the one used last, before anything else can run and give it up. */
  pinned(held: Held): Held
  /**
   * Makes a picture of about so many bytes and holds it, in use from the very beginning; where there is no room for it, once more
   * without all that is not in use. Throws OutOfMemory, and whatever `make` throws.
   */
  take(of: Pick<Held, 'digest' | 'from' | 'to'>, bytes: number, make: () => Picture | Promise<Picture>): Promise<Held>
  release(picture: Picture): void
  /** Gives up every picture that is not in use. */
  clear(): void
  /** Holds as much as it may from now on. */
  holdAll(): void
  /** Bytes held. */
  used(): number
  close(): void
}

/** Of how many pictures that were given up it is known that they were there. */
const REMEMBERED = 4000

/** `first`: bytes that are held until a picture is wanted again that was given up, which doubles them up to `limit`. */
export function heldPictures(k: Kernels, limit: number, first = limit): HeldPictures {
  // In order of use, the latest last.
  let held: Held[] = []
  let used = 0
  let room = Math.min(first, limit)
  const gone = new Set<string>()

  function remember(h: Held): void {
    if (room === limit) return
    gone.add(nameOf(h))
    const [oldest] = gone
    if (gone.size > REMEMBERED) gone.delete(oldest!)
  }

  function evict(bytes: number): void {
    for (let i = 0; i < held.length && used + bytes > room; ) {
      const h = held[i]!
      if (h.pins > 0) {
        i++
        continue
      }
      held.splice(i, 1)
      used -= h.bytes
      remember(h)
      k.free(h.picture.ptr)
    }
  }

  const clear = () => evict(Number.POSITIVE_INFINITY)

  async function made(make: () => Picture | Promise<Picture>): Promise<Picture> {
    try {
      return await make()
    } catch (error) {
      if (!(error instanceof OutOfMemory)) throw error
      clear()
    }
    return make()
  }

  return {
    at: (digest, t) => held.find(h => h.digest === digest && t >= h.from - EARLY && t < h.to - EARLY),
    from: (digest, from) => held.find(h => h.digest === digest && h.from === from),
    has: h => held.includes(h),
    pinned(h) {
      h.pins++
      held = held.filter(other => other !== h)
      held.push(h)
      return h
    },
    async take(of, bytes, make) {
      if (gone.delete(nameOf(of))) room = Math.min(limit, 2 * room)
      evict(bytes)
      const picture = await made(make)
      const h: Held = { ...of, picture, bytes: pictureBytes(picture), pins: 1 }
      held.push(h)
      used += h.bytes
      evict(0)
      return h
    },
    release(picture) {
      const h = held.find(other => other.picture === picture)
      if (h) h.pins--
    },
    clear,
    holdAll() {
      room = limit
    },
    used: () => used,
    close() {
      for (const h of held) k.free(h.picture.ptr)
      held = []
      used = 0
    },
  }
}
