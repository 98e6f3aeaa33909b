// Frames of a film, decoded in order where possible.
import { EncodedPacketSink, type VideoSample, VideoSampleSink } from 'mediabunny'
import type { Kernels } from '../core/render'
import { toPicture } from './decode'
import type { Supply } from './frames'
import { EARLY, type Held, type HeldPictures } from './held'
import type { OpenFilm } from './open'
import { Dropped } from './problem'

/** How far ahead of the last decoded frame it pays to decode on rather than to seek. */
const DECODE_ON = 1
/** Stepping this little backwards keeps the frames since the last key frame, if that is no farther than `KEY_BACK`. */
const STEP_BACK = 0.5
const KEY_BACK = 2.5
/** Pixels that the decoders of one film may stand on together, and how many of them there may be. */
const DECODERS_PIXELS = 24e6
const DECODERS = 16

/** A decoder that goes through the film from some moment on. */
interface Cursor {
  samples: AsyncGenerator<VideoSample, void, unknown>
  /** The decoded frame whose end is not yet known; its picture is made of it when it is wanted. */
  last: { sample: VideoSample; held: Held | null } | null
  done: boolean
  /** Whether frames that are passed over are wanted too, since the next steps go back to them. */
  keeps: boolean
}

/** null for a film that only sounds. */
export function filmFrames(k: Kernels, pictures: HeldPictures, digest: string, film: OpenFilm): Supply | null {
  const { video, coding } = film
  if (!video || !coding) return null
  const sink = new VideoSampleSink(video)
  const packets = new EncodedPacketSink(video)
  // The copies of a row each stand at a moment of their own. In order of use, the latest last.
  let cursors: Cursor[] = []

  const take = (sample: VideoSample): Promise<Held> =>
    pictures.take(
      { digest, from: sample.timestamp, to: sample.timestamp + (sample.duration || 1e-3) },
      sample.codedWidth * sample.codedHeight * 2,
      () => toPicture(k, sample, coding),
    )

  /** The picture of the frame on which a cursor stands, in use. */
  async function pictureAt({ last }: Cursor): Promise<Held> {
    const { sample, held: own } = last!
    const known = own && pictures.has(own) ? own : pictures.from(digest, sample.timestamp)
    last!.held = known ? pictures.pinned(known) : await take(sample)
    return last!.held
  }

  /**
   * Goes on by a frame. Returns the one before it, in use, if that is what shows at `t`: only now it is known to last
   * so long.
   */
  async function advance(cursor: Cursor, t: number): Promise<Held | null> {
    const next = await cursor.samples.next()
    const before = cursor.last
    const ends = next.done ? Number.POSITIVE_INFINITY : next.value.timestamp
    if (before?.held) before.held.to = ends
    cursor.done = next.done === true
    if (next.done) return null
    let shows: Held | null = null
    try {
      if (before && t >= before.sample.timestamp - EARLY && t < ends - EARLY) {
        shows = await pictureAt(cursor)
        shows.to = ends
      }
    } finally {
      before?.sample.close()
      cursor.last = { sample: next.value, held: null }
    }
    return shows
  }

  /** How far a cursor has to go to a moment, in seconds; infinity where another way is shorter. */
  const distance = ({ last, done }: Cursor, t: number): number => {
    const ahead = last && !done ? t - last.sample.timestamp : Number.NaN
    return ahead >= -EARLY && ahead < DECODE_ON ? ahead : Number.POSITIVE_INFINITY
  }

  const isCrowded = (): boolean => {
    const sample = cursors[0]?.last?.sample
    const pixels = sample ? sample.codedWidth * sample.codedHeight : 1920 * 1080
    return cursors.length >= Math.max(2, Math.min(DECODERS, Math.floor(DECODERS_PIXELS / pixels)))
  }

  function close(cursor: Cursor): void {
    cursors = cursors.filter(other => other !== cursor)
    cursor.last?.sample.close()
    cursor.samples.return().catch(error => console.error('A decoder did not close:', error))
  }

  async function seek(t: number): Promise<Cursor> {
    let start = t + EARLY
    const moments = cursors.flatMap(({ last }) => (last ? [last.sample.timestamp] : []))
    const isStep = moments.some(from => t < from && from - t < STEP_BACK)
    const key = isStep ? await packets.getKeyPacket(start) : null
    const keeps = key !== null && start - key.timestamp < KEY_BACK
    if (keeps) start = key.timestamp
    // The one used longest ago makes room, unless the picture that is being fetched stands on it too.
    const idle = cursors.find(({ last }) => !last?.held || last.held.pins === 0)
    const gone = idle ?? (isCrowded() ? cursors[0] : undefined)
    // Its decoder winds down while the new one starts.
    if (gone) close(gone)
    const first = await packets.getFirstPacket()
    return { samples: sink.samples(Math.max(start, first?.timestamp ?? 0)), last: null, done: false, keeps }
  }

  /** The cursor that gets to a moment soonest, now the one used last. */
  async function cursorTo(t: number): Promise<Cursor> {
    let best: Cursor | null = null
    for (const cursor of cursors) {
      if (distance(cursor, t) < (best ? distance(best, t) : Number.POSITIVE_INFINITY)) best = cursor
    }
    const cursor = best ?? (await seek(t))
    cursors = [...cursors.filter(other => other !== cursor), cursor]
    return cursor
  }

  async function follow(cursor: Cursor, t: number, isWanted: () => boolean): Promise<Held> {
    while (!cursor.done) {
      if (!isWanted()) throw new Dropped('A newer frame is wanted.')
      const before = await advance(cursor, t)
      if (before) return before
      if (cursor.done || !cursor.last) break
      const { timestamp, duration } = cursor.last.sample
      // Before the first frame the first one shows; else the frame that has begun and not ended.
      const shows = t < timestamp + (duration || 1e-3) - EARLY
      if (!shows && !cursor.keeps) continue
      const held = await pictureAt(cursor)
      if (shows) {
        cursor.keeps = false
        return held
      }
      held.pins--
    }
    if (!cursor.last) throw new Error('The file gives no picture at this moment.')
    const held = await pictureAt(cursor)
    held.to = Number.POSITIVE_INFINITY
    return held
  }

  return {
    async at(t, isWanted) {
      const cursor = await cursorTo(t)
      try {
        return await follow(cursor, t, isWanted)
      } catch (error) {
        if (!(error instanceof Dropped)) close(cursor)
        throw error
      }
    },
    async close() {
      for (const cursor of cursors) {
        cursor.last?.sample.close()
        await cursor.samples.return()
      }
      film.close()
    },
  }
}
