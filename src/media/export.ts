// A shot as a file that plays anywhere: the same in a browser's worker and in a terminal.
import {
  AudioSample,
  AudioSampleSource,
  canEncodeAudio,
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  Quality,
  type Target,
  type VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny'
import { type Plan, planFrame, planView, scaledSize } from '../core/plan'
import { type Codes, type Kernels, planesLength, renderPlanes } from '../core/render'
import { matteShot, type Shot, type Size } from '../core/shot'
import { mixdown, sounds } from '../core/sound'
import { frameToSample, frameToSeconds, type Span, spanLength } from '../core/time'
import { tellColour } from './colour'
import type { FrameStore } from './frames'
import { listen } from './listen'
import { paintPlan, withPictures } from './paint'
import { planesSample } from './planes-sample'
import { MediaProblem } from './problem'
import { SAMPLE_RATE, type SoundStore } from './sound'

export type ExportFormat = 'mp4' | 'webm'

export interface ExportOptions {
  shot: Shot
  format: ExportFormat
  /** Frames of the shot to write. */
  span: Span
  /** 1: full size. */
  scale: number
  /** The id of a layer of which only the matte is written, in grey; left out: the picture, with its sound. */
  matte?: string
}

export interface ExportWork {
  k: Kernels
  frames: FrameStore
  sounds: SoundStore
  /** Told after each frame. */
  onProgress?: (done: number, of: number) => void
}

/**
 * Samples of silence with which a coder begins and which players do not know to leave out: so much of the sound is
 * left out instead, and the rest is in step.
 */
export const PRIMING = { aac: 1024, opus: 0 } as const

/**
 * Samples of one packet, how many a coder puts before the sound, and by how many a file that tells of them begins later.
 */
const PACKETS = {
  aac: { samples: 1024, before: 1024, later: 0 },
  opus: { samples: 960, before: 312, later: 312 },
} as const

/**
 * How many samples go to a coder so that the whole packets that come of them last no longer than `length` samples.
 */
export function coded(codec: keyof typeof PACKETS, length: number): number {
  const { samples, before, later } = PACKETS[codec]
  return Math.max(1, Math.floor((length - later) / samples) * samples - before)
}

const CODECS = {
  mp4: { video: 'avc', audio: 'aac' },
  webm: { video: 'vp9', audio: 'opus' },
} as const

/**
 * The size a film gets: coders of 4:2:0 want even sides, so an odd one loses its last row or column; `left` says so in
 * a sentence, or is null.
 */
export function filmSize(shot: Shot, scale: number): { size: Size; left: string | null } {
  const { width, height } = scaledSize(shot.size, scale)
  const parts = [...(width & 1 ? ['its last column'] : []), ...(height & 1 ? ['its last row'] : [])]
  return {
    size: { width: Math.max(2, width & ~1), height: Math.max(2, height & ~1) },
    left:
      parts.length > 0
        ? `films have even sides, so ${parts.join(' and ')} ${parts.length > 1 ? 'are' : 'is'} left out.`
        : null,
  }
}

/** Bits a second that keep grain and soft edges: some 0.18 a pixel, as cameras of this class write. */
export const bitrate = (size: Size, framesPerSecond: number): number =>
  Math.max(400_000, Math.round(size.width * size.height * framesPerSecond * 0.18))

const cannotBeMade = (frame: number, reason: string): MediaProblem =>
  new MediaProblem(`Frame ${frame} cannot be made: a take gives no picture there (${reason}).`)

/** What is written, at which size. */
export type Subject = Pick<ExportOptions, 'shot' | 'scale' | 'matte'>

/** The shot that is written, and what to draw for one of its frames. */
function planned({ shot, scale, matte }: Subject): { shown: Shot; planAt: (frame: number) => Plan } {
  if (matte === undefined) return { shown: shot, planAt: frame => planFrame(shot, frame, scale) }
  const shown = matteShot(shot, matte)
  return { shown, planAt: frame => planView(planFrame(shown, frame, scale), 'matte', matte) }
}

/** One frame of a shot as it goes into a picture file. The caller frees `picture`. Throws MediaProblem if a take fails. */
export async function exportFrame(k: Kernels, frames: FrameStore, subject: Subject, frame: number): Promise<Codes> {
  const { picture, failed } = await paintPlan(k, frames, planned(subject).planAt(frame))
  if (failed[0]) {
    k.free(picture.ptr)
    throw cannotBeMade(frame, failed[0].reason)
  }
  return picture
}

function soundSample(sides: [Float32Array, Float32Array], timestamp: number): AudioSample {
  const n = sides[0].length
  const data = new Float32Array(n * 2)
  data.set(sides[0])
  data.set(sides[1], n)
  return new AudioSample({ data, format: 'f32-planar', numberOfChannels: 2, sampleRate: SAMPLE_RATE, timestamp })
}

/**
 * Writes a span of a shot to a target. Throws MediaProblem with a sentence, and whatever is thrown where it tells
 * how far it is; its memory is given back then.
 * The sound is mixed a second at a time, so memory does not grow with the length.
 */
export async function exportShot(options: ExportOptions, target: Target, work: ExportWork): Promise<void> {
  const { format, span, scale } = options
  const { k } = work
  const { shown: shot, planAt } = planned(options)
  const { size } = filmSize(shot, scale)
  const codecs = CODECS[format]
  const rate = bitrate(size, shot.rate.num / shot.rate.den)
  const quality = new Quality({ bitrate: rate })
  if (!(await canEncodeVideo(codecs.video, { ...size, bitrate: rate }))) {
    throw new MediaProblem(
      `${format.toUpperCase()} cannot be written here at ${size.width}×${size.height}. Try the other format or a smaller size.`,
    )
  }
  const heardAtAll = sounds(shot)
  const firstSample = frameToSample(span.from, shot.rate, SAMPLE_RATE)
  const lastSample = frameToSample(span.to, shot.rate, SAMPLE_RATE)
  if (heardAtAll && !(await canEncodeAudio(codecs.audio, { numberOfChannels: 2, sampleRate: SAMPLE_RATE }))) {
    throw new MediaProblem(`Sound cannot be written as ${codecs.audio.toUpperCase()} here. Try the other format.`)
  }
  const output = new Output({
    format: format === 'mp4' ? new Mp4OutputFormat({ fastStart: 'reserve' }) : new WebMOutputFormat(),
    target,
  })
  const video = new VideoSampleSource({
    codec: codecs.video,
    quality,
    keyFrameInterval: 1,
    onEncodedPacket: tellColour(),
  })
  const frameCount = spanLength(span)
  output.addVideoTrack(video, { frameRate: shot.rate.num / shot.rate.den, maximumPacketCount: frameCount + 16 })
  const audio = heardAtAll
    ? new AudioSampleSource({ codec: codecs.audio, quality: new Quality({ bitrate: 192_000 }) })
    : null
  if (audio) output.addAudioTrack(audio, { maximumPacketCount: Math.ceil((lastSample - firstSample) / 480) + 64 })
  const planes = k.alloc(planesLength(size.width, size.height))
  const begin = firstSample + PRIMING[codecs.audio]
  const end = begin + coded(codecs.audio, lastSample - firstSample)
  let heard = begin
  let isGoing = true
  let ahead: Promise<unknown> = Promise.resolve()
  const soundUpTo = async (sample: number) => {
    if (!audio || heard >= sample) return
    const mix = await mixdown(shot, SAMPLE_RATE, heard, sample - heard, work.sounds.read)
    const out = soundSample(mix, (heard - begin) / SAMPLE_RATE)
    heard = sample
    await audio.add(out)
    out.close()
  }
  /** Fetches what the frame after one needs. What is wrong with it is told when it is painted. */
  const fetchAfter = (frame: number) => {
    if (frame + 1 === span.to) return
    const fetched = withPictures(
      work.frames,
      planAt(frame + 1),
      () => isGoing,
      () => {},
    )
    ahead = fetched.catch(() => {})
  }
  /** Paints a frame into the planes, and makes a sample of those. */
  const paint = async (frame: number): Promise<VideoSample> => {
    const plan = planAt(frame)
    const at = frameToSeconds(frame - span.from, shot.rate)
    const duration = frameToSeconds(frame + 1 - span.from, shot.rate) - at
    let isAgain = false
    const { made, failed } = await withPictures(
      work.frames,
      plan,
      () => true,
      async find => {
        if (isAgain) {
          // There was no room for it beside what the next one needs.
          await ahead
          work.frames.clear()
        } else {
          isAgain = true
          // Decoders go on while it is painted.
          fetchAfter(frame)
          await listen()
        }
        renderPlanes(k, plan, find, size, planes)
        return planesSample(k.bytes(planes, planesLength(size.width, size.height)), size, { timestamp: at, duration })
      },
    )
    if (!failed[0]) return made
    made.close()
    throw cannotBeMade(frame, failed[0].reason)
  }
  // While one frame is encoded the next one is decoded and painted.
  let coming: Promise<VideoSample> | null = null
  let encoding: Promise<void> = Promise.resolve()
  const paintNext = (frame: number) => {
    coming = frame < span.to ? paint(frame) : null
    coming?.catch(() => {})
  }
  try {
    await output.start()
    paintNext(span.from)
    for (let frame = span.from; frame < span.to; frame++) {
      if (heard <= frameToSample(frame, shot.rate, SAMPLE_RATE)) await soundUpTo(Math.min(end, heard + SAMPLE_RATE))
      const sample: VideoSample = await coming!
      paintNext(frame + 1)
      await encoding.catch(error => {
        sample.close()
        throw error
      })
      encoding = video.add(sample).finally(() => sample.close())
      encoding.catch(() => {})
      work.onProgress?.(frame + 1 - span.from, frameCount)
    }
    await encoding
    await soundUpTo(end)
    await output.finalize()
  } catch (error) {
    if (output.state !== 'finalized' && output.state !== 'canceled') await output.cancel()
    throw error
  } finally {
    isGoing = false
    await ahead
    await encoding.catch(() => {})
    await (coming as Promise<VideoSample> | null)?.then(sample => sample.close()).catch(() => {})
    k.free(planes)
  }
}
