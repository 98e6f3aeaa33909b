// What takes say about camera, light and people: looked through when somebody asks, kept, and told as it comes.
import { type Finding, findings, lockOffRecipe, type Seen } from '../../core/plate'
import { plateIn, type Take } from '../../core/shot'
import { proxy } from '../../workers/clients'
import { runJob, stopJobsOf } from '../jobs/run'
import { orAborted } from '../jobs/thread'
import { Stopped } from '../stopped'
import { getMade, keepMade } from '../storage/made'
import { projectOf, rootShot, store } from '../store'
import type { PlateThreads } from './plate-threads'
import { untilStill } from './until-still'

/** The set as it is empty: a stretch of a take or a still. */
export type Against = { plate: string; from: number; to: number }

export interface TakeReport {
  take: string
  /** null: what shows most of the time in the take itself. */
  against: Against | null
  state: 'none' | 'waiting' | 'looking' | 'ready' | 'failed'
  /** Frames so far, and how many there are; 0 before the first of them, as long as the set behind them is made. */
  seen: readonly Seen[]
  of: number
  /** Once it is ready. */
  findings: readonly Finding[]
  problem: string | null
}

export interface Reports {
  of(take: string): TakeReport | null
  /** Brings back what is known of the takes of the shot. */
  recall(): Promise<void>
  /** Looks through every take that nothing is known of. */
  lookAll(): void
  /** Looks through a take by another plate; null: by itself. */
  lookAgainst(take: string, against: Against | null): void
  subscribe(listener: () => void): () => void
  end(): void
}

/** Milliseconds between two tellings of what has been seen: curves are drawn anew for each, which keeps a page busy. */
const BETWEEN = 400

/** Whether there is something to look through. */
export const isLookedAt = ({ picture }: Take): boolean => picture?.kind === 'film'

/** The plate that a take is measured by unless somebody says otherwise. */
function usualPlate(take: string): Against | null {
  const [project, shot] = [projectOf(store.getState()), rootShot(store.getState())]
  const plate = project && shot && plateIn(shot, project.takes, undefined)
  return plate && plate.plate !== take ? plate : null
}

const blank = (take: string, against: Against | null): TakeReport => ({
  take,
  against,
  state: 'none',
  seen: [],
  of: 0,
  findings: [],
  problem: null,
})

export function startReports(project: string, threads: PlateThreads): Reports {
  const reports = new Map<string, TakeReport>()
  const listeners = new Set<() => void>()
  const put = (report: TakeReport) => {
    reports.set(report.take, report)
    for (const listener of listeners) listener()
  }
  const takes = () => projectOf(store.getState())?.takes.filter(isLookedAt) ?? []
  const ready = (report: TakeReport, seen: readonly Seen[]): TakeReport => ({
    ...report,
    state: 'ready',
    seen,
    of: seen.length,
    findings: findings(seen, 1),
  })

  async function recalled(report: TakeReport): Promise<TakeReport> {
    const kept = await getMade<Seen[]>(lockOffRecipe(report.take, report.against))
    return kept ? ready(report, kept) : report
  }

  async function look(begun: TakeReport): Promise<void> {
    const { take, against } = begun
    const name = takes().find(t => t.digest === take)?.name ?? ''
    const isWanted = () => reports.get(take)?.against === against
    const seen: Seen[] = []
    let toldAt = Number.NEGATIVE_INFINITY
    await runJob({ kind: 'look', project, name }, ({ signal, tell }) =>
      orAborted(signal, async () => {
        if (isWanted()) put({ ...begun, state: 'looking' })
        const onSeen = async (more: Seen[], of: number) => {
          seen.push(...more)
          tell(seen.length / of)
          if (isWanted() && performance.now() - toldAt >= BETWEEN) {
            put({ ...begun, state: 'looking', seen: [...seen], of })
            toldAt = performance.now()
          }
          await untilStill()
          return !signal.aborted && isWanted()
        }
        await threads.use(call => call.look(take, against, proxy(onSeen)))
      }),
    )
    if (!isWanted()) return
    await keepMade(lockOffRecipe(take, against), seen)
    put(ready(begun, seen))
  }

  const begin = (report: TakeReport) =>
    void recalled(report)
      .then(async known => (known.state === 'ready' ? put(known) : look(report)))
      .catch(error => {
        const problem = error instanceof Error ? error.message : String(error)
        put({ ...report, state: error instanceof Stopped ? 'none' : 'failed', problem })
      })

  return {
    of: take => reports.get(take) ?? null,
    async recall() {
      for (const { digest } of takes()) {
        if (!reports.has(digest)) put(await recalled(blank(digest, usualPlate(digest))))
      }
    },
    lookAll() {
      for (const { digest } of takes()) {
        const known = reports.get(digest)
        if (known && known.state !== 'none') continue
        const report = { ...blank(digest, usualPlate(digest)), state: 'waiting' as const }
        put(report)
        begin(report)
      }
    },
    lookAgainst(take, against) {
      const report = { ...blank(take, against), state: 'waiting' as const }
      put(report)
      begin(report)
    },
    subscribe(listener) {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    end() {
      stopJobsOf(project, ['look'])
      listeners.clear()
    },
  }
}
