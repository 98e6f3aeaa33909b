// The browser's database: projects, the media they use, and pictures that can be made again.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Project } from '../../core/shot'

/** A project that was saved, and when. */
export interface StoredProject {
  id: string
  project: Project
  savedAt: number
}

/** A project as it lies in the database: as text, which is written many times quicker than a tree of objects. */
interface WrittenProject {
  id: string
  project: string
  savedAt: number
}

interface Schema extends DBSchema {
  projects: { key: string; value: WrittenProject }
  media: { key: string; value: Blob }
  posters: { key: string; value: Blob }
  derived: { key: string; value: StoredDerived }
}

/** What was made of a take, by its digest: a sheet of small frames and how loud it is. */
export interface StoredDerived {
  sheet: { picture: Blob; columns: number; count: number; every: number; width: number; height: number } | null
  peaks: Uint8Array | null
}

let opened: Promise<IDBPDatabase<Schema>> | null = null

export function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('jolly-ghost', 3, {
    async upgrade(db, from, _, change) {
      if (from < 1) {
        db.createObjectStore('projects', { keyPath: 'id' })
        db.createObjectStore('media')
        db.createObjectStore('posters')
      }
      if (from < 2) db.createObjectStore('derived')
      if (from === 1 || from === 2) {
        const projects = change.objectStore('projects')
        for (const kept of await projects.getAll()) {
          await projects.put({ ...kept, project: JSON.stringify(kept.project) })
        }
      }
    },
    // Another tab brings a newer database: this one makes room for it.
    blocking(_, __, event) {
      ;(event.target as IDBDatabase).close()
      opened = null
    },
    terminated() {
      opened = null
    },
  })
  return opened
}

/** A sentence for a failed write. */
export function storageProblem(error: unknown): string {
  if (error instanceof DOMException && error.name === 'QuotaExceededError') {
    return 'The browser has no room left. Remove shots that are no longer needed; what was saved before is safe.'
  }
  return `The browser could not save (${error instanceof Error ? error.message : String(error)}). What was saved before is safe.`
}
