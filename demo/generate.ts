// `npm run demo`: makes the demo clips and the shots that use them, again and the same. With names of clips only those
// are made; with --shots none.
import { statSync, writeFileSync } from 'node:fs'
import { mkdir, readFile } from 'node:fs/promises'
import { cpus } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Worker } from 'node:worker_threads'
import { createCanvas } from '@napi-rs/canvas'
import { createSHA256 } from 'hash-wasm'
import {
  AudioSample,
  AudioSampleSource,
  FilePathTarget,
  Mp4OutputFormat,
  Output,
  Quality,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny'
import { nodeKernels, nodeMedia, pathSource, startEngine } from '../src/cli/engine'
import { findProject } from '../src/cli/projects'
import type { Affine } from '../src/core/affine'
import { planesLength, writePlanes } from '../src/core/render'
import type { Take } from '../src/core/shot'
import type { Span } from '../src/core/time'
import { tellColour, WRITTEN_COLOUR } from '../src/media/colour'
import { countedFrames } from '../src/media/counted'
import { exportFrame, exportShot, PRIMING } from '../src/media/export'
import { followMoves } from '../src/media/follow'
import { plainFont } from '../src/media/font'
import { frameStore } from '../src/media/frames'
import { describeTake, openMedia } from '../src/media/open'
import { CLIPS, type ClipName, RATE } from './acts'
import { HOOP_RADIUS, hoopAt, RIM } from './hoop'
import { HEIGHT, WIDTH } from './shop'
import { demoShots } from './shots'
import { writeSmallFrames } from './small-frames'
import { clipSound, SAMPLE_RATE } from './sound'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Frames of a clip in order, painted by as many threads as there are processors. */
async function* paintedFrames(name: ClipName, count: number): AsyncGenerator<Uint8Array> {
  const threads = cpus().length
  const script = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(new URL('./painter.ts', import.meta.url).href)}) })`
  const workers = Array.from({ length: threads }, () => new Worker(script, { eval: true }))
  const ask = (frame: number) =>
    new Promise<Uint8Array>((resolve, reject) => {
      const worker = workers[frame % threads]!
      const heard = (answer: { frame: number; pixels: Uint8Array }) => {
        if (answer.frame !== frame) return
        worker.off('message', heard)
        resolve(answer.pixels)
      }
      worker.on('message', heard)
      worker.once('error', reject)
      worker.postMessage({ name, frame })
    })
  const ahead = Array.from({ length: Math.min(count, threads * 2) }, (_, i) => ask(i))
  for (let i = 0; i < count; i++) {
    const frame = await ahead.shift()!
    if (i + threads * 2 < count) ahead.push(ask(i + threads * 2))
    yield frame
  }
  await Promise.all(workers.map(w => w.terminate()))
}

async function writeClip(name: ClipName, path: string): Promise<void> {
  const clip = CLIPS[name]
  const k = await nodeKernels(64 << 20)
  const output = new Output({
    format: new Mp4OutputFormat({ fastStart: 'in-memory' }),
    target: new FilePathTarget(path),
  })
  const video = new VideoSampleSource({
    codec: 'avc',
    quality: new Quality({ bitrate: clip.bitrate ?? 4_300_000 }),
    keyFrameInterval: 1,
    onEncodedPacket: tellColour(),
  })
  const audio = new AudioSampleSource({ codec: 'aac', quality: new Quality({ bitrate: 128_000 }) })
  output.addVideoTrack(video, { frameRate: RATE })
  output.addAudioTrack(audio)
  await output.start()
  const [left, right] = clipSound(clip.frames / RATE, clip).map(side => side.subarray(PRIMING.aac)) as [
    Float32Array,
    Float32Array,
  ]
  const both = new Float32Array(left.length * 2)
  both.set(left)
  both.set(right, left.length)
  const sound = new AudioSample({
    data: both,
    format: 'f32-planar',
    numberOfChannels: 2,
    sampleRate: SAMPLE_RATE,
    timestamp: 0,
  })
  await audio.add(sound)
  sound.close()
  const rgba = k.alloc(WIDTH * HEIGHT * 4)
  const planes = k.alloc(planesLength(WIDTH, HEIGHT))
  let frame = 0
  for await (const pixels of paintedFrames(name, clip.frames)) {
    k.bytes(rgba, WIDTH * HEIGHT * 4).set(pixels)
    writePlanes(k, { kind: 'codes', width: WIDTH, height: HEIGHT, ptr: rgba, opaque: true }, planes)
    const sample = new VideoSample(k.bytes(planes, planesLength(WIDTH, HEIGHT)).slice(), {
      format: 'I420',
      codedWidth: WIDTH,
      codedHeight: HEIGHT,
      timestamp: frame / RATE,
      duration: 1 / RATE,
      colorSpace: WRITTEN_COLOUR,
    })
    await video.add(sample)
    sample.close()
    frame++
    process.stderr.write(`\r${name}: ${frame} of ${clip.frames}`)
  }
  await output.finalize()
  process.stderr.write(`, ${(statSync(path).size / 1e6).toFixed(2)} MB\n`)
}

/** The picture a demo shot is known by, a quarter of its pixels. */
async function writePoster(slug: string, frame: number): Promise<void> {
  const found = await findProject(slug)
  const { k, frames } = await startEngine(found)
  const { width, height, ptr } = await exportFrame(k, frames, { shot: found.project.shot, scale: 0.5 }, frame)
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  const image = context.createImageData(width, height)
  image.data.set(k.bytes(ptr, width * height * 4))
  context.putImageData(image, 0, 0)
  writeFileSync(here(`./clips/${slug}.jpg`), canvas.toBuffer('image/jpeg', 86))
  await frames.close()
}

/** A few seconds of a demo shot, small and silent, to show it moving before it is opened. */
async function writeGlance(slug: string, span: Span): Promise<void> {
  const found = await findProject(slug)
  const engine = await startEngine(found)
  const { shot } = found.project
  const layers = shot.layers.map(l => ({ ...l, sound: { ...l.sound, on: false } }))
  const target = new FilePathTarget(here(`./clips/${slug}.glance.mp4`))
  await exportShot({ shot: { ...shot, layers }, format: 'mp4', span, scale: 0.375 }, target, engine)
  await engine.frames.close()
}

/** A font of the program as the demo keeps it: unpacked. */
async function writeFont(name: string): Promise<Take> {
  const packed = await readFile(here(`../node_modules/@fontsource/${name}/files/${name}-latin-400-normal.woff2`))
  const path = here(`./clips/${name}.ttf`)
  writeFileSync(path, await plainFont(packed, 'font/woff2', name))
  return takeIn(`${name}.ttf`)
}

/** A file of the demo that is no clip, as a take. */
async function takeIn(name: string): Promise<Take> {
  const path = here(`./clips/${name}`)
  const media = await openMedia(pathSource(path), name)
  return { ...(await describeTake(media, statSync(path).size)), digest: await digest(path) }
}

/** How the rim of the hoop moves, as it is followed in its clip. */
async function followedHoop(): Promise<Affine[]> {
  const k = await nodeKernels(384 << 20)
  const frames = frameStore(k, 64 << 20)
  const path = here('./clips/hoop.mp4')
  const media = await openMedia(pathSource(path), 'hoop.mp4')
  frames.add('hoop', media)
  const of = countedFrames('hoop', (await describeTake(media, statSync(path).size)).picture)!
  const { x, y } = hoopAt(0)
  // The rim alone: what is seen through it goes its own ways.
  const round = (radius: number, way: 1 | -1) =>
    Array.from({ length: 33 }, (_, i) => (way * i * 2 * Math.PI) / 32).map(a => ({
      x: x + radius * Math.cos(a),
      y: y + radius * Math.sin(a),
    }))
  const corners = [...round(HOOP_RADIUS + RIM / 3, 1), ...round(HOOP_RADIUS - RIM / 3, -1)]
  const moved = await followMoves(k, frames, of, 0, { corners }, { from: 0, to: of.count })
  await frames.close()
  return moved.map(({ frame, move }) => {
    if (!move) throw new Error(`The hoop is lost at frame ${frame}.`)
    return move
  })
}

async function digest(path: string): Promise<string> {
  const hash = await createSHA256()
  return hash.update(await readFile(path)).digest('hex')
}

nodeMedia()
await mkdir(here('./clips'), { recursive: true })
await mkdir(here('./shots'), { recursive: true })
const asked = process.argv.slice(2)
const wanted = (name: ClipName) => asked.length === 0 || asked.includes(name)
const files = new Map<ClipName, { digest: string; bytes: number }>()
for (const name of Object.keys(CLIPS) as ClipName[]) {
  const path = here(`./clips/${name}.mp4`)
  if (wanted(name)) {
    await writeClip(name, path)
    await writeSmallFrames(path)
  }
  files.set(name, { digest: await digest(path), bytes: statSync(path).size })
}
const shots = demoShots({
  clips: files,
  font: await writeFont('limelight'),
  drawing: await takeIn('clock-tower.svg'),
  hoop: await followedHoop(),
})
for (const { slug, project, poster, glance } of shots) {
  writeFileSync(here(`./shots/${slug}.json`), `${JSON.stringify(project, null, 2)}\n`)
  await writePoster(slug, poster)
  await writeGlance(slug, glance)
}
// All that a card says of a shot: the shot itself is fetched when it is opened.
const listed = shots.map(({ slug, project: { shot }, trick }) => ({
  id: slug,
  trick,
  shot: { name: shot.name, size: shot.size, rate: shot.rate, length: shot.length },
}))
writeFileSync(here('./index.json'), `${JSON.stringify(listed, null, 2)}\n`)
