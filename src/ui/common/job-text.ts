import type { Job } from '../../app/store'

/** Seconds of a job's work after which there is enough to tell how long the rest takes. */
const ENOUGH = 2

/** How long the rest takes if it goes on like this, as people say it; nothing as long as that is not known. */
export function timeLeft({ done, of, startedAt, state }: Job): string {
  const passed = (Date.now() - startedAt) / 1000
  if (state !== 'running' || done === 0 || passed < ENOUGH) return ''
  const left = Math.ceil((passed / done) * (of - done))
  if (left >= 3600) return `${Math.floor(left / 3600)} h ${Math.floor((left % 3600) / 60)} min left`
  return left >= 60 ? `${Math.floor(left / 60)} min ${left % 60} s left` : `${left} s left`
}

/** What is done, how far it is, and how long the rest takes. */
export function jobText(job: Job): string {
  const { detail, name, done, of, state } = job
  if (state === 'waiting') return `${name} waits for its turn…`
  const left = timeLeft(job)
  return `${detail || name}: ${Math.round((100 * done) / of)}%${left && `, ${left}`}`
}
