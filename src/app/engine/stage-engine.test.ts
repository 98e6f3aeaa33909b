// Playing that cannot begin says so and is over, whatever it was that failed.
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { testProject } from '../../testing/documents'
import { soon } from '../../testing/soon'
import { opened, store, viewReset } from '../store'
import { plateThreads } from './plate-threads'
import { startStage } from './stage-engine'

/** What fails in the worker that paints, and all that it was asked. */
let broken = ''
let asked: string[] = []

/** A worker that answers every call with nothing, or fails it. */
class Answering {
  heard = new Set<(event: { data: unknown }) => void>()
  addEventListener(_: string, listener: (event: { data: unknown }) => void) {
    this.heard.add(listener)
  }
  removeEventListener(_: string, listener: (event: { data: unknown }) => void) {
    this.heard.delete(listener)
  }
  terminate() {}
  postMessage({ id, path = [] }: { id: string; path?: string[] }) {
    asked.push(path.join('.'))
    const failure = { isError: true, value: { message: `no ${path[0]}`, name: 'Error', stack: '' } }
    const answer =
      path[0] === broken
        ? { id, type: 'HANDLER', name: 'throw', value: failure }
        : { id, type: 'RAW', value: path[0] === 'mix' ? [new Float32Array(9), new Float32Array(9)] : undefined }
    queueMicrotask(() => {
      for (const listener of [...this.heard]) listener({ data: answer })
    })
  }
}

class Silent {
  state = 'suspended'
  async resume() {}
  async close() {}
}

beforeEach(() => {
  asked = []
  vi.stubGlobal('Worker', Answering)
  vi.stubGlobal('navigator', {})
  store.dispatch(viewReset({}))
  store.dispatch(opened(testProject()))
})
afterEach(() => {
  vi.unstubAllGlobals()
})

it.each(['prepare', 'play', 'no sound at all'])('%s fails: playing is over, with a sentence', async what => {
  broken = what
  if (what !== 'no sound at all') vi.stubGlobal('AudioContext', Silent)
  const said: string[] = []
  const surface = new MessageChannel().port1
  const canvas = { dataset: {}, transferControlToOffscreen: () => surface } as unknown as HTMLCanvasElement
  const stage = await startStage(canvas, plateThreads(), sentence => said.push(sentence))
  await stage.play()
  await soon(() => expect(store.getState().view.playing).toBe(false))
  expect(said).toEqual([expect.stringMatching(/^It cannot be played: /)])
  await stage.end()
})

it('asks for no picture before the files are there, whatever else goes on', async () => {
  broken = ''
  const surface = new MessageChannel().port1
  const canvas = { dataset: {}, transferControlToOffscreen: () => surface } as unknown as HTMLCanvasElement
  const stage = await startStage(canvas, plateThreads(), () => {})
  store.dispatch(viewReset({ frame: 3 }))
  expect(asked).not.toContain('show')
  await stage.addFiles([])
  expect(asked).toContain('show')
  await stage.end()
})
