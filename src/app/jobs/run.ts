// The one way in which long work is done: queued, told to the store as it goes, stopped at any moment.
import PQueue from 'p-queue'
import { newId } from '../../core/shot'
import { Stopped } from '../stopped'
import { type Job, jobChanged, jobForgotten, jobStarted, store } from '../store'
import { JOB_KINDS, type JobKind } from './kinds'

/** What somebody wants done. */
export interface Order extends Pick<Job, 'kind' | 'project' | 'name'> {
  id?: string
  detail?: string
  /** How many steps it has. Default: 1, for work that tells its share. */
  of?: number
}

/** What work is given: when to stop, and whom to tell how far it is. */
export interface Working {
  id: string
  /** Aborted with Stopped. */
  signal: AbortSignal
  /** Steps that are done, and what is done now where that changes. */
  tell(done: number, detail?: string): void
}

/** Milliseconds between two tellings. */
const BETWEEN = 100

const queues = new Map<JobKind, PQueue>()

function queueOf(kind: JobKind): PQueue {
  const queue = queues.get(kind) ?? new PQueue({ concurrency: JOB_KINDS[kind].atOnce })
  queues.set(kind, queue)
  return queue
}

interface Running {
  kind: JobKind
  project: string | null
  controller: AbortController
}

const running = new Map<string, Running>()

const ask = (event: BeforeUnloadEvent): void => event.preventDefault()

/** Asks before the tab is closed as long as that would lose something. */
function watchLeaving(): void {
  if (typeof addEventListener === 'undefined') return
  removeEventListener('beforeunload', ask)
  if ([...running.values()].some(({ kind }) => JOB_KINDS[kind].asks)) addEventListener('beforeunload', ask)
}

function teller(id: string): Working['tell'] {
  let toldAt = Number.NEGATIVE_INFINITY
  let said: string | undefined
  return (done, detail) => {
    const job = store.getState().jobs.find(j => j.id === id)
    const now = performance.now()
    if (!job || (now - toldAt < BETWEEN && done < job.of && detail === said)) return
    toldAt = now
    said = detail
    store.dispatch(jobChanged(detail === undefined ? { id, done } : { id, done, detail }))
  }
}

/**
 * Does long work when its turn comes. Returns what it gives; throws Stopped when it is stopped, while it waits or runs,
 * and whatever the work throws.
 */
export async function runJob<T>(order: Order, work: (working: Working) => Promise<T>): Promise<T> {
  const { kind, project, name, detail = '', of = 1, id = newId() } = order
  const controller = new AbortController()
  const { signal } = controller
  running.set(id, { kind, project, controller })
  watchLeaving()
  store.dispatch(jobStarted({ id, kind, project, name, detail, done: 0, of }))
  const end = (state: 'done' | 'stopped' | 'failed', problem: string | null = null) =>
    store.dispatch(JOB_KINDS[kind].stays ? jobChanged({ id, state, problem }) : jobForgotten(id))
  const begin = () => {
    store.dispatch(jobChanged({ id, state: 'running', startedAt: Date.now() }))
    return work({ id, signal, tell: teller(id) })
  }
  try {
    const made = (await queueOf(kind).add(begin, { signal })) as T
    end('done')
    return made
  } catch (error) {
    if (signal.aborted) {
      end('stopped')
      throw new Stopped('Stopped.')
    }
    end('failed', error instanceof Error ? error.message : String(error))
    throw error
  } finally {
    running.delete(id)
    watchLeaving()
  }
}

/** Stops a job, whether it runs or waits. */
export function stopJob(id: string): void {
  running.get(id)?.controller.abort(new Stopped('Stopped.'))
}

/** Stops every job of some kinds for a shot. */
export function stopJobsOf(project: string, kinds: readonly JobKind[]): void {
  for (const [id, job] of running) if (job.project === project && kinds.includes(job.kind)) stopJob(id)
}
