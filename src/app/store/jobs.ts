// Exports: running, finished and failed ones.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

export interface ExportJob {
  id: string
  project: string
  /** The file's name as it will be saved. */
  file: string
  detail: string
  done: number
  of: number
  startedAt: number
  state: 'running' | 'done' | 'cancelled' | 'failed'
  problem: string | null
  bytes: number
}

const slice = createSlice({
  name: 'jobs',
  initialState: [] as ExportJob[],
  reducers: {
    jobStarted(jobs, action: PayloadAction<ExportJob>) {
      jobs.unshift(action.payload)
    },
    jobChanged(jobs, action: PayloadAction<{ id: string } & Partial<ExportJob>>) {
      const job = jobs.find(j => j.id === action.payload.id)
      if (job) Object.assign(job, action.payload)
    },
    jobForgotten: (jobs, action: PayloadAction<string>) => jobs.filter(j => j.id !== action.payload),
  },
})

export const { jobStarted, jobChanged, jobForgotten } = slice.actions
export const jobsReducer = slice.reducer
