import { stopJob } from '../../app/jobs/run'
import { useStore } from '../../app/store'

/** What somebody asked for about the pictures and waits for: how far it is, and a way to stop it. */
export function UnderWay() {
  const job = useStore(s => s.jobs.find(j => j.kind === 'compare'))
  if (!job) return null
  return (
    <button
      type="button"
      className="absolute top-9 right-2 rounded-full bg-panel/90 px-3 py-1 text-xs whitespace-nowrap text-ink tabular-nums"
      onClick={() => stopJob(job.id)}
    >
      {job.detail || 'Comparing'}: {job.done} of {job.of} · Stop
    </button>
  )
}
