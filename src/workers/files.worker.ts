// Looks at files that are brought in, packs and unpacks project files.
import * as Comlink from 'comlink'
import type { Checked } from '../core/door'
import { readProjectFile, writeProjectFile } from '../core/exchange'
import type { Project, Take } from '../core/shot'
import type { Rate } from '../core/time'
import { digestOf } from '../media/digest'
import { blobSource, describeTake, noteOf, openMedia } from '../media/open'
import { ForeignFilm } from '../media/problem'
import { writeSequence } from '../media/sequence'
import { browserDrawings } from './drawings'
import type { MediaFile } from './media-files'
import { browserStills } from './stills'
import { writeChunk } from './write-chunk'

async function* chunksOf(blob: Blob): AsyncGenerator<Uint8Array> {
  const reader = blob.stream().getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    yield value
  }
}

/** A take that has no digest yet; or what is wrong, and whether it is a film that something else could read. */
type Looked =
  | { ok: true; value: { take: Omit<Take, 'digest'>; note: string | null } }
  | { ok: false; problem: string; isForeign: boolean }

const api = {
  /**
   * Describes a file as a take without a digest yet, with a sentence about what of it is left out, or says why it cannot
   * be one. A damaged file can keep this from ever coming back: whoever asks ends the thread then.
   */
  async look(file: File): Promise<Looked> {
    try {
      if (file.size === 0) return { ok: false, problem: `“${file.name}” is empty.`, isForeign: false }
      const media = await openMedia(blobSource(file), file.name)
      try {
        const take = await describeTake(media, file.size)
        return { ok: true, value: { take, note: await noteOf(media) } }
      } finally {
        media.close()
      }
    } catch (error) {
      const problem = error instanceof Error ? error.message : String(error)
      return { ok: false, problem, isForeign: error instanceof ForeignFilm }
    }
  },

  /** Writes numbered stills as one file into the named private folder. */
  async sequence(
    files: readonly File[],
    rate: Rate,
    folder: string,
    onProgress: (share: number) => void,
  ): Promise<Checked<null>> {
    try {
      const root = await navigator.storage.getDirectory()
      const into = await root.getDirectoryHandle(folder, { create: true })
      const out = await (await into.getFileHandle('stills', { create: true })).createSyncAccessHandle()
      const read = files.map(file => ({ name: file.name, bytes: async () => new Uint8Array(await file.arrayBuffer()) }))
      try {
        await writeSequence(read, rate, chunk => writeChunk(out, chunk), onProgress)
      } finally {
        out.close()
      }
      return { ok: true, value: null }
    } catch (error) {
      return { ok: false, problem: error instanceof Error ? error.message : String(error) }
    }
  },

  digest: (file: File, onProgress: (share: number) => void): Promise<string> => digestOf(file, onProgress),

  /** Writes a project file of a project and the media there are into the browser's private files under `name`. */
  async pack(
    project: Project,
    files: MediaFile[],
    name: string,
    onProgress: (share: number) => void,
  ): Promise<Checked<null>> {
    const folder = await navigator.storage.getDirectory()
    const open = async (take: Take) => {
      const file = files.find(f => f.digest === take.digest)
      return file ? chunksOf(file.blob) : null
    }
    try {
      const handle = await folder.getFileHandle(name, { create: true })
      const out = await handle.createSyncAccessHandle()
      try {
        await writeProjectFile(
          project,
          open,
          chunk => writeChunk(out, chunk),
          (done, of) => onProgress(done / of),
        )
      } finally {
        out.close()
      }
      return { ok: true, value: null }
    } catch (error) {
      await folder.removeEntry(name).catch(() => {})
      return { ok: false, problem: error instanceof Error ? error.message : String(error) }
    }
  },

  /** A project out of a project file; its media become files of the named private folder, called by their digests. */
  async unpack(file: File, folder: string, onProgress: (share: number) => void): Promise<Checked<Project>> {
    const root = await navigator.storage.getDirectory()
    const into = await root.getDirectoryHandle(folder, { create: true })
    const read = async (from: number, to: number) => {
      onProgress(Math.min(1, to / file.size))
      return new Uint8Array(await file.slice(from, to).arrayBuffer())
    }
    // Entries come one after the other: one file is open at a time.
    let open: { digest: string; out: FileSystemSyncAccessHandle } | null = null
    const onMedia = async ({ digest }: Take, chunk: Uint8Array) => {
      if (open?.digest !== digest) {
        open?.out.close()
        open = null
        const handle = await into.getFileHandle(digest, { create: true })
        open = { digest, out: await handle.createSyncAccessHandle() }
      }
      writeChunk(open.out, chunk, open.out.getSize())
    }
    try {
      const checked = await readProjectFile(read, file.size, onMedia)
      return checked.ok ? checked : { ok: false, problem: `“${file.name}” cannot be opened. ${checked.problem}` }
    } catch (error) {
      const full = error instanceof DOMException && error.name === 'QuotaExceededError'
      const why = full
        ? 'The browser has no room for its media. Remove shots that are no longer needed.'
        : `It cannot be read (${error instanceof Error ? error.message : String(error)}).`
      return { ok: false, problem: `“${file.name}” cannot be opened. ${why}` }
    } finally {
      ;(open as { out: FileSystemSyncAccessHandle } | null)?.out.close()
    }
  },
}

export type FilesApi = typeof api
browserStills()
browserDrawings()
Comlink.expose(api)
