// The browser's database: projects, the media they use, pictures that can be made again, films that were ordered.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { KeptExport } from './kept-exports'
import type { KeptPiece } from './kept-pieces'

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
  /** By recipe. */
  made: { key: string; value: StoredMade }
  /** Documents as they were before something had to be left out of them. */
  aside: { key: string; value: string }
  exports: { key: string; value: KeptExport }
  /** Pieces that are kept for other layers. */
  pieces: { key: string; value: KeptPiece }
}

/** What a recipe made, and the digests of the files that it was made of. */
interface StoredMade {
  of: readonly string[]
  made: unknown
}

let opened: Promise<IDBPDatabase<Schema>> | null = null
let openings = 0

/** How often the database has been opened: a new one may lack what an earlier one held. */
export const timesOpened = (): number => openings

async function open(): Promise<IDBPDatabase<Schema>> {
  openings++
  return openDB<Schema>('jolly-ghost', 7, {
    async upgrade(db, from, _, change) {
      if (from < 1) {
        db.createObjectStore('projects', { keyPath: 'id' })
        db.createObjectStore('media')
        db.createObjectStore('posters')
      }
      if (from === 1 || from === 2) {
        const projects = change.objectStore('projects')
        for (const kept of await projects.getAll()) {
          await projects.put({ ...kept, project: JSON.stringify(kept.project) })
        }
      }
      if (from < 4) db.createObjectStore('aside')
      if (from < 5) db.createObjectStore('exports', { keyPath: 'id' })
      if (from < 6) {
        // What earlier versions made of takes is made again.
        const older = db.objectStoreNames as unknown as DOMStringList
        if (older.contains('derived')) db.deleteObjectStore('derived' as never)
        db.createObjectStore('made')
      }
      if (from < 7) db.createObjectStore('pieces', { keyPath: 'id' })
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
}

export function database(): Promise<IDBPDatabase<Schema>> {
  if (!opened) {
    const opening = open()
    opened = opening
    // What failed once may work the next time.
    opening.catch(() => {
      if (opened === opening) opened = null
    })
  }
  return opened
}

const isFull = (error: unknown): boolean => error instanceof DOMException && error.name === 'QuotaExceededError'

/** What went wrong with a write, without a word about what was there before. */
export const writeProblem = (error: unknown): string =>
  isFull(error)
    ? 'The browser has no room left. Remove shots that are no longer needed.'
    : `The browser could not save (${error instanceof Error ? error.message : String(error)}).`
