// The worst of what the takes say, in the bar: a way to the report.
import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import type { Reports, TakeReport } from '../../app/engine/reports'
import { projectOf, useStore } from '../../app/store'
import { Tip } from '../common/Tip'
import { useReports } from './engine-context'

/** Shares of light and px that are told as nothing. */
const EVEN = 0.005
const STILL = 0.05

const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1] ?? 0

/** px by which a camera gets away from where it stands as a rule. */
function moved({ seen }: TakeReport): number {
  const [x, y] = [middle(seen.map(s => s.movement.x)), middle(seen.map(s => s.movement.y))]
  return Math.max(0, ...seen.map(s => Math.hypot(s.movement.x - x, s.movement.y - y)))
}

/** The largest share by which the light differs from the plate's. */
const lit = ({ seen }: TakeReport): number =>
  seen.map(s => s.gain[1] - 1).reduce((most, share) => (Math.abs(share) > Math.abs(most) ? share : most), 0)

const worst = (values: number[]): number =>
  values.reduce((most, value) => (Math.abs(value) > Math.abs(most) ? value : most), 0)

const textOf = (known: TakeReport[]) => {
  const far = worst(known.map(moved))
  const light = worst(known.map(lit))
  const isFault = (about: string) => known.some(r => r.findings.some(f => f.about === about && f.isFault))
  return [
    {
      text: far < STILL ? 'Lock-off still' : `Lock-off ${far.toFixed(far < 1 ? 2 : 1)} px`,
      isFault: isFault('camera'),
    },
    {
      text:
        Math.abs(light) < EVEN ? 'Light even' : `Light ${light > 0 ? '+' : '−'}${Math.abs(light * 100).toFixed(0)}%`,
      isFault: isFault('light'),
    },
  ]
}

const nothing = () => () => {}
const signOf = (reports: Reports | null, takes: readonly string[]): string =>
  takes.map(t => reports?.of(t)?.state ?? '').join(' ')

export function Lamps() {
  const reports = useReports()
  const id = useStore(s => projectOf(s)?.id ?? '')
  const takes = useStore(s => projectOf(s)?.takes)
  const digests = takes?.map(t => t.digest) ?? []
  useSyncExternalStore(reports?.subscribe ?? nothing, () => signOf(reports, digests))
  const known = digests.flatMap(t => {
    const report = reports?.of(t)
    return report?.state === 'ready' ? [report] : []
  })
  const lamps = known.length > 0 ? textOf(known) : [{ text: 'Lock-off?', isFault: false }]
  return (
    <Tip text="What the takes say about camera, light and people">
      <Link to={`/shot/${encodeURIComponent(id)}/report`} aria-label="Lock-off report" className="flex gap-1.5">
        {lamps.map(({ text, isFault }) => (
          <span key={text} className="rounded-full bg-card px-3 py-1.5 text-xs whitespace-nowrap hover:bg-raised">
            {known.length > 0 && <span className={isFault ? 'text-warn' : 'text-ghost'}>{isFault ? '◆ ' : '● '}</span>}
            {text}
          </span>
        ))}
      </Link>
    </Tip>
  )
}
