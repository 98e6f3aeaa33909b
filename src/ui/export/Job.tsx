import { Progress } from 'radix-ui'
import { cancelExport, forgetExport, saveExport } from '../../app/engine/exports'
import { type ExportJob, jobForgotten, useSend } from '../../app/store'
import { TextButton } from '../common/Button'
import { sayProblem } from '../common/problem'

const problemOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

/** Seconds left, as people say them. */
function timeLeft({ done, of, startedAt }: ExportJob): string {
  if (done === 0) return 'starting…'
  const left = Math.ceil(((Date.now() - startedAt) / 1000 / done) * (of - done))
  return left >= 60 ? `${Math.floor(left / 60)} min ${left % 60} s left` : `${left} s left`
}

function state(job: ExportJob): string {
  switch (job.state) {
    case 'running':
      return `${job.done} of ${job.of} frames, ${timeLeft(job)}`
    case 'done':
      return `${(job.bytes / 1e6).toFixed(1)} MB, finished`
    case 'cancelled':
      return 'stopped'
    case 'failed':
      return `◆ ${job.problem}`
  }
}

/** One file: on its way with a way to stop it, or there to be saved. */
export function Job({ job }: { job: ExportJob }) {
  const send = useSend()
  const forget = async () => {
    send(jobForgotten(job.id))
    if (job.state === 'done') await forgetExport(job.id, job.file)
  }
  return (
    <li className="flex items-center gap-4 rounded-xl bg-panel px-4 py-3" data-job={job.state}>
      <div className="min-w-0 flex-1">
        <span className="block truncate">
          <b>{job.file}</b> <span className="text-quiet">{job.detail}</span>
        </span>
        <span className={job.state === 'failed' ? 'text-warn' : 'text-quiet'} role="status">
          {state(job)}
        </span>
        {job.state === 'running' && (
          <Progress.Root
            value={job.done}
            max={job.of}
            aria-label={`Making ${job.file}`}
            className="mt-1.5 h-1 overflow-hidden rounded-full bg-ground"
          >
            <Progress.Indicator className="h-full bg-lime" style={{ width: `${(100 * job.done) / job.of}%` }} />
          </Progress.Root>
        )}
      </div>
      {job.state === 'running' && <TextButton onClick={() => cancelExport(job.id)}>Stop</TextButton>}
      {job.state === 'done' && (
        <TextButton
          main
          onClick={() =>
            saveExport(job.id, job.file).catch(error => sayProblem(`The file cannot be saved: ${problemOf(error)}`))
          }
        >
          Save
        </TextButton>
      )}
      {job.state !== 'running' && (
        <TextButton
          onClick={() => forget().catch(error => sayProblem(`The file cannot be removed: ${problemOf(error)}`))}
        >
          Forget
        </TextButton>
      )}
    </li>
  )
}
