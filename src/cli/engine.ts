// The core with what it needs in Node: kernels, decoders, files.
import { existsSync, statSync } from 'node:fs'
import { open, readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import zlib from 'node:zlib'
import { registerMediabunnyServer } from '@mediabunny/server'
import { FilePathSource } from 'mediabunny'
import { type Kernels, loadKernels } from '../core/render'
import { usedTakes } from '../core/shot'
import { setPlaneReader } from '../media/decode'
import type { FramePlace } from '../media/derived-frame'
import { setDrawingModule } from '../media/drawing'
import { type FrameStore, frameStore } from '../media/frames'
import { describeTake, type MediaSource, openMedia } from '../media/open'
import { setSampleMaker } from '../media/planes-sample'
import { setDeflate } from '../media/png'
import { type SoundStore, soundStore } from '../media/sound'
import { type StillPixels, setStillDecoder } from '../media/still'
import { Complaint } from './complaint'
import { framePlanes } from './frame-planes'
import { frameSample } from './frame-sample'
import { patiently } from './patience'
import type { FoundProject } from './projects'

const MEMORY = 2 ** 30
const CACHE = 256 * 2 ** 20
const CACHE_AT_FIRST = 64 * 2 ** 20

export async function nodeKernels(bytes = MEMORY): Promise<Kernels> {
  const path = fileURLToPath(new URL('../../build/kernels.wasm', import.meta.url))
  return loadKernels(await WebAssembly.compile(await readFile(path)), bytes)
}

/** A file on disk. */
export const pathSource = (path: string): MediaSource => ({
  bytes: statSync(path).size,
  source: () => new FilePathSource(path),
  async read(from, to) {
    const file = await open(path)
    try {
      const { buffer, bytesRead } = await file.read(new Uint8Array(to - from), 0, to - from, from)
      return buffer.subarray(0, bytesRead)
    } finally {
      await file.close()
    }
  },
})

async function decodePicture(bytes: Uint8Array): Promise<StillPixels> {
  // Only pictures need it, and it takes its time to load.
  const { createCanvas, loadImage } = await import('@napi-rs/canvas')
  const image = await loadImage(Buffer.from(bytes))
  const { width, height } = image
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  context.drawImage(image, 0, 0)
  return { width, height, data: context.getImageData(0, 0, width, height).data }
}

/** What is packed comes in as few pieces as can be: each is copied again. */
const PIECE = 2 ** 20

/** In a thread beside this one. Filtered rows shrink by some hundredths more at higher levels and by longer repeats, which cost much. */
const quickDeflate = (data: Uint8Array<ArrayBuffer>) =>
  promisify<Uint8Array, object, Uint8Array>(zlib.deflate)(data, {
    level: 1,
    strategy: zlib.constants.Z_RLE,
    chunkSize: PIECE,
  })

let registered = false

/** Lets the media library decode and encode here; safe to call again. */
export function nodeMedia(): void {
  if (!registered) {
    registerMediabunnyServer({ hardwareContext: null })
    setStillDecoder(decodePicture)
    setPlaneReader(framePlanes)
    setSampleMaker(frameSample)
    setDeflate(quickDeflate)
    setDrawingModule(() => readFile(createRequire(import.meta.url).resolve('@resvg/resvg-wasm/index_bg.wasm')))
  }
  registered = true
}

export interface Engine {
  k: Kernels
  frames: FrameStore
  sounds: SoundStore
}

/** Opens the takes a project uses. `kept`: where frames made by recipe are kept. Throws Complaint or MediaProblem. */
export async function startEngine({ project, pathOf }: FoundProject, kept: FramePlace | null = null): Promise<Engine> {
  nodeMedia()
  const k = await nodeKernels()
  const engine = { k, frames: frameStore(k, CACHE, kept, CACHE_AT_FIRST), sounds: soundStore() }
  for (const digest of usedTakes(project.shot)) {
    const take = project.takes.find(t => t.digest === digest)
    if (!take) throw new Complaint('The project does not list one of its takes.')
    const path = pathOf(take)
    if (!existsSync(path)) throw new Complaint(`The take “${take.name}” is missing: the file was saved without it.`)
    // The first look goes to its end, so that nothing later can go round in circles.
    const media = await patiently(take.name, take.bytes, async () => {
      const opened = await openMedia(pathSource(path), take.name)
      if (opened.kind === 'film') await opened.input.computeDuration()
      if (opened.kind === 'drawing' || opened.kind === 'font') await describeTake(opened, take.bytes)
      return opened
    })
    engine.frames.add(digest, media)
    engine.sounds.add(digest, media)
  }
  return engine
}
