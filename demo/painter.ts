// A thread that paints frames on request.
import { parentPort } from 'node:worker_threads'
import type { ClipName } from './acts'
import { footageFrame } from './footage'

parentPort?.on('message', ({ name, frame }: { name: ClipName; frame: number }) => {
  parentPort?.postMessage({ frame, pixels: new Uint8Array(footageFrame(name, frame).pixels.buffer) })
})
