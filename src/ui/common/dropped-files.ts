// What was dropped, folders opened.
import { sayProblem } from './problem'

const MOST = 60_000

async function inside(entry: FileSystemEntry, files: File[]): Promise<void> {
  if (files.length >= MOST) return
  if (entry.isFile) {
    files.push(await new Promise<File>((yes, no) => (entry as FileSystemFileEntry).file(yes, no)))
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  for (;;) {
    // A folder is told in parts; an empty one is the last.
    const part = await new Promise<FileSystemEntry[]>((yes, no) => reader.readEntries(yes, no))
    if (part.length === 0) return
    for (const one of part) await inside(one, files)
  }
}

/** The files of a drop, with those in folders. Has to be called while the drop is handled. */
export async function droppedFiles({ items, files: flat }: DataTransfer): Promise<File[]> {
  const entries = [...items].map(item => item.webkitGetAsEntry?.() ?? null)
  const plain = [...flat]
  if (!entries.some(e => e?.isDirectory)) return plain
  const files: File[] = []
  try {
    for (const entry of entries) if (entry) await inside(entry, files)
  } catch (error) {
    sayProblem(`The folder cannot be read (${error instanceof Error ? error.message : String(error)}).`)
  }
  return files
}
