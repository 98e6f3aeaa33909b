// Small real clips, coded and decoded by the real library.
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  MkvOutputFormat,
  Mp4OutputFormat,
  Output,
  Quality,
  type Rotation,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny'
import { nodeMedia, pathSource } from '../cli/engine'
import { tellColour } from '../media/colour'
import { type OpenFilm, openMedia } from '../media/open'

export interface ClipOptions {
  width: number
  height: number
  /** Start of each frame in seconds, and the end of the last. */
  times: readonly number[]
  /** Luma and the two chroma codes of a frame, or a function that fills the planes. */
  colour: (frame: number) => readonly [number, number, number]
  matrix?: 'bt709' | 'smpte170m'
  fullRange?: boolean
  rotation?: Rotation
  format?: 'mp4' | 'webm' | 'mkv'
  /** Mono sound: its rate and samples. */
  sound?: { rate: number; samples: Float32Array }
}

const FORMATS = {
  mp4: [() => new Mp4OutputFormat(), 'avc', 'aac'],
  webm: [() => new WebMOutputFormat(), 'vp9', 'opus'],
  mkv: [() => new MkvOutputFormat(), 'avc', 'flac'],
} as const

/** The bytes of a clip of plain frames. */
export async function makeClip(options: ClipOptions): Promise<Uint8Array<ArrayBuffer>> {
  nodeMedia()
  const { width, height, times, colour, matrix = 'bt709', fullRange = false, sound } = options
  const [format, videoCodec, audioCodec] = FORMATS[options.format ?? 'mp4']
  const colorSpace = { primaries: 'bt709', transfer: 'bt709', matrix, fullRange } as const
  const target = new BufferTarget()
  const output = new Output({ format: format(), target })
  const video = new VideoSampleSource({
    codec: videoCodec,
    quality: new Quality({ bitrate: 2_000_000 }),
    keyFrameInterval: 0.4,
    onEncodedPacket: tellColour(colorSpace),
  })
  output.addVideoTrack(video, { rotation: options.rotation ?? 0 })
  const audio = sound && new AudioSampleSource({ codec: audioCodec, quality: new Quality({ bitrate: 128_000 }) })
  if (audio) output.addAudioTrack(audio)
  await output.start()
  if (audio && sound) {
    await audio.add(
      new AudioSample({
        data: sound.samples,
        format: 'f32-planar',
        numberOfChannels: 1,
        sampleRate: sound.rate,
        timestamp: 0,
      }),
    )
  }
  const half = ((width + 1) >> 1) * ((height + 1) >> 1)
  for (let i = 0; i + 1 < times.length; i++) {
    const [y, u, v] = colour(i)
    const data = new Uint8Array(width * height + 2 * half)
    data.fill(y, 0, width * height)
    data.fill(u, width * height, width * height + half)
    data.fill(v, width * height + half)
    const even = width % 2 === 0 && height % 2 === 0
    // The library's encoder takes planes of even sides only; odd ones are given as RGBA of these three numbers.
    const pixels = even ? data : new Uint8Array(width * height * 4).map((_, at) => [y, u, v, 255][at % 4]!)
    const sample = new VideoSample(pixels, {
      format: even ? 'I420' : 'RGBA',
      codedWidth: width,
      codedHeight: height,
      timestamp: times[i]!,
      duration: times[i + 1]! - times[i]!,
      ...(even && { colorSpace }),
    })
    await video.add(sample)
    sample.close()
  }
  await output.finalize()
  return new Uint8Array(target.buffer!)
}

/** Evenly spaced times of n frames. */
export const steady = (n: number, rate: number): number[] => Array.from({ length: n + 1 }, (_, i) => i / rate)

export const demoClip = async (name: string): Promise<OpenFilm> => {
  nodeMedia()
  const path = new URL(`../../demo/clips/${name}.mp4`, import.meta.url).pathname
  return (await openMedia(pathSource(path), `${name}.mp4`)) as OpenFilm
}

export const temporaryFolder = (): Promise<string> => mkdtemp(join(tmpdir(), 'jolly-ghost-test-'))
