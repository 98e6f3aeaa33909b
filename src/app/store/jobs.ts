// Work that takes a while: waiting, running, and what of it stays listed when it has ended.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { JobKind } from '../jobs/kinds'

export interface Job {
  id: string
  kind: JobKind
  /** The shot that it belongs to; null where there is none yet. */
  project: string | null
  /** What it is about: a file, a take, a shot. */
  name: string
  /** What is done just now, or how it is made. */
  detail: string
  /** Steps done, of how many. */
  done: number
  of: number
  /** Milliseconds since 1970. */
  startedAt: number
  state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed'
  problem: string | null
  /** Bytes of what was made, where that is a file. */
  bytes: number
}

type Started = Omit<Job, 'startedAt' | 'state' | 'problem' | 'bytes'>

const slice = createSlice({
  name: 'jobs',
  initialState: [] as Job[],
  reducers: {
    /** A job begins to wait; one of the same identity that has ended makes room for it. */
    jobStarted(jobs, action: PayloadAction<Started>) {
      const rest = jobs.filter(j => j.id !== action.payload.id)
      return [{ ...action.payload, startedAt: Date.now(), state: 'waiting', problem: null, bytes: 0 }, ...rest]
    },
    /** A job of an earlier visit. */
    jobRecalled(jobs, action: PayloadAction<Job>) {
      if (!jobs.some(j => j.id === action.payload.id)) jobs.push(action.payload)
    },
    jobChanged(jobs, action: PayloadAction<{ id: string } & Partial<Job>>) {
      const job = jobs.find(j => j.id === action.payload.id)
      if (job) Object.assign(job, action.payload)
    },
    jobForgotten: (jobs, action: PayloadAction<string>) => jobs.filter(j => j.id !== action.payload),
  },
})

const isOpen = ({ state }: Job): boolean => state === 'waiting' || state === 'running'

/** The job of some kinds under way for a shot, the one that runs before those that wait. */
export const jobUnderWay = (jobs: readonly Job[], kinds: readonly JobKind[], project: string | null): Job | null => {
  const open = jobs.filter(j => isOpen(j) && j.project === project && kinds.includes(j.kind))
  return open.find(j => j.state === 'running') ?? open.at(-1) ?? null
}

export const { jobStarted, jobRecalled, jobChanged, jobForgotten } = slice.actions
export const jobsReducer = slice.reducer
