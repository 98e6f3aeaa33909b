// The browser's database: projects, the media they use, and pictures that can be made again.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Project } from '../../core/shot'

export interface StoredProject {
  id: string
  project: Project
  savedAt: number
}

interface Schema extends DBSchema {
  projects: { key: string; value: StoredProject }
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
  opened ??= openDB<Schema>('jolly-ghost', 2, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('projects', { keyPath: 'id' })
        db.createObjectStore('media')
        db.createObjectStore('posters')
      }
      if (from < 2) db.createObjectStore('derived')
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
