// Projects as they are kept between visits.
import { type Checked, checkProject, type Project, type Take, usedTakes } from '../../core/shot'
import { database, type StoredDerived, type StoredProject } from './database'

const written = (project: Project) => ({ id: project.id, project: JSON.stringify(project), savedAt: Date.now() })

export async function saveProject(project: Project): Promise<void> {
  const db = await database()
  await db.put('projects', written(project))
}

/** Saves a project with its media in one transaction: all of it or nothing. */
export async function saveWithMedia(project: Project, media: readonly { digest: string; blob: Blob }[]): Promise<void> {
  const db = await database()
  const change = db.transaction(['projects', 'media'], 'readwrite')
  const files = change.objectStore('media')
  const writes = [
    ...media.map(async ({ digest, blob }) => {
      if (!(await files.getKey(digest))) await files.put(blob, digest)
    }),
    change.objectStore('projects').put(written(project)),
  ]
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

/** The project, or null if there is none of that id; validated, since an older version may have written it. */
export async function loadProject(id: string): Promise<Checked<Project> | null> {
  const db = await database()
  const stored = await db.get('projects', id)
  return stored ? checkProject(JSON.parse(stored.project)) : null
}

/** All projects, the latest first. */
export async function listProjects(): Promise<StoredProject[]> {
  const db = await database()
  const all = await db.getAll('projects')
  return all.map(p => ({ ...p, project: JSON.parse(p.project) })).sort((a, b) => b.savedAt - a.savedAt)
}

/** Removes a project, and the media that no other project uses. */
export async function removeProject(id: string): Promise<void> {
  const db = await database()
  const change = db.transaction(['projects', 'media', 'posters', 'derived'], 'readwrite')
  const projects = change.objectStore('projects')
  await projects.delete(id)
  await change.objectStore('posters').delete(id)
  const kept = new Set(
    (await projects.getAll()).flatMap(p => (JSON.parse(p.project) as Project).takes.map(t => t.digest)),
  )
  for (const name of ['media', 'derived'] as const) {
    const store = change.objectStore(name)
    for (const digest of await store.getAllKeys()) if (!kept.has(digest)) await store.delete(digest)
  }
  await change.done
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

export async function getDerived(digest: string): Promise<StoredDerived | undefined> {
  return (await database()).get('derived', digest)
}

export async function saveDerived(digest: string, derived: StoredDerived): Promise<void> {
  await (await database()).put('derived', derived, digest)
}

/** Stores media without a project that uses them yet. */
export async function saveMedia(media: readonly { digest: string; blob: Blob }[]): Promise<void> {
  const db = await database()
  const change = db.transaction('media', 'readwrite')
  for (const { digest, blob } of media) if (!(await change.store.getKey(digest))) await change.store.put(blob, digest)
  await change.done
}
