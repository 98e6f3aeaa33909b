// Files that the browser keeps for this app alone.

const root = (): Promise<FileSystemDirectoryHandle> => navigator.storage.getDirectory()

export async function privateFile(name: string): Promise<File> {
  return (await (await root()).getFileHandle(name)).getFile()
}

/** Milliseconds between two tries to remove what a thread that was just ended still holds. */
const AGAIN = 50
const TRIES = 40

/** Removes a file, whether it is there or not. */
export async function removePrivate(name: string): Promise<void> {
  const folder = await root()
  for (let left = TRIES; ; left--) {
    try {
      await folder.removeEntry(name)
      return
    } catch (error) {
      if (error instanceof DOMException && error.name === 'NotFoundError') return
      if (left === 0) throw error
      await new Promise(resolve => setTimeout(resolve, AGAIN))
    }
  }
}

/** Every file with the time of its last change, in milliseconds since 1970; folders are left out. */
export async function privateFiles(): Promise<{ name: string; changedAt: number }[]> {
  const files: { name: string; changedAt: number }[] = []
  for await (const [name, handle] of (await root()).entries()) {
    if (handle.kind !== 'file') continue
    const { lastModified } = await (handle as FileSystemFileHandle).getFile()
    files.push({ name, changedAt: lastModified })
  }
  return files
}
