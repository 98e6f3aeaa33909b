// A bound on reading: damaged files can send a parser round in circles, from which no timer of its own thread wakes it.
import { Worker } from 'node:worker_threads'

/** Runs in a thread of its own: unless told in time that the work is done, it says so and ends the process. */
const GUARD = `
const { workerData } = require('node:worker_threads')
const { rmSync, writeSync } = require('node:fs')
const { done, seconds, sentence, scratch } = workerData
if (Atomics.wait(new Int32Array(done), 0, 0, seconds * 1000) === 'timed-out') {
  writeSync(2, 'ghost: ' + sentence + '\\n')
  for (const folder of scratch) rmSync(folder, { recursive: true, force: true })
  process.kill(process.pid, 'SIGKILL')
}`

/** Bytes a second that even a slow disk gives. */
const PACE = 20 * 2 ** 20

/** Seconds that reading so many bytes may take at most. */
const patienceFor = (bytes: number): number => Number(process.env.GHOST_PATIENCE ?? 10) + bytes / PACE

/** Folders that go with the process, however it ends. */
const scratch = new Set<string>()
export const scratchFolders = (): ReadonlySet<string> => scratch
export const addScratch = (folder: string): void => void scratch.add(folder)
export const dropScratch = (folder: string): void => void scratch.delete(folder)

/** Does work on a file of some bytes; where it takes far too long the process ends with a sentence about it. */
export async function patiently<T>(name: string, bytes: number, work: () => Promise<T>): Promise<T> {
  const done = new SharedArrayBuffer(4)
  const sentence = `“${name}” cannot be read to its end: it is damaged. Copy it again from where it was made.`
  const workerData = { done, seconds: patienceFor(bytes), sentence, scratch: [...scratch] }
  const guard = new Worker(GUARD, { eval: true, workerData })
  guard.unref()
  try {
    return await work()
  } finally {
    const flag = new Int32Array(done)
    Atomics.store(flag, 0, 1)
    Atomics.notify(flag, 0)
  }
}
