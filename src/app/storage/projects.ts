// Projects as they are kept between visits.
import { type Checked, readDocument, type Salvaged, salvage } from '../../core/door'
import { type Project, type Take, usedTakes } from '../../core/shot'
import { forgetFramesOf } from '../../workers/clients'
import { database, writeProblem } from './database'
import { alone, together } from './locks'

const written = (project: Project) => ({ id: project.id, project: JSON.stringify(project), savedAt: Date.now() })

export async function saveProject(project: Project): Promise<void> {
  const db = await database()
  // Nothing else is in the way of it, and it is on the disk when this returns.
  const change = db.transaction('projects', 'readwrite', { durability: 'strict' })
  await Promise.all([change.store.put(written(project)), change.done])
}

/** Media that no project may use yet: nobody sweeps them away before `use` is done. */
const KEEPING = 'media'

async function putMedia(media: readonly { digest: string; blob: Blob }[]): Promise<void> {
  const db = await database()
  const change = db.transaction('media', 'readwrite', { durability: 'strict' })
  const writes = media.map(async ({ digest, blob }) => {
    if (!(await change.store.getKey(digest))) await change.store.put(blob, digest)
  })
  try {
    await Promise.all(writes)
  } catch (error) {
    // Not every failed write ends its transaction: what it did besides must not stay.
    await Promise.allSettled(writes)
    change.done.catch(() => {})
    try {
      change.abort()
    } catch {
      // It has ended itself.
    }
    throw error
  }
  await change.done
}

/** Saves a project's media, then the project: what is listed is always whole. */
export function saveWithMedia(project: Project, media: readonly { digest: string; blob: Blob }[]): Promise<void> {
  return together(KEEPING, async () => {
    await putMedia(media)
    await saveProject(project)
  })
}

/** Stores media of a project that is open, which `use` lets it know before anybody could sweep them away. */
export function saveMedia(
  media: readonly { digest: string; blob: Blob }[],
  use: () => Promise<void> = async () => {},
): Promise<void> {
  return together(KEEPING, async () => {
    await putMedia(media)
    await use()
  })
}

export async function hasProject(id: string): Promise<boolean> {
  return (await (await database()).getKey('projects', id)) !== undefined
}

/** A stored project, opened as far as that goes; null if there is none of that id. */
export async function loadProject(id: string): Promise<Checked<Salvaged> | null> {
  const stored = await (await database()).get('projects', id)
  if (!stored) return null
  const found = opened(stored.project)
  if (!found.ok) return found
  if (found.value.aside.length > 0) await keepAsItWas(id, stored.project)
  // It is known by the name it lies under, whatever it says itself.
  return { ok: true, value: { ...found.value, project: { ...found.value.project, id } } }
}

function opened(text: string): Checked<Salvaged> {
  const data = readDocument(text)
  return data.ok ? salvage(data.value) : data
}

async function keepAsItWas(id: string, text: string): Promise<void> {
  const db = await database()
  if (!(await db.getKey('aside', id))) await db.put('aside', text, id)
}

/** The text of a project that could not be opened, or not wholly, as it was kept; null if there is none. */
export async function asItWas(id: string): Promise<string | null> {
  const db = await database()
  const text = (await db.get('projects', id))?.project ?? null
  const opens = text !== null && opened(text).ok
  return (opens ? await db.get('aside', id) : null) ?? text
}

/** Something kept on this machine: a project, or one whose text says nothing any more. */
export interface Listed {
  id: string
  project: Project | null
  savedAt: number
}

function readable(text: string): Project | null {
  const data = readDocument(text)
  const project = data.ok ? (data.value as Project | null) : null
  const { size, rate, length } = project?.shot ?? {}
  return size?.width && rate?.num && rate.den && length ? project : null
}

/** All projects, the latest first. */
export async function listProjects(): Promise<Listed[]> {
  const all = await (await database()).getAll('projects')
  return all.map(p => ({ ...p, project: readable(p.project) })).sort((a, b) => b.savedAt - a.savedAt)
}

const takesIn = (text: string): string[] => {
  const data = readDocument(text)
  const takes = data.ok ? (data.value as Partial<Project> | null)?.takes : null
  return Array.isArray(takes) ? takes.map(t => t?.digest) : []
}

/** Removes a project, and the media that no other project uses; refused with a sentence while a tab has it open. */
export async function removeProject(id: string): Promise<string | null> {
  const removed = await alone(`project ${id}`, () => alone(KEEPING, () => remove(id), 'wait'))
  return removed === null ? 'This shot is open in another tab. Close it there, then remove it here.' : null
}

async function remove(id: string): Promise<true> {
  const db = await database()
  const change = db.transaction(['projects', 'media', 'posters', 'made', 'aside'], 'readwrite')
  const projects = change.objectStore('projects')
  const own = takesIn((await projects.get(id))?.project ?? '')
  await projects.delete(id)
  await change.objectStore('posters').delete(id)
  await change.objectStore('aside').delete(id)
  const kept = new Set((await projects.getAll()).flatMap(p => takesIn(p.project)))
  const gone = new Set(own.filter(digest => !kept.has(digest)))
  for (const digest of gone) await change.objectStore('media').delete(digest)
  for await (const made of change.objectStore('made')) {
    if (made.value.of.some(digest => gone.has(digest))) await made.delete()
  }
  await change.done
  // What cannot be cleared away now is given up when room is short.
  await forgetFramesOf(gone).catch(error => console.warn('What was made of the takes is still kept:', error))
  return true
}

/** Whether what a project needs is really there, after a write that failed or a database that had gone. */
export async function whatIsKept(project: Project): Promise<'all' | 'no media' | 'nothing'> {
  const db = await database()
  if (!(await db.getKey('projects', project.id))) return 'nothing'
  const kept = new Set(await db.getAllKeys('media'))
  return [...usedTakes(project.shot)].every(digest => kept.has(digest)) ? 'all' : 'no media'
}

/** A sentence for a failed write, with what has become of what was saved before. */
export async function storageProblem(error: unknown, project: Project | null): Promise<string> {
  const kept = project && (await whatIsKept(project).catch(() => 'unknown' as const))
  const before = {
    all: ' What was saved before is safe.',
    'no media': ' Some of its takes are no longer in the browser: save the shot as a file now.',
    nothing: ' The shot is no longer in the browser: save it as a file now, before this page is closed.',
    unknown: ' Whether what was saved before is still there cannot be found out: save the shot as a file.',
  }
  return writeProblem(error) + (kept ? before[kept] : '')
}

export async function getMedia(digest: string): Promise<Blob | undefined> {
  return (await database()).get('media', digest)
}

/** The files of a project's takes, all of them or those its layers use; the takes whose file is gone are named. */
export async function projectMedia(project: Project, which: 'all' | 'used' = 'used') {
  const files: { digest: string; name: string; blob: Blob }[] = []
  const missing: Take[] = []
  const used = usedTakes(project.shot)
  for (const take of project.takes) {
    if (which === 'used' && !used.has(take.digest)) continue
    const blob = await getMedia(take.digest)
    if (blob) files.push({ digest: take.digest, name: take.name, blob })
    else missing.push(take)
  }
  return { files, missing }
}

export async function savePoster(id: string, poster: Blob): Promise<void> {
  await (await database()).put('posters', poster, id)
}

export async function getPoster(id: string): Promise<Blob | undefined> {
  return (await database()).get('posters', id)
}

/** Whether a file of this size can be expected to fit, with the room there is in bytes. */
export async function roomFor(bytes: number): Promise<{ fits: boolean; free: number }> {
  const { quota, usage } = await navigator.storage.estimate()
  const free = (quota ?? Number.POSITIVE_INFINITY) - (usage ?? 0)
  return { fits: bytes < free, free }
}
