// The core with what it needs in Node: kernels, decoders, files.
import { statSync } from 'node:fs'
import { open, readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { registerMediabunnyServer } from '@mediabunny/server'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { FilePathSource } from 'mediabunny'
import { type Kernels, loadKernels } from '../core/render'
import { usedTakes } from '../core/shot'
import { type FrameStore, frameStore } from '../media/frames'
import { type MediaSource, openMedia } from '../media/open'
import { type SoundStore, soundStore } from '../media/sound'
import { type StillPixels, setStillDecoder } from '../media/still'
import { Complaint } from './complaint'
import type { FoundProject } from './projects'

const MEMORY = 2 ** 30
const CACHE = 256 * 2 ** 20

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
  const image = await loadImage(Buffer.from(bytes))
  const { width, height } = image
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  context.drawImage(image, 0, 0)
  return { width, height, data: context.getImageData(0, 0, width, height).data }
}

let registered = false

/** Lets the media library decode and encode here; safe to call again. */
export function nodeMedia(): void {
  if (!registered) {
    registerMediabunnyServer({ hardwareContext: null })
    setStillDecoder(decodePicture)
  }
  registered = true
}

export interface Engine {
  k: Kernels
  frames: FrameStore
  sounds: SoundStore
}

/** Opens the takes a project uses. Throws Complaint or MediaProblem. */
export async function startEngine({ project, pathOf }: FoundProject): Promise<Engine> {
  nodeMedia()
  const k = await nodeKernels()
  const engine = { k, frames: frameStore(k, CACHE), sounds: soundStore() }
  for (const digest of usedTakes(project.shot)) {
    const take = project.takes.find(t => t.digest === digest)
    if (!take) throw new Complaint('The project does not list one of its takes.')
    const media = await openMedia(pathSource(pathOf(take)), take.name)
    engine.frames.add(digest, media)
    engine.sounds.add(digest, media)
  }
  return engine
}
