// Frames of takes: decoded in order where possible, kept within a limit of memory, the oldest use given up first.
import { EncodedPacketSink, type VideoSample, VideoSampleSink } from 'mediabunny'
import { type Kernels, OutOfMemory, type Picture } from '../core/render'
import { pictureBytes, toPicture } from './decode'
import type { OpenFilm, OpenMedia, OpenStill } from './open'

/** Containers round times, some to milliseconds: a frame counts as begun this much early. */
const EARLY = 0.0011
/** How far ahead of the last decoded frame it pays to decode on rather than to seek. */
const DECODE_ON = 1
/** Stepping this little backwards keeps the frames since the last key frame, if that is no farther than `KEY_BACK`. */
const STEP_BACK = 0.5
const KEY_BACK = 2.5

interface Held {
  digest: string
  from: number
  to: number
  picture: Picture
  bytes: number
  pins: number
}

interface Cursor {
  samples: AsyncGenerator<VideoSample, void, unknown>
  /** The decoded frame whose end is not yet known. */
  last: Held | null
  done: boolean
}

/** A newer wish has made this one pointless. */
export class Dropped extends Error {
  override name = 'Dropped'
}

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
  /** Bytes held. */
  used(): number
  close(): Promise<void>
}

export function frameStore(k: Kernels, limit: number): FrameStore {
  const takes = new Map<string, { media: OpenFilm; sink: VideoSampleSink; packets: EncodedPacketSink }>()
  const stills = new Map<string, OpenStill>()
  const cursors = new Map<string, Cursor>()
  // In order of use, the latest last.
  let held: Held[] = []
  let used = 0
  // One decoding job at a time a take: two would fight over its cursor.
  const queue = new Map<string, Promise<unknown>>()

  const lookUp = (digest: string, t: number): Held | undefined =>
    held.find(h => h.digest === digest && t >= h.from - EARLY && t < h.to - EARLY)

  function evict(bytes: number, spared: Held | null = null): void {
    for (let i = 0; i < held.length && used + bytes > limit; ) {
      const h = held[i]!
      if (h.pins > 0 || h === spared) {
        i++
        continue
      }
      held.splice(i, 1)
      used -= h.bytes
      k.free(h.picture.ptr)
    }
  }

  async function take(sample: VideoSample, digest: string): Promise<Held> {
    const { colour } = takes.get(digest)!.media
    const make = () => toPicture(k, sample, colour)
    evict(sample.codedWidth * sample.codedHeight * 2)
    const picture = await make().catch(error => {
      if (!(error instanceof OutOfMemory)) throw error
      evict(limit)
      return make()
    })
    const bytes = pictureBytes(picture)
    const h: Held = {
      digest,
      from: sample.timestamp,
      to: sample.timestamp + (sample.duration || 1e-3),
      picture,
      bytes,
      pins: 0,
    }
    held.push(h)
    used += bytes
    // Another take may have been decoded meanwhile.
    evict(0, h)
    return h
  }

  /** The next frame of a cursor, now known to end where the one after it begins. */
  async function advance(digest: string, cursor: Cursor): Promise<Held | null> {
    const next = await cursor.samples.next()
    if (next.done) {
      cursor.done = true
      if (cursor.last) cursor.last.to = Number.POSITIVE_INFINITY
      return null
    }
    const sample = next.value
    try {
      if (cursor.last) cursor.last.to = sample.timestamp
      const known = held.find(h => h.digest === digest && h.from === sample.timestamp)
      cursor.last = known ?? (await take(sample, digest))
      return cursor.last
    } finally {
      sample.close()
    }
  }

  async function seek(digest: string, t: number): Promise<Cursor> {
    const old = cursors.get(digest)
    const { sink, packets } = takes.get(digest)!
    let start = t + EARLY
    if (old?.last && t < old.last.from && old.last.from - t < STEP_BACK) {
      const key = await packets.getKeyPacket(start)
      if (key && start - key.timestamp < KEY_BACK) start = key.timestamp
    }
    // Its decoder winds down while the new one starts.
    old?.samples.return().catch(error => console.error('A decoder did not close:', error))
    const first = await packets.getFirstPacket()
    const cursor: Cursor = { samples: sink.samples(Math.max(start, first?.timestamp ?? 0)), last: null, done: false }
    cursors.set(digest, cursor)
    return cursor
  }

  /** Marks a frame as in use and as the one used last, before anything else can run and give it up. */
  function pinned(h: Held): Held {
    h.pins++
    held = held.filter(other => other !== h)
    held.push(h)
    return h
  }

  /** A still's one picture, from before all time to after it. */
  async function decodedStill(digest: string, still: OpenStill): Promise<Held> {
    const { width, height, data } = await still.decode()
    const bytes = width * height * 4
    const make = (): Picture => {
      const ptr = k.alloc(bytes)
      k.bytes(ptr, bytes).set(data)
      const opaque = !data.some((v, i) => i % 4 === 3 && v !== 255)
      return { kind: 'codes', width, height, ptr, opaque }
    }
    evict(bytes)
    let picture: Picture
    try {
      picture = make()
    } catch (error) {
      if (!(error instanceof OutOfMemory)) throw error
      evict(limit)
      picture = make()
    }
    const h: Held = { digest, from: Number.NEGATIVE_INFINITY, to: Number.POSITIVE_INFINITY, picture, bytes, pins: 0 }
    held.push(h)
    used += bytes
    return h
  }

  async function decode(digest: string, t: number, isWanted: () => boolean): Promise<Held> {
    if (!isWanted()) throw new Dropped('A newer frame is wanted.')
    const found = lookUp(digest, t)
    if (found) return pinned(found)
    const still = stills.get(digest)
    if (still) return pinned(await decodedStill(digest, still))
    let cursor = cursors.get(digest)
    const ahead = cursor?.last && !cursor.done && t >= cursor.last.from - EARLY && t - cursor.last.from < DECODE_ON
    if (!cursor || !ahead) cursor = await seek(digest, t)
    for (;;) {
      if (!isWanted()) throw new Dropped('A newer frame is wanted.')
      let h: Held | null
      try {
        h = await advance(digest, cursor)
      } catch (error) {
        cursors.delete(digest)
        throw error
      }
      if (!h) break
      // Before the first frame the first one shows; else the frame that has begun and not ended.
      if (t < h.to - EARLY) return pinned(h)
    }
    if (!cursor.last) throw new Error('The file gives no picture at this moment.')
    if (held.includes(cursor.last)) return pinned(cursor.last)
    // Given up while the decoder found out that it was the last one.
    cursors.delete(digest)
    return decode(digest, t, isWanted)
  }

  return {
    add(digest, media) {
      if (media.kind === 'still') stills.set(digest, media)
      else if (media.video) {
        const { video } = media
        takes.set(digest, { media, sink: new VideoSampleSink(video), packets: new EncodedPacketSink(video) })
      }
    },
    has: digest => takes.has(digest) || stills.has(digest),
    async get(digest, seconds, isWanted = () => true) {
      const t = Math.max(0, seconds)
      const before = queue.get(digest) ?? Promise.resolve()
      const job = before.catch(() => {}).then(() => decode(digest, t, isWanted))
      queue.set(digest, job)
      return (await job).picture
    },
    release(picture) {
      const h = held.find(other => other.picture === picture)
      if (h) h.pins--
    },
    used: () => used,
    async close() {
      for (const cursor of cursors.values()) await cursor.samples.return()
      for (const { media } of takes.values()) media.close()
      for (const h of held) k.free(h.picture.ptr)
      held = []
      takes.clear()
    },
  }
}
