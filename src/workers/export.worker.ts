// Makes a film of a shot, in a thread of its own so that editing goes on.
import { registerAacEncoder } from '@mediabunny/aac-encoder'
import * as Comlink from 'comlink'
import { canEncodeAudio, StreamTarget, type StreamTargetChunk } from 'mediabunny'
import { Cancelled, type ExportOptions, exportShot } from '../media/export'
import { frameStore } from '../media/frames'
import { soundStore } from '../media/sound'
import { browserKernels } from './kernels'
import { type MediaFile, openFiles } from './media-files'
import { browserStills } from './stills'

const MEMORY = 1.25 * 2 ** 30
const CACHE = 192 * 2 ** 20

export type ExportResult = { kind: 'done'; name: string } | { kind: 'cancelled' } | { kind: 'failed'; problem: string }

let cancelled = false

const full = (error: unknown): boolean => error instanceof DOMException && error.name === 'QuotaExceededError'

function sentence(error: unknown): string {
  if (full(error))
    return 'There is no room left for the file. Remove shots or earlier exports that are no longer needed.'
  return error instanceof Error ? error.message : String(error)
}

const api = {
  /** Writes the film into the browser's private files under `name`. */
  async run(
    options: ExportOptions,
    files: MediaFile[],
    name: string,
    onProgress: (done: number, of: number) => void,
  ): Promise<ExportResult> {
    cancelled = false
    const folder = await navigator.storage.getDirectory()
    const k = await browserKernels(MEMORY)
    const frames = frameStore(k, CACHE)
    const sounds = soundStore()
    try {
      if (!(await canEncodeAudio('aac'))) registerAacEncoder()
      const failed = await openFiles(files, { frames, sounds })
      if (failed[0]) return { kind: 'failed', problem: failed[0].reason }
      const handle = await folder.getFileHandle(name, { create: true })
      const file = await handle.createWritable()
      const stream = new WritableStream<StreamTargetChunk>({
        write: chunk =>
          file.write({ type: 'write', data: chunk.data as Uint8Array<ArrayBuffer>, position: chunk.position }),
        close: () => file.close(),
        abort: () => file.abort(),
      })
      const target = new StreamTarget(stream, { chunked: true, chunkSize: 4 * 2 ** 20 })
      await exportShot(options, target, { k, frames, sounds, onProgress, isCancelled: () => cancelled })
      return { kind: 'done', name }
    } catch (error) {
      await folder.removeEntry(name).catch(() => {})
      if (error instanceof Cancelled) return { kind: 'cancelled' }
      return { kind: 'failed', problem: sentence(error) }
    } finally {
      await frames.close()
    }
  },

  cancel(): void {
    cancelled = true
  },
}

export type ExportApi = typeof api
browserStills()
Comlink.expose(api)
