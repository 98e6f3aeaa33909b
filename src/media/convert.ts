// Footage that browsers cannot decode -> H.264 and plain PCM in a MOV, to the eye the same and to the frame in step. In Node
// only: it takes the decoders of the native library.
import { statSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { LIMITS } from '../core/shot'
import { MediaProblem } from './problem'
import './promise'

/** Containers that are opened. Others may point at files and addresses that nobody has chosen. */
const CONTAINERS = 'mov,mp4,m4a,3gp,3g2,mj2,avi,matroska,webm,mpegts,mpeg,asf,flv,mxf,dv'

/** Of x264: between indistinguishable and lossless. */
const QUALITY = 13
/** Frames between key frames: takes are jumped about in. */
const KEYS = 24

export interface Converting {
  /** Told the share done, 0..1. */
  onProgress?: (share: number) => void
}

/** Turns that bring a picture upright, by degrees anticlockwise as containers count them. */
const TURNS: Readonly<Record<number, string>> = {
  90: 'transpose=cclock,',
  '-90': 'transpose=clock,',
  180: 'hflip,vflip,',
  '-180': 'hflip,vflip,',
}

/**
 * Converts a film of whatever coding the native library decodes into `out`, which ends in `.mov`: rotation carried out,
 * every frame at its own time, fields made into whole pictures, colours described as before, deeper codes rounded to
 * eight bits with dither, sound uncompressed. Nothing stays at `out` where it fails: then MediaProblem is thrown.
 */
export async function convertFilm(path: string, name: string, out: string, work: Converting = {}): Promise<void> {
  if (statSync(path).size === 0) throw new MediaProblem(`“${name}” is empty.`)
  try {
    await convert(path, out, work)
    work.onProgress?.(1)
  } catch (error) {
    await rm(out, { force: true })
    if (error instanceof MediaProblem) throw error
    const why = error instanceof Error ? error.message : String(error)
    throw new MediaProblem(`“${name}” cannot be converted here either (${why}). Convert it elsewhere to H.264 in MP4.`)
  }
}

async function convert(path: string, out: string, { onProgress }: Converting): Promise<void> {
  const { Decoder, Demuxer, Encoder, FilterAPI, Muxer } = await import('node-av/api')
  const { AV_LOG_QUIET, AV_PKT_DATA_DISPLAYMATRIX, FF_ENCODER_LIBX264, FF_ENCODER_PCM_S16LE } = await import(
    'node-av/constants'
  )
  const { Log } = await import('node-av/lib')
  Log.setLevel(AV_LOG_QUIET)
  await using input = await Demuxer.open(path, {
    options: { format_whitelist: CONTAINERS, protocol_whitelist: 'file' },
  })
  const picture = input.video()
  const sound = input.audio()
  if (!picture) throw new Error('it has no picture')
  await using output = await Muxer.open(out, { format: 'mov' })
  const { width, height } = picture.codecpar
  if (width < 2 || height < 2 || width > LIMITS.side || height > LIMITS.side) {
    throw new Error(`its picture is ${width}×${height}`)
  }
  const decoder = await Decoder.create(picture)
  const turn = TURNS[rotationOf(picture.codecpar.getCodedSideData(AV_PKT_DATA_DISPLAYMATRIX))] ?? ''
  const filter = FilterAPI.create(
    // Frames of two fields are filled up to whole pictures, one a frame (Weston's three-field filter with edge search).
    `bwdif=mode=send_frame:deint=interlaced,${turn}crop=trunc(iw/2)*2:trunc(ih/2)*2,scale=flags=accurate_rnd+full_chroma_int:sws_dither=ed,format=yuv420p`,
  )
  const encoder = await Encoder.create(FF_ENCODER_LIBX264, {
    decoder,
    filter,
    gopSize: KEYS,
    maxBFrames: 0,
    options: { crf: QUALITY, preset: 'veryfast' },
  })
  const pictureIndex = output.addStream(encoder)
  const heard = sound && (await Decoder.create(sound))
  const form = FilterAPI.create('aformat=sample_fmts=s16')
  const samples = heard && (await Encoder.create(FF_ENCODER_PCM_S16LE, { decoder: heard, filter: form }))
  const soundIndex = samples ? output.addStream(samples) : -1
  const seconds = input.duration || 1
  const tell = (done: number) => onProgress?.(Math.min(0.99, Math.max(0, done / seconds)))

  async function picturePackets() {
    for await (using packet of encoder.packets(filter.frames(decoder.frames(input.packets(picture!.index))))) {
      await output.writePacket(packet, pictureIndex)
      if (!packet) continue
      const { num, den } = picture!.timeBase
      tell((Number(packet.pts) * num) / den)
    }
  }
  async function soundPackets() {
    if (!samples || !heard || !sound) return
    for await (using packet of samples.packets(form.frames(heard.frames(input.packets(sound.index))))) {
      await output.writePacket(packet, soundIndex)
    }
  }
  await Promise.all([picturePackets(), soundPackets()])
}

/** Degrees anticlockwise that a display matrix (ISO/IEC 14496-12, 8.3.2) turns its picture, to the nearest quarter. */
function rotationOf(matrix: Buffer | null): number {
  if (!matrix || matrix.length < 36) return 0
  const degrees = (-Math.atan2(matrix.readInt32LE(4), matrix.readInt32LE(0)) * 180) / Math.PI
  return Math.round(degrees / 90) * 90
}
