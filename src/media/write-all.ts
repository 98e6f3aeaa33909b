// A disk that fills up may take part of what is written, and say so only by how much it took.

interface Written {
  /** As a file handle of Node writes: some of the bytes, at least one, or it throws. */
  write(data: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesWritten: number }>
}

/** Writes all of some bytes at a position of a file. Throws what the system says where there is no room for them. */
export async function writeAll(file: Written, data: Uint8Array, position: number): Promise<void> {
  for (let at = 0; at < data.length; ) {
    const { bytesWritten } = await file.write(data, at, data.length - at, position + at)
    if (bytesWritten === 0) throw new Error('nothing more is taken')
    at += bytesWritten
  }
}
