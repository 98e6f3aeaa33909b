// Folders of the browser's private files that are only needed for a while.
import { newId } from '../../core/shot'
import { alone } from './locks'

const PREFIX = 'scratch-'

/** Runs work with a folder of its own, which is gone when it is over. */
export async function withScratch<T>(use: (folder: string) => Promise<T>): Promise<T> {
  const folder = `${PREFIX}${newId()}`
  const root = await navigator.storage.getDirectory()
  const work = async () => {
    try {
      return { result: await use(folder) }
    } finally {
      await root.removeEntry(folder, { recursive: true }).catch(() => {})
    }
  }
  const done = await alone(folder, work)
  if (!done) throw new Error('no folder is to be had')
  return done.result
}

/** Every file of a folder, by its name. */
export async function filesIn(folder: string): Promise<Map<string, File>> {
  const files = new Map<string, File>()
  const root = await navigator.storage.getDirectory()
  const handle = await root.getDirectoryHandle(folder, { create: true })
  for await (const [name, entry] of handle.entries()) {
    if (entry.kind === 'file') files.set(name, await (entry as FileSystemFileHandle).getFile())
  }
  return files
}

/** Removes what pages that were closed in the middle of something left behind. */
export async function sweepScratch(): Promise<void> {
  const root = await navigator.storage.getDirectory()
  for await (const name of root.keys()) {
    if (name.startsWith(PREFIX)) await alone(name, () => root.removeEntry(name, { recursive: true }))
  }
}
