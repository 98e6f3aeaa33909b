// A file's name is its content: SHA-256, read in pieces so that no file is ever whole in memory.
import { createSHA256 } from 'hash-wasm'

/** Hexadecimal SHA-256. `onProgress` is told the share read, 0..1. */
export async function digestOf(blob: Blob, onProgress?: (share: number) => void): Promise<string> {
  const hash = await createSHA256()
  const reader = blob.stream().getReader()
  let read = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    hash.update(value)
    read += value.byteLength
    onProgress?.(read / blob.size)
  }
  return hash.digest('hex')
}
