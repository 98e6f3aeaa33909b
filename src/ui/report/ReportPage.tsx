import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { isLookedAt } from '../../app/engine/reports'
import { projectOf, useStore } from '../../app/store'
import { Ghost } from '../common/Ghost'
import { History } from '../common/History'
import { useReports } from '../stage/engine-context'
import { Pointed } from './Pointed'
import { TakeSection } from './TakeSection'

/** What the takes say about camera, light and people, and what can be done about it. */
export function ReportPage() {
  const reports = useReports()
  const id = useStore(s => projectOf(s)?.id ?? '')
  const name = useStore(s => projectOf(s)?.shot.name)
  const takes = useStore(s => projectOf(s)?.takes)
  const [pointed, setPointed] = useState<{ take: string; frame: number } | null>(null)
  useEffect(() => {
    reports?.recall().then(
      () => reports.lookAll(),
      () => reports.lookAll(),
    )
  }, [reports])
  const films = takes?.filter(isLookedAt) ?? []
  const shown = films.find(t => t.digest === (pointed?.take ?? films[0]?.digest))
  return (
    <main className="absolute inset-0 z-30 flex flex-col bg-ground" aria-label="Lock-off report">
      <header className="flex h-[46px] shrink-0 items-center gap-2 border-b border-line bg-panel px-3 text-quiet">
        <Link to="/" aria-label="Shots" className="flex items-center gap-3 hover:text-ink">
          <Ghost size={20} className="text-ghost" /> Shots
        </Link>
        /
        <Link to={`/shot/${encodeURIComponent(id)}`} className="hover:text-ink">
          {name}
        </Link>
        /<h1 className="font-display text-xl font-semibold text-ink">Lock-off report</h1>
        <span className="flex-1" />
        <History />
        <Link
          to={`/shot/${encodeURIComponent(id)}`}
          className="rounded-full bg-card px-4 py-1.5 text-ink hover:bg-raised"
        >
          Back to the shot
        </Link>
      </header>
      <div className="flex min-h-0 flex-1">
        <div className="min-w-0 flex-1 overflow-y-auto px-6 pb-6">
          {films.length === 0 && <p className="py-10 text-quiet">The shot has no takes that move yet.</p>}
          {films.map(take => (
            <TakeSection
              key={take.digest}
              take={take}
              frame={pointed?.take === take.digest ? pointed.frame : null}
              onPoint={frame => setPointed({ take: take.digest, frame })}
            />
          ))}
        </div>
        <aside
          aria-label="The frame pointed at"
          className="w-[412px] shrink-0 overflow-y-auto border-l border-line p-4"
        >
          {shown && <Pointed take={shown} frame={pointed?.frame ?? 0} />}
        </aside>
      </div>
    </main>
  )
}
