// Makes what can be thrown away and made again: small frames of takes, and how loud they are.
import * as Comlink from 'comlink'
import { CanvasSink, EncodedPacketSink, type InputVideoTrack } from 'mediabunny'
import { secondsToFrame } from '../core/time'
import { drawDrawing } from '../media/drawing'
import { loudness } from '../media/loudness'
import { blobSource, type OpenMedia, openMedia } from '../media/open'
import type { StillPixels } from '../media/still'
import { browserDrawings } from './drawings'
import type { MediaFile } from './media-files'
import { browserStills } from './stills'

const open = new Map<string, Promise<OpenMedia>>()
const sinks = new Map<string, CanvasSink>()

function media(file: MediaFile): Promise<OpenMedia> {
  const known = open.get(file.digest) ?? openMedia(blobSource(file.blob), file.name)
  open.set(file.digest, known)
  return known
}

async function sinkOf(file: MediaFile, height: number): Promise<CanvasSink | null> {
  const opened = await media(file)
  if (opened.kind !== 'film' || !opened.video) return null
  const name = `${file.digest} ${height}`
  const sink = sinks.get(name) ?? new CanvasSink(opened.video, { height, fit: 'contain', poolSize: 2 })
  sinks.set(name, sink)
  return sink
}

/** A key frame this near to a wanted moment stands for it, as a share of the time to the next one: it comes at a fraction of the price. */
const AS_GOOD = 0.3

/** Moments as they are cheapest to show: of a long film most are those of key frames. In the same order. */
async function cheapMoments(video: InputVideoTrack, seconds: readonly number[]): Promise<number[]> {
  const packets = new EncodedPacketSink(video)
  const near = AS_GOOD * ((seconds[1] ?? 0) - (seconds[0] ?? 0))
  const out: number[] = []
  for (const moment of seconds) {
    const key = await packets.getKeyPacket(moment + near, { metadataOnly: true })
    out.push(key && Math.abs(key.timestamp - moment) <= near ? key.timestamp : moment)
  }
  return out
}

async function pixelsAt(opened: OpenMedia, seconds: number): Promise<StillPixels | null> {
  switch (opened.kind) {
    case 'still':
      return opened.decode()
    case 'sequence':
      return opened.decode(secondsToFrame(seconds + 1e-3, opened.rate))
    case 'drawing':
      return drawDrawing(await opened.svg(), opened.name, 1)
    default:
      return null
  }
}

/** A small picture of a still, or of the still that shows at a moment; null of a film. */
async function stillBitmap(opened: OpenMedia, height: number, seconds = 0): Promise<ImageBitmap | null> {
  const pixels = await pixelsAt(opened, seconds)
  if (!pixels) return null
  const { data, width, height: full } = pixels
  const image = new ImageData(new Uint8ClampedArray(data), width, full)
  return createImageBitmap(image, {
    resizeHeight: height,
    resizeWidth: Math.max(1, Math.round((width * height) / full)),
  })
}

const api = {
  /** Small frames at given seconds, in order, each told as it comes; whoever is told may keep it waiting. A frame that cannot be had is passed over. */
  async strip(
    file: MediaFile,
    seconds: number[],
    height: number,
    onFrame: (index: number, bitmap: ImageBitmap) => Promise<void>,
  ): Promise<void> {
    const opened = await media(file)
    if (opened.kind !== 'film') {
      for (const [i, moment] of seconds.entries()) {
        const still = await stillBitmap(opened, height, moment)
        if (still) await onFrame(i, Comlink.transfer(still, [still]))
      }
      return
    }
    const sink = await sinkOf(file, height)
    if (!sink || !opened.video) return
    let i = 0
    for await (const frame of sink.canvasesAtTimestamps(await cheapMoments(opened.video, seconds))) {
      if (frame) {
        const bitmap = await createImageBitmap(frame.canvas)
        await onFrame(i, Comlink.transfer(bitmap, [bitmap]))
      }
      i++
    }
  },

  /** One small frame. */
  async frame(file: MediaFile, seconds: number, height: number): Promise<ImageBitmap | null> {
    const still = await stillBitmap(await media(file), height, seconds)
    if (still) return Comlink.transfer(still, [still])
    const sink = await sinkOf(file, height)
    const frame = await sink?.getCanvas(seconds)
    if (!frame) return null
    const bitmap = await createImageBitmap(frame.canvas)
    return Comlink.transfer(bitmap, [bitmap])
  },

  /** How loud a take is, told a stretch at a time; whoever is told may keep it waiting. */
  async peaks(file: MediaFile, onPeaks: (peaks: Uint8Array) => Promise<void>): Promise<void> {
    const opened = await media(file)
    if (opened.kind !== 'film' || !opened.sound) return
    for await (const peaks of loudness(opened.sound)) await onPeaks(peaks)
  },
}

export type DeriveApi = typeof api
browserStills()
browserDrawings()
Comlink.expose(api)
