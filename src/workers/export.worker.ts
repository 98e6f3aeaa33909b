// Makes a film of a shot, in a thread of its own so that editing goes on.
import { registerAacEncoder } from '@mediabunny/aac-encoder'
import * as Comlink from 'comlink'
import { canEncodeAudio, StreamTarget, type StreamTargetChunk } from 'mediabunny'
import { type ExportOptions, exportShot } from '../media/export'
import { frameStore } from '../media/frames'
import { meterDecoders } from '../media/metered-decoder'
import { soundStore } from '../media/sound'
import { browserDrawings } from './drawings'
import { browserPlace } from './frame-place'
import { browserKernels } from './kernels'
import { type MediaFile, openFiles } from './media-files'
import { browserStills } from './stills'
import { writeChunk } from './write-chunk'

const MEMORY = 1.25 * 2 ** 30
const CACHE = 192 * 2 ** 20

const full = (error: unknown): boolean => error instanceof DOMException && error.name === 'QuotaExceededError'

function sentence(error: unknown): string {
  if (full(error))
    return 'There is no room left for the file. Remove shots or earlier exports that are no longer needed.'
  return error instanceof Error ? error.message : String(error)
}

const api = {
  /**
   * Writes the film into the browser's private files under `name`; returns what went wrong as a sentence, or null. The
   * thread may be ended at any moment: whoever does so removes the file.
   */
  async run(
    options: ExportOptions,
    files: MediaFile[],
    name: string,
    onProgress: (done: number) => void,
  ): Promise<string | null> {
    const k = await browserKernels(MEMORY)
    const frames = frameStore(k, CACHE, browserPlace())
    const sounds = soundStore()
    let out: FileSystemSyncAccessHandle | null = null
    try {
      if (!(await canEncodeAudio('aac'))) registerAacEncoder()
      const failed = await openFiles(files, { frames, sounds })
      if (failed[0]) return failed[0].reason
      const folder = await navigator.storage.getDirectory()
      const file = await (await folder.getFileHandle(name, { create: true })).createSyncAccessHandle()
      out = file
      // What an earlier try left.
      file.truncate(0)
      const stream = new WritableStream<StreamTargetChunk>({
        write: ({ data, position }) => writeChunk(file, data, position),
      })
      const target = new StreamTarget(stream, { chunked: true, chunkSize: 4 * 2 ** 20 })
      await exportShot(options, target, { k, frames, sounds, onProgress: done => onProgress(done) })
      file.flush()
      return null
    } catch (error) {
      return sentence(error)
    } finally {
      out?.close()
      await frames.close()
    }
  },
}

export type ExportApi = typeof api
browserStills()
browserDrawings()
meterDecoders()
Comlink.expose(api)
