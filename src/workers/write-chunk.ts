// The browser's private files, written by workers.

/** Writes all of a chunk, at a position or after the one before. Throws QuotaExceededError where there is no room for all of it: the handle itself only says how much it took. */
export function writeChunk(out: Pick<FileSystemSyncAccessHandle, 'write'>, chunk: Uint8Array, at?: number): void {
  const data = chunk as Uint8Array<ArrayBuffer>
  const written = at === undefined ? out.write(data) : out.write(data, { at })
  if (written < data.length) throw new DOMException('The disk is full.', 'QuotaExceededError')
}
