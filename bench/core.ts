// What the core and the coders take, in Node, on one thread of ours.
import {
  BufferTarget,
  Mp4OutputFormat,
  NullTarget,
  Output,
  Quality,
  type VideoSample,
  VideoSampleSink,
  VideoSampleSource,
} from 'mediabunny'
import { type Engine, pathSource, startEngine } from '../src/cli/engine'
import type { Find } from '../src/core/picture'
import { neededFrames, planFrame } from '../src/core/plan'
import { type Kernels, type Picture, planesLength, renderFrame, renderPlanes } from '../src/core/render'
import type { Shot } from '../src/core/shot'
import { bitrate, exportShot } from '../src/media/export'
import { type OpenFilm, openMedia } from '../src/media/open'
import { fullHdShot, LENGTH } from './footage'
import { atMost, inTurns, median, type Row, timed } from './measure'
import { outlineRows } from './outline'

async function openFilm(path: string): Promise<OpenFilm & { video: NonNullable<OpenFilm['video']> }> {
  const media = await openMedia(pathSource(path), 'take')
  if (media.kind !== 'film' || !media.video) throw new Error('The take has no moving picture.')
  return { ...media, video: media.video }
}

/** Decodes one take and encodes it again, nothing between. */
async function reencode(path: string, size: { width: number; height: number }): Promise<void> {
  const { video, close } = await openFilm(path)
  const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'reserve' }), target: new BufferTarget() })
  const source = new VideoSampleSource({
    codec: 'avc',
    quality: new Quality({ bitrate: bitrate(size, 30) }),
    keyFrameInterval: 1,
  })
  output.addVideoTrack(source, { frameRate: 30, maximumPacketCount: LENGTH + 16 })
  await output.start()
  for await (const sample of new VideoSampleSink(video).samples()) {
    await source.add(sample)
    sample.close()
  }
  await output.finalize()
  close()
}

async function composite({ k, frames }: Engine, shot: Shot): Promise<{ paint: number; planes: number }> {
  const plan = planFrame(shot, 20)
  const pictures = new Map<string, Picture>()
  for (const n of neededFrames(plan)) pictures.set(n.digest, await frames.get(n.digest, n.seconds))
  const find: Find = n => ('digest' in n ? (pictures.get(n.digest) ?? null) : null)
  const paint = await median(15, () => k.free(renderFrame(k, plan, find).ptr))
  const out = k.alloc(planesLength(plan.size.width, plan.size.height))
  const planes = await median(15, () => renderPlanes(k, plan, find, plan.size, out))
  k.free(out)
  for (const p of pictures.values()) frames.release(p)
  return { paint, planes }
}

/** Milliseconds a frame takes to encode: a film of already decoded frames. */
async function encodeTime(path: string, size: { width: number; height: number }): Promise<number> {
  const { video, close } = await openFilm(path)
  const samples: VideoSample[] = []
  for await (const sample of new VideoSampleSink(video).samples()) samples.push(sample)
  const time = await median(3, async () => {
    const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'fragmented' }), target: new NullTarget() })
    const source = new VideoSampleSource({
      codec: 'avc',
      quality: new Quality({ bitrate: bitrate(size, 30) }),
      keyFrameInterval: 1,
    })
    output.addVideoTrack(source, { frameRate: 30 })
    await output.start()
    for (const sample of samples) await source.add(sample)
    await output.finalize()
  })
  for (const sample of samples) sample.close()
  close()
  return time / samples.length
}

/** A shot so many times as long: its layers go round and round. */
function repeated(shot: Shot, times: number): Shot {
  const span = { from: 0, to: shot.length * times }
  const timing = { kind: 'loop', from: 0, to: shot.length / 30, style: 'cut', over: 0, speed: 1, begun: 0 } as const
  return { ...shot, length: span.to, layers: shot.layers.map(l => ({ ...l, span, timing })) }
}

/** Peak bytes that the whole process takes while exporting n frames. */
async function exportMemory(engine: Engine, shot: Shot, frames: number): Promise<number> {
  let peak = 0
  const onProgress = () => {
    peak = Math.max(peak, process.memoryUsage().rss)
  }
  const silent = { ...shot, layers: shot.layers.map(l => ({ ...l, sound: { ...l.sound, on: false } })) }
  await exportShot({ shot: silent, format: 'mp4', span: { from: 0, to: frames }, scale: 0.5 }, new BufferTarget(), {
    ...engine,
    onProgress,
  })
  return peak
}

const ns = (k: Kernels): Promise<number> => {
  const out = k.alloc(1920 * 4)
  return median(9, () => {
    for (let y = 0; y < 1080; y++) k.ovalRow(out, 1920, y, 960, 540, 700, 420, 1, 0, 0, 20, 20)
  }).then(ms => (ms * 1e6) / (1920 * 1080))
}

export async function coreRows(): Promise<Row[]> {
  const found = await fullHdShot()
  const { shot, takes } = found.project
  const paths = takes.map(take => found.pathOf(take))
  const path = paths[1]!
  const engine = await startEngine(found)
  const silent = { ...shot, layers: shot.layers.map(l => ({ ...l, sound: { ...l.sound, on: false } })) }
  const options = { shot: silent, format: 'mp4', span: { from: 0, to: LENGTH }, scale: 1 } as const
  const ours = async () => {
    // As many frames are decoded as the first time.
    engine.frames.clear()
    await exportShot(options, new BufferTarget(), engine)
  }
  // Takes differ by a tenth in what they cost: each is coded again, and counts alike.
  const plain = async () => {
    for (const each of paths) await reencode(each, shot.size)
  }
  for (const warmUp of [ours, plain]) await warmUp()
  const exporting = await inTurns(
    5,
    () => timed(ours),
    async () => (await timed(plain)) / paths.length,
  )
  const anew = await timed(async () => {
    const fresh = await startEngine(found)
    await exportShot(options, new BufferTarget(), fresh)
    await fresh.frames.close()
  })
  const { paint, planes } = await composite(engine, shot)
  const encode = await encodeTime(path, shot.size)
  // Both are longer than what the encoder looks ahead, which fills at first however long a film is.
  const [short, long] = [
    await exportMemory(engine, shot, LENGTH),
    await exportMemory(engine, repeated(shot, 5), 5 * LENGTH),
  ]
  const oval = await ns(engine.k)
  const ms = (v: number) => `${v.toFixed(1)} ms`
  return [
    atMost(
      'export of three 1080p layers / re-encoding one take',
      1.25,
      exporting.ratio,
      '×',
      `${ms(exporting.one / LENGTH)} / ${ms(exporting.other / LENGTH)} a frame, mean of its takes, in five turns; by an engine that is started anew ${ms(anew / LENGTH)}`,
    ),
    atMost(
      'composite of three 1080p layers / one frame’s encode',
      0.6,
      paint / encode,
      '×',
      `${ms(paint)} / ${ms(encode)}; with planes handed on to the encoder ${ms(planes)}`,
    ),
    atMost('oval with its true distance, 1080p', 10, oval, 'ns a pixel', 'one thread, all pixels counted'),
    ...(await outlineRows(engine.k)),
    {
      what: 'memory of the whole process while exporting, five times the length against once',
      goal: 'at most 1.1 ×',
      measured: `${(long / short).toFixed(2)} × (${(short / 2 ** 20).toFixed(0)} MB for ${LENGTH} frames, ${(long / 2 ** 20).toFixed(0)} MB for ${5 * LENGTH}, after other exports)`,
      value: long / short,
      met: long <= 1.1 * short,
    },
  ]
}
