import { Progress } from 'radix-ui'
import { forgetExport, saveExport } from '../../app/engine/exports'
import { stopJob } from '../../app/jobs/run'
import type { Job } from '../../app/store'
import { TextButton } from '../common/Button'
import { timeLeft } from '../common/job-text'
import { sayProblem } from '../common/problem'

const problemOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

function state(job: Job): string {
  switch (job.state) {
    case 'waiting':
      return 'waits until the one before is made'
    case 'running':
      return `${job.done} of ${job.of} frames, ${timeLeft(job) || 'starting…'}`
    case 'done':
      return `${(job.bytes / 1e6).toFixed(1)} MB, finished`
    case 'stopped':
      return 'stopped'
    case 'failed':
      return `◆ ${job.problem}`
  }
}

/** One file: on its way with a way to stop it, or there to be saved. */
export function ExportJob({ job }: { job: Job }) {
  const isOpen = job.state === 'running' || job.state === 'waiting'
  return (
    <li className="flex items-center gap-4 rounded-xl bg-panel px-4 py-3" data-job={job.state}>
      <div className="min-w-0 flex-1">
        <span className="block truncate">
          <b>{job.name}</b> <span className="text-quiet">{job.detail}</span>
        </span>
        <span className={job.state === 'failed' ? 'text-warn' : 'text-quiet'} role="status">
          {state(job)}
        </span>
        {job.state === 'running' && (
          <Progress.Root
            value={job.done}
            max={job.of}
            aria-label={`Making ${job.name}`}
            className="mt-1.5 h-1 overflow-hidden rounded-full bg-ground"
          >
            <Progress.Indicator className="h-full bg-lime" style={{ width: `${(100 * job.done) / job.of}%` }} />
          </Progress.Root>
        )}
      </div>
      {isOpen && <TextButton onClick={() => stopJob(job.id)}>Stop</TextButton>}
      {job.state === 'done' && (
        <TextButton
          main
          onClick={() =>
            saveExport(job.id, job.name).catch(error => sayProblem(`The file cannot be saved: ${problemOf(error)}`))
          }
        >
          Save
        </TextButton>
      )}
      {!isOpen && (
        <TextButton
          onClick={() =>
            forgetExport(job.id, job.name).catch(error => sayProblem(`The file cannot be removed: ${problemOf(error)}`))
          }
        >
          Forget
        </TextButton>
      )}
    </li>
  )
}
