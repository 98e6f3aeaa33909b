// Files that are there whole or not at all: each lies beside its name until it is whole, and goes with the process if that ends before.
import { open, rename, rm, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { StreamTarget, type StreamTargetChunk } from 'mediabunny'
import { writeAll } from '../media/write-all'
import { addScratch, dropScratch } from './patience'

/** Lets something be written under another name, and gives it its own once that is done. Throws what `write` throws, and leaves nothing then. */
export async function wholeFile(path: string, write: (part: string) => Promise<void>): Promise<void> {
  const part = `${path}.part${extname(path)}`
  addScratch(part)
  try {
    await write(part)
    await rename(part, path)
  } finally {
    await rm(part, { force: true })
    dropScratch(part)
  }
}

export const writeWhole = (path: string, bytes: Uint8Array): Promise<void> =>
  wholeFile(path, part => writeFile(part, bytes))

/** A film's file. Unlike the library's own it is written to the last byte or throws. */
export async function withFilmTarget(path: string, use: (target: StreamTarget) => Promise<void>): Promise<void> {
  const file = await open(path, 'w')
  try {
    const stream = new WritableStream<StreamTargetChunk>({
      write: ({ data, position }) => writeAll(file, data, position),
    })
    await use(new StreamTarget(stream, { chunked: true }))
  } finally {
    await file.close()
  }
}
