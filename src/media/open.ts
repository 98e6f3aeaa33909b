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
import type { Size, Take } from '../core/shot'
import { nearestRate } from '../core/time'
import { MediaProblem } from './problem'

export interface OpenMedia {
  name: string
  input: Input
  video: InputVideoTrack
  sound: InputAudioTrack | null
  /** What the file's head says of its colours; empty where it says nothing. */
  colour: VideoColorSpaceInit
}

/** Seconds that a file may lack of what its head promises. */
const CUT_SHORT = 0.1

/** What every environment can hand over; a terminal opens files by path instead. */
export const blobSource = (blob: Blob): Source => new BlobSource(blob, { maxCacheSize: 16 * 1024 * 1024 })

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error))

/**
 * Opens a file and finds its picture and sound tracks. Throws MediaProblem if it is no media, is cut short at its
 * head, has no picture, or has one that cannot be decoded here. The caller disposes of `input`.
 */
export async function openMedia(source: Source, name: string): Promise<OpenMedia> {
  const input = new Input({ source, formats: ALL_FORMATS })
  try {
    if (!(await input.canRead())) {
      throw new MediaProblem(`“${name}” is not a video this program can read. Bring in MP4, MOV, WebM or MKV.`)
    }
    const video = await input.getPrimaryVideoTrack()
    if (!video) throw new MediaProblem(`“${name}” has no picture. Bring in a file with a video track.`)
    if (!(await video.canDecode())) {
      const codec = (await video.getCodecParameterString()) ?? (await video.getCodec()) ?? 'unknown'
      throw new MediaProblem(
        `“${name}” is coded as ${codec}, which cannot be decoded here. Convert it to H.264, VP9 or AV1 and bring it in again.`,
      )
    }
    const sound = await input.getPrimaryAudioTrack()
    const colour = await video.getColorSpace()
    return { name, input, video, sound: sound && (await sound.canDecode()) ? sound : null, colour }
  } catch (error) {
    input.dispose()
    if (error instanceof MediaProblem) throw error
    throw new MediaProblem(
      `“${name}” cannot be read (${reason(error)}). It may be cut short: copy it again from where it was made.`,
    )
  }
}

/** Width and height as shown, after stored rotation and pixel aspect. */
export async function shownSize(video: InputVideoTrack): Promise<Size> {
  return { width: await video.getDisplayWidth(), height: await video.getDisplayHeight() }
}

/** What a take is, all but its digest. Decodes one frame to be sure. Throws MediaProblem. */
export async function describeTake(media: OpenMedia, type: string, bytes: number): Promise<Omit<Take, 'digest'>> {
  const { name, video, sound } = media
  try {
    const packets = new EncodedPacketSink(video)
    const first = await packets.getFirstPacket()
    if (!first) throw new MediaProblem(`“${name}” has a video track without a single frame.`)
    const size = await shownSize(video)
    if (size.width < 1 || size.height < 1) throw new MediaProblem(`“${name}” has a picture without a size.`)
    const last = await packets.getPacket(Number.POSITIVE_INFINITY)
    const promised = await media.input.getDurationFromMetadata()
    const held = await media.input.computeDuration()
    if (!last || (promised !== null && promised - held > CUT_SHORT)) {
      throw new MediaProblem(`“${name}” is cut short: its end is missing. Copy it again from where it was made.`)
    }
    const { packetCount, averagePacketRate } = await video.computePacketStats(300)
    const seconds = await video.computeDuration()
    const soundSeconds = sound ? await sound.computeDuration() : 0
    return {
      name,
      type,
      bytes,
      size,
      rate: nearestRate(packetCount > 1 ? averagePacketRate : 25),
      seconds: Math.max(seconds, 0.001),
      sound: sound && {
        channels: await sound.getNumberOfChannels(),
        sampleRate: await sound.getSampleRate(),
        seconds: soundSeconds,
      },
    }
  } catch (error) {
    if (error instanceof MediaProblem) throw error
    throw new MediaProblem(
      `“${name}” begins like a video but cannot be read further (${reason(error)}). It may be cut short: copy it again.`,
    )
  }
}
