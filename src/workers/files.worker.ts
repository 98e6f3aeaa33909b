// Looks at files that are brought in, packs and unpacks project files.
import * as Comlink from 'comlink'
import { readProjectFile, writeProjectFile } from '../core/exchange'
import type { Checked, Project, Take } from '../core/shot'
import { digestOf } from '../media/digest'
import { blobSource, describeTake, openMedia } from '../media/open'
import type { MediaFile } from './media-files'
import { browserStills } from './stills'

async function* chunksOf(blob: Blob): AsyncGenerator<Uint8Array> {
  const reader = blob.stream().getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    yield value
  }
}

const api = {
  /** Describes a file as a take, with a sentence about what of it is left out, or says why it cannot be one. */
  async describe(
    file: File,
    onProgress: (share: number) => void,
  ): Promise<Checked<{ take: Take; note: string | null }>> {
    try {
      if (file.size === 0) return { ok: false, problem: `“${file.name}” is empty.` }
      const media = await openMedia(blobSource(file), file.name)
      try {
        const take = await describeTake(media, file.size)
        const note = media.kind === 'film' ? media.note : null
        return { ok: true, value: { take: { ...take, digest: await digestOf(file, onProgress) }, note } }
      } finally {
        media.close()
      }
    } catch (error) {
      return { ok: false, problem: error instanceof Error ? error.message : String(error) }
    }
  },

  /** A project file of a project and its media. */
  async pack(project: Project, files: MediaFile[], onProgress: (share: number) => void): Promise<Checked<Blob>> {
    const parts: BlobPart[] = []
    const open = async (take: Take) => {
      const file = files.find(f => f.digest === take.digest)
      if (!file) throw new Error(`The take “${take.name}” is missing, so the shot cannot be saved as a file.`)
      return chunksOf(file.blob)
    }
    try {
      await writeProjectFile(
        project,
        open,
        chunk => parts.push(chunk as Uint8Array<ArrayBuffer>),
        (done, of) => onProgress(done / of),
      )
      return { ok: true, value: new Blob(parts, { type: 'application/zip' }) }
    } catch (error) {
      return { ok: false, problem: error instanceof Error ? error.message : String(error) }
    }
  },

  /** A project and its media out of a project file. */
  async unpack(file: File): Promise<Checked<{ project: Project; files: MediaFile[] }>> {
    const parts = new Map<string, { take: Take; chunks: BlobPart[] }>()
    const read = await readProjectFile(
      () => chunksOf(file),
      (take, chunk) => {
        const own = parts.get(take.digest) ?? { take, chunks: [] }
        own.chunks.push(chunk.slice() as Uint8Array<ArrayBuffer>)
        parts.set(take.digest, own)
      },
    )
    if (!read.ok) return { ok: false, problem: `“${file.name}” cannot be opened. ${read.problem}` }
    const files = [...parts.values()].map(({ take, chunks }) => ({
      digest: take.digest,
      name: take.name,
      blob: new Blob(chunks, { type: take.type }),
    }))
    return { ok: true, value: { project: read.value, files } }
  },
}

export type FilesApi = typeof api
browserStills()
Comlink.expose(api)
