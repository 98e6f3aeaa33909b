// Projects as they are kept between visits.
import { type Checked, checkProject, type Project, usedTakes } from '../../core/shot'
import { database, type StoredProject } from './database'

export async function saveProject(project: Project): Promise<void> {
  const db = await database()
  await db.put('projects', { id: project.id, project, savedAt: Date.now() })
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
    change.objectStore('projects').put({ id: project.id, project, savedAt: Date.now() }),
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
  return stored ? checkProject(stored.project) : null
}

/** All projects, the latest first. */
export async function listProjects(): Promise<StoredProject[]> {
  const db = await database()
  return (await db.getAll('projects')).sort((a, b) => b.savedAt - a.savedAt)
}

/** Removes a project, and the media that no other project uses. */
export async function removeProject(id: string): Promise<void> {
  const db = await database()
  const change = db.transaction(['projects', 'media', 'posters'], 'readwrite')
  const projects = change.objectStore('projects')
  const gone = await projects.get(id)
  await projects.delete(id)
  await change.objectStore('posters').delete(id)
  const kept = new Set((await projects.getAll()).flatMap(p => p.project.takes.map(t => t.digest)))
  const media = change.objectStore('media')
  for (const { digest } of gone?.project.takes ?? []) if (!kept.has(digest)) await media.delete(digest)
  await change.done
}

export async function getMedia(digest: string): Promise<Blob | undefined> {
  return (await database()).get('media', digest)
}

/** The files of every take a project uses; those that are gone are named. */
export async function projectMedia(project: Project) {
  const files: { digest: string; name: string; blob: Blob }[] = []
  const missing: string[] = []
  for (const digest of usedTakes(project.shot)) {
    const name = project.takes.find(t => t.digest === digest)?.name ?? digest
    const blob = await getMedia(digest)
    if (blob) files.push({ digest, name, blob })
    else missing.push(name)
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
