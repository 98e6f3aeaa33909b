// The core with what it needs in Node: kernels, decoders, files.
import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { registerMediabunnyServer } from '@mediabunny/server'
import { FilePathSource } from 'mediabunny'
import { type Kernels, loadKernels } from '../core/render'
import { usedTakes } from '../core/shot'
import { type FrameStore, frameStore } from '../media/frames'
import { openMedia } from '../media/open'
import { type SoundStore, soundStore } from '../media/sound'
import { Complaint } from './complaint'
import type { FoundProject } from './projects'

const MEMORY = 2 ** 30
const CACHE = 256 * 2 ** 20

export async function nodeKernels(bytes = MEMORY): Promise<Kernels> {
  const path = fileURLToPath(new URL('../../build/kernels.wasm', import.meta.url))
  return loadKernels(await WebAssembly.compile(await readFile(path)), bytes)
}

let registered = false

/** Lets the media library decode and encode here; safe to call again. */
export function nodeMedia(): void {
  if (!registered) registerMediabunnyServer({ hardwareContext: null })
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
    const media = await openMedia(new FilePathSource(pathOf(take)), take.name)
    engine.frames.add(digest, media)
    engine.sounds.add(digest, media)
  }
  return engine
}
