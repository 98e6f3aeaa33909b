// Long work: one after another, stopped whether it waits or runs, told to the store, asking before the tab is closed.
import { beforeEach, expect, it, vi } from 'vitest'
import { soon } from '../../testing/soon'
import { Stopped } from '../stopped'
import { jobForgotten, jobUnderWay, store } from '../store'
import { runJob, stopJob, stopJobsOf, type Working } from './run'

const listeners = new Set<string>()
beforeEach(() => {
  vi.stubGlobal('addEventListener', (name: string) => listeners.add(name))
  vi.stubGlobal('removeEventListener', (name: string) => listeners.delete(name))
  for (const { id } of store.getState().jobs) store.dispatch(jobForgotten(id))
})

const jobs = () => store.getState().jobs
const order = (name: string, kind: 'export' | 'pack' | 'derive' = 'export') => ({ kind, project: 'p', name, id: name })

/** Work that is done when it is told to be. */
function held<T>() {
  let finish: (value: T) => void = () => {}
  const done = new Promise<T>(resolve => {
    finish = resolve
  })
  return { finish, work: vi.fn((_: Working) => done) }
}

it('runs one of a kind at a time, and others beside it', async () => {
  const [first, second, other] = [held<number>(), held<number>(), held<number>()]
  const a = runJob(order('a'), first.work)
  const b = runJob(order('b'), second.work)
  const c = runJob(order('c', 'pack'), other.work)
  await soon(() => expect(other.work).toHaveBeenCalled())
  expect(second.work).not.toHaveBeenCalled()
  expect(jobs().map(j => j.state)).toEqual(['running', 'waiting', 'running'])
  expect(jobUnderWay(jobs(), ['export'], 'p')?.id).toBe('a')
  expect(listeners).toContain('beforeunload')
  first.finish(1)
  expect(await a).toBe(1)
  await soon(() => expect(second.work).toHaveBeenCalled())
  second.finish(2)
  other.finish(3)
  expect([await b, await c]).toEqual([2, 3])
  // An export stays listed, a packed file does not.
  expect(jobs().map(j => [j.id, j.state])).toEqual([
    ['b', 'done'],
    ['a', 'done'],
  ])
  expect(listeners).not.toContain('beforeunload')
})

it('is stopped while it runs and while it waits, and the next one has its turn', async () => {
  const [first, second, third] = [held<void>(), held<void>(), held<void>()]
  const a = runJob(order('a'), first.work)
  const b = runJob(order('b'), second.work)
  const c = runJob(order('c'), third.work)
  await soon(() => expect(first.work).toHaveBeenCalled())
  stopJob('b')
  await expect(b).rejects.toBeInstanceOf(Stopped)
  stopJob('a')
  await expect(a).rejects.toBeInstanceOf(Stopped)
  expect(first.work.mock.calls[0]![0].signal.aborted).toBe(true)
  await soon(() => expect(third.work).toHaveBeenCalled())
  expect(second.work).not.toHaveBeenCalled()
  third.finish()
  await c
  expect(jobs().map(j => j.state)).toEqual(['done', 'stopped', 'stopped'])
})

it('tells how far it is, the end for certain, and what went wrong', async () => {
  const work = async ({ tell }: Working) => {
    for (let i = 1; i <= 500; i++) tell(i / 1000, 'half of it')
    expect(jobs()[0]).toMatchObject({ done: 0.001, detail: 'half of it' })
    tell(1)
    expect(jobs()[0]).toMatchObject({ done: 1, detail: 'half of it' })
    throw new Error('The tape is full.')
  }
  await expect(runJob(order('a'), work)).rejects.toThrow('The tape is full.')
  expect(jobs()[0]).toMatchObject({ state: 'failed', problem: 'The tape is full.' })
})

it('goes with the shot it is for', async () => {
  const [mine, theirs] = [held<void>(), held<void>()]
  const a = runJob(order('a', 'derive'), mine.work)
  const b = runJob({ ...order('b', 'derive'), project: 'q' }, theirs.work)
  stopJobsOf('p', ['derive'])
  await expect(a).rejects.toBeInstanceOf(Stopped)
  await soon(() => expect(theirs.work).toHaveBeenCalled())
  theirs.finish()
  await b
})
