// Export jobs: each in its own worker, told to the store as it goes.
import { newId, type Project } from '../../core/shot'
import { spanLength } from '../../core/time'
import type { ExportOptions } from '../../media/export'
import { type Client, exportClient, proxy } from '../../workers/clients'
import type { ExportApi } from '../../workers/export.worker'
import { projectMedia } from '../storage/projects'
import { jobChanged, jobStarted, store } from '../store'

const running = new Map<string, Client<ExportApi>>()

/** The shot's name as a file's. */
export const fileName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'shot'

/** Starts an export; its progress and end are in the store. */
export async function startExport(
  project: Project,
  options: Omit<ExportOptions, 'shot'>,
  detail: string,
): Promise<void> {
  const id = newId()
  const { format, span } = options
  const stored = `${id}.${format}`
  const file = `${fileName(project.shot.name)}.${format}`
  const base = { id, project: project.id, file, detail, done: 0, of: spanLength(span), startedAt: Date.now() }
  store.dispatch(jobStarted({ ...base, state: 'running', problem: null, bytes: 0 }))
  const change = (changes: object) => store.dispatch(jobChanged({ id, ...changes }))
  const { files, missing } = await projectMedia(project)
  if (missing.length > 0) {
    change({ state: 'failed', problem: `These takes are missing: ${missing.map(t => t.name).join(', ')}.` })
    return
  }
  const client = exportClient()
  running.set(id, client)
  let told = 0
  const onProgress = (done: number, of: number) => {
    const now = performance.now()
    if (now - told < 100 && done < of) return
    told = now
    change({ done })
  }
  try {
    const result = await client.call.run({ ...options, shot: project.shot }, files, stored, proxy(onProgress))
    if (result.kind === 'done') change({ state: 'done', bytes: (await exportedFile(id, format)).size })
    else if (result.kind === 'cancelled') change({ state: 'cancelled' })
    else change({ state: 'failed', problem: result.problem })
  } catch (error) {
    change({ state: 'failed', problem: error instanceof Error ? error.message : String(error) })
  } finally {
    running.delete(id)
    client.end()
  }
}

export function cancelExport(id: string): void {
  void running.get(id)?.call.cancel()
}

async function exportedFile(id: string, format: string): Promise<File> {
  const folder = await navigator.storage.getDirectory()
  return (await folder.getFileHandle(`${id}.${format}`)).getFile()
}

/** Hands a finished file to the person. */
export async function saveExport(id: string, file: string): Promise<void> {
  saveBlob(await exportedFile(id, file.split('.').at(-1)!), file)
}

export async function forgetExport(id: string, file: string): Promise<void> {
  const folder = await navigator.storage.getDirectory()
  await folder.removeEntry(`${id}.${file.split('.').at(-1)}`)
}

const DAY = 24 * 3600 * 1000

/** Finished files of earlier visits take room that nobody sees: after a day they go. */
export async function clearOldExports(): Promise<void> {
  const folder = await navigator.storage.getDirectory()
  const known = new Set(store.getState().jobs.map(j => j.id))
  for await (const [name, handle] of folder.entries()) {
    if (handle.kind !== 'file' || known.has(name.split('.')[0]!)) continue
    const { lastModified } = await (handle as FileSystemFileHandle).getFile()
    if (Date.now() - lastModified > DAY) await folder.removeEntry(name)
  }
}

export function saveBlob(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}
