// One take of the report: what it says in sentences, each with the one thing to do about it.
import { useState } from 'react'
import { doingFor, lacksPlate, standBehind } from '../../app/engine/advice'
import type { TakeReport } from '../../app/engine/reports'
import { projectOf, useStore } from '../../app/store'
import { type Finding, ON_THE_WAY } from '../../core/plate'
import type { Take } from '../../core/shot'
import { TextButton } from '../common/Button'
import { useReports } from '../stage/engine-context'
import { MakePlate } from '../takes/MakePlate'
import { Time } from './Time'
import { useReport } from './use-report'

/** Seconds of a film that are taken for its plate unless a part of it is marked. */
const LONG = 0.5

interface PointProps {
  frame: number | null
  onPoint: (frame: number) => void
}

const BEHIND = 'stands farthest from the lens'

/** A plate of a take and of that which it was seen against, by which it is seen from then on. */
function EmptyPlate({ take, against }: { take: Take; against: TakeReport['against'] }) {
  const reports = useReports()
  const other = useStore(s => projectOf(s)?.takes.find(t => t.digest === against?.plate && t.picture?.kind === 'film'))
  if (!other) return null
  const onMade = (plate: Take) => {
    standBehind(plate)
    reports?.lookAgainst(take.digest, { plate: plate.digest, from: 0, to: 0 })
  }
  return <MakePlate takes={[...new Set([take, other])]} where={BEHIND} onMade={onMade} />
}

/** A plate of a take in which somebody is all the time, put behind all that the shot has. */
const OwnPlate = ({ take }: { take: Take }) => <MakePlate takes={[take]} where={BEHIND} onMade={standBehind} />

interface SaidProps {
  take: Take
  report: TakeReport
  finding: Finding
}

/** What can be done about a finding, in one touch, or that it has been done. */
function Doing({ take, report, finding }: SaidProps) {
  const readOnly = useStore(s => s.view.readOnly)
  // What can be done depends on the document.
  useStore(projectOf)
  if (finding.advice === 'empty') return <EmptyPlate take={take} against={report.against} />
  const doing = doingFor(take, report, finding)
  if (!doing) return null
  if (doing.isDone) return <span className="shrink-0 text-ghost">✓ done</span>
  return (
    <TextButton
      disabled={readOnly || doing.hindered !== null}
      title={doing.hindered ?? undefined}
      className="shrink-0 disabled:opacity-50"
      onClick={doing.run}
    >
      {doing.name}
    </TextButton>
  )
}

function Said({ onPoint, ...said }: SaidProps & Pick<PointProps, 'onPoint'>) {
  const { finding } = said
  return (
    <li className="flex min-h-8 items-center gap-3">
      <button
        type="button"
        className={`min-w-0 flex-1 text-left hover:text-lime ${finding.isFault ? 'text-ink' : 'text-quiet'}`}
        onClick={() => onPoint(finding.from)}
      >
        {finding.isFault && <span className="text-warn">◆ </span>}
        {finding.sentence}
      </button>
      <Doing {...said} />
    </li>
  )
}

/** One advice that several findings give is given once. */
const once = (findings: readonly Finding[]): Finding[] =>
  findings.map((f, i) =>
    f.advice === 'acts' && findings.findIndex(o => o.advice === 'acts') !== i ? { ...f, advice: null } : f,
  )

function AgainstChoice({ take, report }: { take: Take; report: TakeReport }) {
  const reports = useReports()
  const takes = useStore(s => projectOf(s)?.takes)
  return (
    <label className="flex items-center gap-2 text-xs text-quiet">
      seen against
      <select
        value={report.against?.plate ?? ''}
        className="max-w-52 rounded-full bg-ground px-2.5 py-1 text-ink"
        onChange={({ target: { value } }) => {
          const marked = takes?.find(t => t.digest === value)?.marked
          const stretch = marked ?? { from: 0, to: LONG }
          reports?.lookAgainst(take.digest, value === '' ? null : { plate: value, from: stretch.from, to: stretch.to })
        }}
      >
        <option value="">the set, as it shows it</option>
        {takes
          ?.filter(t => t.digest !== take.digest && (t.picture?.kind === 'film' || t.picture?.kind === 'still'))
          .map(t => (
            <option key={t.digest} value={t.digest}>
              {t.name}
            </option>
          ))}
      </select>
    </label>
  )
}

/** Of a take without faults: all that there is to say, in a line. What its picture is like, and what lies between acts, can be read where there is more room. */
const inShort = (findings: readonly Finding[]): string =>
  findings
    .filter(f => f.about !== 'picture' && f.word !== ON_THE_WAY)
    .map(f => f.sentence.replace(/\.$/, ''))
    .join('. ')
    .concat('.')

function howFar({ state, against, seen, of, problem }: TakeReport): string {
  if (state === 'failed') return `◆ It cannot be looked through: ${problem}.`
  if (state === 'none') return 'Nobody has looked through it.'
  if (state === 'waiting') return 'Waiting to be looked through…'
  if (of === 0) return against ? 'Reading the plate…' : 'Finding the set behind whoever is in it…'
  return `Looked at ${seen.length} of ${of} frames`
}

export function TakeSection({ take, frame, onPoint }: { take: Take } & PointProps) {
  const report = useReport(take.digest)
  const [isOpen, setOpen] = useState<boolean | null>(null)
  // Whether it has a plate depends on the document.
  useStore(projectOf)
  if (!report) return null
  const isReady = report.state === 'ready'
  const isPlain = isReady && !report.findings.some(f => f.isFault)
  const open = isOpen ?? !isPlain
  // Without faults a take takes no more room than a line, and its plate and acts are a touch away all the same.
  const offered = (['plate', 'acts'] as const).flatMap(advice => report.findings.find(f => f.advice === advice) ?? [])
  return (
    <section aria-label={take.name} className="border-t border-line py-3 first:border-t-0">
      <header className="flex items-center gap-3">
        <h2 className="font-display text-lg">{take.name}</h2>
        <span className="line-clamp-3 min-w-0 flex-1 text-quiet">
          {isReady ? !open && inShort(report.findings) : ''}
        </span>
        {!isReady && (
          <span role="status" className={report.state === 'failed' ? 'text-warn' : 'text-quiet'}>
            {howFar(report)}
          </span>
        )}
        {!open && offered.map(finding => <Doing key={finding.advice} take={take} report={report} finding={finding} />)}
        {isReady && (open || lacksPlate(take, report)) && <OwnPlate take={take} />}
        {open && <AgainstChoice take={take} report={report} />}
        {isReady && (
          <TextButton aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Less' : 'More'}
          </TextButton>
        )}
      </header>
      {open && report.seen.length > 0 && <Time take={take} report={report} frame={frame} onPoint={onPoint} />}
      {open && isReady && (
        <ul className="mt-2 flex flex-col gap-0.5">
          {once(report.findings).map(finding => (
            <Said
              key={`${finding.about} ${finding.from} ${finding.sentence}`}
              take={take}
              report={report}
              finding={finding}
              onPoint={onPoint}
            />
          ))}
        </ul>
      )}
    </section>
  )
}
