// The worst of what the takes say, in the bar: a way to the report.
import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { doingFor } from '../../app/engine/advice'
import type { Reports, TakeReport } from '../../app/engine/reports'
import { projectOf, rootShot, useStore } from '../../app/store'
import type { Take } from '../../core/shot'
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

interface Known {
  take: Take
  report: TakeReport
}

interface Lamp {
  text: string
  isFault: boolean
}

/** What a lamp says: faults about which something has been done are no longer any. */
function lamp(known: readonly Known[], about: 'camera' | 'light', text: string, done: string): Lamp {
  const faults = known.flatMap(({ take, report }) =>
    report.findings.filter(f => f.about === about && f.isFault).map(f => doingFor(take, report, f)?.isDone === true),
  )
  const isFault = faults.includes(false)
  return { text: faults.length > 0 && !isFault ? `${text}, ${done}` : text, isFault }
}

function lampsOf(all: readonly Known[]): Lamp[] {
  // Against a plate of another place, or of another light, neither camera nor light tells anything.
  const known = all.filter(({ report }) => !report.findings.some(f => f.about === 'people' && f.isFault))
  const elsewhere = known.length < all.length ? [{ text: 'Plate unlike the take', isFault: true }] : []
  const far = worst(known.map(({ report }) => moved(report)))
  const light = worst(known.map(({ report }) => lit(report)))
  const camera = far < STILL ? 'Lock-off still' : `Lock-off ${far.toFixed(far < 1 ? 2 : 1)} px`
  const even = Math.abs(light) < EVEN
  return [
    ...elsewhere,
    lamp(known, 'camera', camera, 'steadied'),
    lamp(
      known,
      'light',
      even ? 'Light even' : `Light ${light > 0 ? '+' : '−'}${Math.abs(light * 100).toFixed(0)}%`,
      'matched',
    ),
  ]
}

/** Milliseconds for which the document has to be left alone before what was done about faults is looked up again. */
const REST = 400

/** The lamps, looked up again when reports or the resting document have changed. */
function useLamps(known: readonly Known[], sign: string): readonly Lamp[] {
  const shot = useStore(rootShot)
  const [lamps, setLamps] = useState<readonly Lamp[]>([])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the sign tells whether what is known has changed, the shot what was done.
  useEffect(() => {
    const timer = setTimeout(() => setLamps(lampsOf(known)), lamps.length === 0 ? 0 : REST)
    return () => clearTimeout(timer)
  }, [shot, sign])
  return lamps
}

const nothing = () => () => {}
const signOf = (reports: Reports | null, takes: readonly string[]): string =>
  takes.map(t => reports?.of(t)?.state ?? '').join(' ')

export function Lamps() {
  const reports = useReports()
  const id = useStore(s => projectOf(s)?.id ?? '')
  const takes = useStore(s => projectOf(s)?.takes)
  const digests = takes?.map(t => t.digest) ?? []
  const sign = useSyncExternalStore(reports?.subscribe ?? nothing, () => signOf(reports, digests))
  const known = (takes ?? []).flatMap(take => {
    const report = reports?.of(take.digest)
    return report?.state === 'ready' ? [{ take, report }] : []
  })
  const told = useLamps(known, sign)
  const lamps = known.length > 0 && told.length > 0 ? told : [{ text: 'Lock-off?', isFault: false }]
  // Beside their form: what is worth a look says so.
  const said = lamps.map(({ text, isFault }) => (isFault ? `${text}, look here` : text)).join('; ')
  return (
    <Tip text="What the takes say about camera, light and people">
      <Link
        to={`/shot/${encodeURIComponent(id)}/report`}
        aria-label={`Lock-off report: ${said}`}
        className="flex gap-1.5"
      >
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
