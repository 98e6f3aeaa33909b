// Films of shots: made in a thread of their own, begun again where the tab was closed meanwhile, listed until forgotten.
import { parseProject } from '../../core/door'
import { newId, type Project } from '../../core/shot'
import { spanLength } from '../../core/time'
import type { ExportOptions } from '../../media/export'
import { exportClient, proxy } from '../../workers/clients'
import { runJob, stopJobsOf } from '../jobs/run'
import { withThread } from '../jobs/thread'
import { dropExport, type KeptExport, keepExport, keptExports } from '../storage/kept-exports'
import { alone, hold } from '../storage/locks'
import { privateFile, privateFiles, removePrivate } from '../storage/private-files'
import { projectMedia } from '../storage/projects'
import { jobChanged, jobForgotten, jobRecalled, store } from '../store'
import { PACKED } from './bring-in'

const lockOf = (id: string): string => `export ${id}`
const storedName = ({ id, options }: Pick<KeptExport, 'id' | 'options'>): string => `${id}.${options.format}`

/** How often an export is begun by itself: one that takes the browser down must not do so at every visit. */
const TRIES = 2

/** The shot's name as a file's. */
export const fileName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'shot'

/** Makes the film that was ordered. How it goes and ends is in the store, also why it could not even be ordered. */
async function make(kept: KeptExport, project: Project): Promise<void> {
  const { id, file, detail, options } = kept
  const release = await hold(lockOf(id))
  // Another tab is at it.
  if (!release) return
  const order = { id, kind: 'export', project: project.id, name: file, detail, of: spanLength(options.span) } as const
  let isMade = false
  try {
    const ordered = keepExport(kept)
    ordered.catch(() => {})
    await runJob(order, async ({ signal, tell }) => {
      await ordered
      // Only what has really begun counts as a try.
      await keepExport({ ...kept, tries: kept.tries + 1 })
      const { files, missing } = await projectMedia(project)
      if (missing.length > 0) throw new Error(`These takes are missing: ${missing.map(t => t.name).join(', ')}.`)
      const all = { ...options, shot: project.shot }
      const problem = await withThread(exportClient, signal, call =>
        call.run(all, files, storedName(kept), proxy(tell)),
      )
      if (problem) throw new Error(problem)
      const { size } = await privateFile(storedName(kept))
      store.dispatch(jobChanged({ id, bytes: size }))
      await keepExport({ ...kept, document: null, bytes: size })
      isMade = true
    })
  } catch {
    // What went wrong is listed with the job.
  } finally {
    if (!isMade) {
      await removePrivate(storedName(kept)).catch(error => console.error('A part of a film stays:', error))
      await dropExport(id).catch(error => console.error('An order stays:', error))
    }
    release()
  }
}

/** Starts an export. */
export function startExport(project: Project, options: Omit<ExportOptions, 'shot'>, detail: string): Promise<void> {
  const file = `${fileName(project.shot.name)}.${options.format}`
  const kept = { id: newId(), project: project.id, file, detail, options, bytes: 0, tries: 0 }
  return make({ ...kept, document: JSON.stringify(project), orderedAt: Date.now() }, project)
}

/** A job of an earlier visit as it is listed. */
const recalled = (kept: KeptExport, state: 'done' | 'failed', problem: string | null) => ({
  ...{ id: kept.id, kind: 'export' as const, project: kept.project, name: kept.file, detail: kept.detail },
  ...{ done: 0, of: spanLength(kept.options.span), startedAt: kept.orderedAt, bytes: kept.bytes, state, problem },
})

async function recall(kept: KeptExport): Promise<void> {
  if (kept.document === null) {
    const there = await privateFile(storedName(kept)).catch(() => null)
    if (there) store.dispatch(jobRecalled(recalled(kept, 'done', null)))
    else await dropExport(kept.id)
    return
  }
  const checked = parseProject(kept.document)
  if (checked.ok && kept.tries < TRIES) return make(kept, checked.value)
  const given = await alone(lockOf(kept.id), async () => {
    await removePrivate(storedName(kept))
    await dropExport(kept.id)
    return true
  })
  const why = checked.ok ? 'The browser was closed each time while it was made.' : checked.problem
  if (given) store.dispatch(jobRecalled(recalled(kept, 'failed', why)))
}

const HOUR = 3600 * 1000

/** Lists what was exported before and begins again what was not finished; files that nobody knows of go. */
export async function recallExports(): Promise<void> {
  const kept = await keptExports()
  const known = new Set(kept.map(storedName))
  for (const { name, changedAt } of await privateFiles()) {
    // A project that was packed may still be on its way to the person.
    if (known.has(name) || (name.endsWith(PACKED) && Date.now() - changedAt < HOUR)) continue
    await alone(lockOf(name.split('.')[0]!), () => removePrivate(name))
  }
  await Promise.all(kept.map(recall))
}

/** Hands a finished file to the person. */
export async function saveExport(id: string, file: string): Promise<void> {
  saveBlob(await privateFile(`${id}.${file.split('.').at(-1)}`), file)
}

export async function forgetExport(id: string, file: string): Promise<void> {
  store.dispatch(jobForgotten(id))
  await dropExport(id)
  await removePrivate(`${id}.${file.split('.').at(-1)}`)
}

/** Forgets every export of a shot that is no more. */
export async function forgetExportsOf(project: string): Promise<void> {
  stopJobsOf(project, ['export'])
  for (const kept of await keptExports()) if (kept.project === project) await forgetExport(kept.id, kept.file)
}

export function saveBlob(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}
