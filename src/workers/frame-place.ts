// Frames made by recipe, kept on this machine: every thread of every tab reads and writes here, and tells the others.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { type Recipe, recipeKey } from '../core/recipe'
import { type FramePlace, type Told, unpackTold } from '../media/derived-frame'

interface Schema extends DBSchema {
  frames: { key: [recipe: string, index: number]; value: Uint8Array }
  recipes: { key: string; value: KeptRecipe }
}

/** What is known of a recipe of which frames are kept. */
interface KeptRecipe {
  key: string
  /** Digests of the files that it is made of. */
  of: readonly string[]
  bytes: number
  usedAt: number
}

/** What threads tell each other: a frame that is there now, or that no more can be kept. */
export type FrameNews = { key: string; index: number; told: Told } | { problem: string }

const CHANNEL = 'frames made by recipe'
/** Bytes that are kept at most; beyond, the recipes used longest ago go. */
const MOST = 2 ** 30
/** After how many frames that is looked at. */
const LOOKED = 32

let opened: Promise<IDBPDatabase<Schema>> | null = null

function database(): Promise<IDBPDatabase<Schema>> {
  if (!opened) {
    const opening = openDB<Schema>('jolly-ghost-frames', 1, {
      upgrade(db) {
        db.createObjectStore('frames')
        db.createObjectStore('recipes', { keyPath: 'key' })
      },
      terminated() {
        opened = null
      },
    })
    opened = opening
    opening.catch(() => {
      opened = null
    })
  }
  return opened
}

const framesOf = (key: string): IDBKeyRange => IDBKeyRange.bound([key, 0], [key, Number.POSITIVE_INFINITY])

async function forget(keys: readonly string[]): Promise<void> {
  const change = (await database()).transaction(['frames', 'recipes'], 'readwrite')
  for (const key of keys) {
    await change.objectStore('frames').delete(framesOf(key))
    await change.objectStore('recipes').delete(key)
  }
  await change.done
}

/** Makes room: as much as is beyond the limit, or with `hard` all but what is named. */
async function trim(but: string, hard: boolean): Promise<void> {
  const all = (await (await database()).getAll('recipes')).sort((a, b) => b.usedAt - a.usedAt)
  let bytes = 0
  const gone = all.filter(({ key, bytes: own }) => {
    bytes += own
    return key !== but && (hard || bytes > MOST)
  })
  if (gone.length > 0) await forget(gone.map(({ key }) => key))
}

async function write(recipe: Recipe, index: number, packed: Uint8Array): Promise<void> {
  const key = recipeKey(recipe)
  const change = (await database()).transaction(['frames', 'recipes'], 'readwrite')
  const recipes = change.objectStore('recipes')
  const known = await recipes.get(key)
  const bytes = (known?.bytes ?? 0) + packed.length
  await Promise.all([
    change.objectStore('frames').put(packed, [key, index]),
    recipes.put({ key, of: recipe.of, bytes, usedAt: Date.now() }),
    change.done,
  ])
}

/** The place of this thread. */
export function browserPlace(): FramePlace {
  const channel = new BroadcastChannel(CHANNEL)
  const tell = (news: FrameNews) => channel.postMessage(news)
  let isFull = false
  return {
    async get(recipe, index) {
      try {
        return (await (await database()).get('frames', [recipeKey(recipe), index])) ?? null
      } catch (error) {
        console.warn('A frame that was kept cannot be read; it is made again:', error)
        return null
      }
    },
    async put(recipe, index, packed) {
      const key = recipeKey(recipe)
      if (isFull) return tell({ key, index, told: unpackTold(packed) })
      try {
        await write(recipe, index, packed).catch(async () => {
          await trim(key, true)
          await write(recipe, index, packed)
        })
        if (index % LOOKED === 0) await trim(key, false)
      } catch (error) {
        isFull = true
        const why = error instanceof Error ? error.message : String(error)
        tell({ problem: `What is cut out cannot be kept on this machine (${why}): it is made again at every visit.` })
      }
      tell({ key, index, told: unpackTold(packed) })
    },
  }
}

/** The frames that are kept of a recipe, each with what was measured of it. */
export async function framesKept(recipe: Recipe): Promise<Map<number, Told>> {
  const key = recipeKey(recipe)
  const found = new Map<number, Told>()
  const change = (await database()).transaction(['frames', 'recipes'], 'readwrite')
  for await (const {
    key: [, index],
    value,
  } of change.objectStore('frames').iterate(framesOf(key))) {
    found.set(index, unpackTold(value))
  }
  const known = await change.objectStore('recipes').get(key)
  if (known) await change.objectStore('recipes').put({ ...known, usedAt: Date.now() })
  await change.done
  return found
}

/** Forgets what was made of files that are gone. */
export async function forgetFramesOf(gone: ReadonlySet<string>): Promise<void> {
  const all = await (await database()).getAll('recipes')
  await forget(all.filter(({ of }) => of.some(digest => gone.has(digest))).map(({ key }) => key))
}

/** Calls back at whatever other threads tell; returns how to stop. */
export function onFrameNews(listener: (news: FrameNews) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data }) => listener(data as FrameNews)
  return () => channel.close()
}
