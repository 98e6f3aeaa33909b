// Opening a file for reading, and saying plainly what is wrong with one that cannot be read.
import {
  ALL_FORMATS,
  BlobSource,
  EncodedPacketSink,
  Input,
  type InputAudioTrack,
  type InputVideoTrack,
  type Source,
} from 'mediabunny'
import { LIMITS, type Size, type Take } from '../core/shot'
import { frameToSeconds, nearestRate } from '../core/time'
import { type StatedCoding, statedCoding } from './colour'
import { DRAWING_BYTES, drawingSize, leftOut, mayBeDrawing } from './drawing'
import { fontType, plainFont } from './font'
import { ForeignFilm, MediaProblem } from './problem'
import { isSequence, type OpenSequence, openSequence } from './sequence'
import { decodeStill, type StillPixels, stillType } from './still'

/** A file as every environment can hand it over. */
export interface MediaSource {
  bytes: number
  source(): Source
  read(from: number, to: number): Promise<Uint8Array<ArrayBuffer>>
}

export interface OpenFilm {
  kind: 'film'
  name: string
  type: string
  input: Input
  /** null for a file that only sounds. */
  video: InputVideoTrack | null
  sound: InputAudioTrack | null
  /** What the file's head says of its codes; null for a file that only sounds. */
  coding: StatedCoding | null
  /** What of the file is left out, as a sentence. */
  note: string | null
  close(): void
}

export interface OpenStill {
  kind: 'still'
  name: string
  type: string
  decode(): Promise<StillPixels>
  close(): void
}

/** A drawing is read whole. */
export interface OpenDrawing {
  kind: 'drawing'
  name: string
  type: string
  svg(): Promise<Uint8Array>
  close(): void
}

export interface OpenFont {
  kind: 'font'
  name: string
  type: string
  /** Its tables, unpacked. Throws MediaProblem. */
  tables(): Promise<Uint8Array>
  close(): void
}

export type OpenMedia = OpenFilm | OpenStill | OpenSequence | OpenDrawing | OpenFont

/** Names of films in containers that are not read here. */
const FILM_NAME = /\.(avi|mpe?g|m2ts?|mts|ts|wmv|asf|flv|mxf|dv|3g[p2]|mov|mp4|m4v|mkv)$/i

/** Seconds that a file may lack of what its head promises. */
const CUT_SHORT = 0.1
/** A still is read whole. */
const STILL_BYTES = 256 * 2 ** 20

/** A blob, read in pieces. */
export const blobSource = (blob: Blob): MediaSource => ({
  bytes: blob.size,
  source: () => new BlobSource(blob, { maxCacheSize: 16 * 1024 * 1024 }),
  read: async (from, to) => new Uint8Array(await blob.slice(from, to).arrayBuffer()),
})

/** What a file whose reader gave up is refused with; what the engine says of its own limits helps nobody. */
function unreadable(name: string, error: unknown): MediaProblem {
  const reason = error instanceof RangeError || !(error instanceof Error) ? '' : ` (${error.message})`
  return new MediaProblem(
    `“${name}” cannot be read to its end${reason}: it is cut short or damaged. Copy it again from where it was made.`,
  )
}

function openStill(source: MediaSource, name: string, type: string): OpenStill {
  if (source.bytes > STILL_BYTES) throw new MediaProblem(`“${name}” is larger than a still picture can be here.`)
  return {
    kind: 'still',
    name,
    type,
    decode: async () => decodeStill(await source.read(0, source.bytes), type, name),
    close() {},
  }
}

const whole = (source: MediaSource) => source.read(0, source.bytes)

function openFont(source: MediaSource, name: string, type: string): OpenFont {
  if (source.bytes > LIMITS.font) throw new MediaProblem(`“${name}” is larger than a font can be here.`)
  return { kind: 'font', name, type, tables: async () => plainFont(await whole(source), type, name), close() {} }
}

function openDrawing(source: MediaSource, name: string): OpenDrawing {
  if (source.bytes > DRAWING_BYTES) throw new MediaProblem(`“${name}” is larger than a drawing can be here (16 MB).`)
  return { kind: 'drawing', name, type: 'image/svg+xml', svg: () => whole(source), close() {} }
}

/** What people call a coding. */
const CALLED: Readonly<Record<string, string>> = {
  hevc: 'HEVC',
  avc: 'H.264',
  prores: 'ProRes',
  ac3: 'AC-3',
  eac3: 'E-AC-3',
}

const codecOf = async (track: InputVideoTrack | InputAudioTrack): Promise<string> => {
  const codec = await track.getCodec()
  return CALLED[codec ?? ''] ?? (await track.getCodecParameterString()) ?? codec ?? 'something unknown'
}

/**
 * Opens a file and finds its picture and sound. Throws MediaProblem if it is no media, is cut short at its head, or has
 * neither picture nor sound that can be decoded here. The caller closes it.
 */
export async function openMedia(source: MediaSource, name: string): Promise<OpenMedia> {
  const head = await source.read(0, Math.min(64, source.bytes))
  const still = stillType(head)
  if (still) return openStill(source, name, still)
  if (isSequence(head)) return openSequence(source.read, source.bytes, name)
  const font = fontType(head)
  if (font) return openFont(source, name, font)
  if (mayBeDrawing(head)) return openDrawing(source, name)
  const input = new Input({ source: source.source(), formats: ALL_FORMATS })
  try {
    if (!(await input.canRead())) {
      const Problem = FILM_NAME.test(name) ? ForeignFilm : MediaProblem
      throw new Problem(
        `“${name}” is nothing this program can read. Bring in MP4, MOV, WebM or MKV, stills as PNG, JPEG, WebP or AVIF, drawings as SVG, fonts as TTF, OTF or WOFF, sound as WAV, MP3, AAC, Opus, FLAC or Ogg.`,
      )
    }
    const video = await input.getPrimaryVideoTrack()
    const sound = await input.getPrimaryAudioTrack()
    if (!video && !sound) throw new MediaProblem(`“${name}” has neither picture nor sound.`)
    if (video && !(await video.canDecode())) {
      throw new ForeignFilm(
        `“${name}” is coded as ${await codecOf(video)}, which cannot be decoded here. Convert it to H.264, VP9 or AV1 and bring it in again.`,
      )
    }
    const heard = sound && (await sound.canDecode()) ? sound : null
    const lost = sound && !heard ? await codecOf(sound) : null
    if (!video && lost) {
      throw new MediaProblem(
        `The sound of “${name}” is coded as ${lost}, which cannot be decoded here. Convert it to WAV, FLAC or Opus and bring it in again.`,
      )
    }
    return {
      kind: 'film',
      name,
      type: (await input.getMimeType()).split(';')[0]!,
      input,
      video,
      sound: heard,
      coding: video && (await statedCoding(video)),
      note: lost
        ? `The sound of “${name}” is coded as ${lost}, which cannot be decoded here: it comes in without its sound.`
        : null,
      close: () => input.dispose(),
    }
  } catch (error) {
    input.dispose()
    if (error instanceof MediaProblem) throw error
    throw unreadable(name, error)
  }
}

/** Width and height as shown, after stored rotation and pixel aspect. */
export async function shownSize(video: InputVideoTrack): Promise<Size> {
  return { width: await video.getDisplayWidth(), height: await video.getDisplayHeight() }
}

/** How many packets tell a film's rate. */
const PROBED = 300

/** The mean rate of a film's first frames, and whether they last differently: beyond what containers round. */
async function paceOf(video: InputVideoTrack) {
  const times: number[] = []
  for await (const packet of new EncodedPacketSink(video).packets(undefined, undefined, { metadataOnly: true })) {
    times.push(packet.timestamp)
    if (times.length >= PROBED) break
  }
  times.sort((a, b) => a - b)
  const steps = times.slice(1).map((t, i) => t - times[i]!)
  if (steps.length === 0) return { rate: nearestRate(25), varies: false }
  const mean = (times.at(-1)! - times[0]!) / steps.length
  const varies = Math.max(...steps) - Math.min(...steps) > Math.max(0.0025, mean * 0.1)
  return { rate: nearestRate(mean > 0 ? 1 / mean : 25), varies }
}

async function describeFilm(media: OpenFilm): Promise<Pick<Take, 'picture' | 'sound'>> {
  const { name, video, sound, input } = media
  const promised = await input.getDurationFromMetadata()
  const held = await input.computeDuration()
  const isShort = promised !== null && promised - held > CUT_SHORT
  const heard = sound && {
    channels: await sound.getNumberOfChannels(),
    sampleRate: await sound.getSampleRate(),
    seconds: await sound.computeDuration(),
  }
  if (!video) {
    if (isShort)
      throw new MediaProblem(`“${name}” is cut short: its end is missing. Copy it again from where it was made.`)
    return { picture: null, sound: heard }
  }
  const packets = new EncodedPacketSink(video)
  if (!(await packets.getFirstPacket())) {
    throw new MediaProblem(`“${name}” has a video track without a single frame.`)
  }
  const size = await shownSize(video)
  if (size.width < 1 || size.height < 1) throw new MediaProblem(`“${name}” has a picture without a size.`)
  const last = await packets.getPacket(Number.POSITIVE_INFINITY)
  if (!last || isShort) {
    throw new MediaProblem(`“${name}” is cut short: its end is missing. Copy it again from where it was made.`)
  }
  const seconds = Math.max(await video.computeDuration(), 0.001)
  return { picture: { kind: 'film', size, seconds, ...(await paceOf(video)) }, sound: heard }
}

/** What of a file is left out, as a sentence, or null. */
export async function noteOf(media: OpenMedia): Promise<string | null> {
  if (media.kind === 'film') return media.note
  return media.kind === 'drawing' ? leftOut(await media.svg(), media.name) : null
}

/** What a take is, all but its digest. Throws MediaProblem. */
export async function describeTake(media: OpenMedia, bytes: number): Promise<Omit<Take, 'digest'>> {
  const base = { name: media.name, type: media.type, bytes, marked: null, acts: [] }
  try {
    if (media.kind === 'film') return { ...base, ...(await describeFilm(media)) }
    if (media.kind === 'sequence') {
      const { width, height } = await media.decode(0)
      const seconds = frameToSeconds(media.count, media.rate)
      const picture = { kind: 'film', size: { width, height }, rate: media.rate, seconds, varies: false } as const
      return { ...base, picture, sound: null }
    }
    if (media.kind === 'drawing') {
      const size = await drawingSize(await media.svg(), media.name)
      return { ...base, picture: { kind: 'drawing', size }, sound: null }
    }
    if (media.kind === 'font') {
      const { describeFace, openFace } = await import('./shaping')
      const face = openFace(await media.tables())
      if (!face) throw new MediaProblem(`“${media.name}” is damaged, or no font.`)
      return { ...base, picture: null, sound: null, font: describeFace(face, media.name) }
    }
    const { width, height } = await media.decode()
    return { ...base, picture: { kind: 'still', size: { width, height } }, sound: null }
  } catch (error) {
    if (error instanceof MediaProblem) throw error
    throw unreadable(media.name, error)
  }
}
