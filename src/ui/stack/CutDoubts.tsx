// Why somebody may be told only badly by a plate: what the take says by it, or a way to have it looked through.
import { useEffect, useRef } from 'react'
import { isLookedAt } from '../../app/engine/reports'
import { projectOf, useStore } from '../../app/store'
import type { Finding } from '../../core/plate'
import type { Cut } from '../../core/plate/recipe'
import { asTake, type Layer, type Take } from '../../core/shot'
import { TextButton } from '../common/Button'
import { useReport } from '../report/use-report'
import { useCutOuts, useReports } from '../stage/engine-context'
import { MakePlate } from '../takes/MakePlate'

/** A cut-out allows for a camera that was nudged and for light that is another by itself. */
const isInTheWay = ({ isFault, advice }: Finding): boolean => isFault && advice !== 'match' && advice !== 'steady'

/** Has a take looked through by a plate that nobody chose a stretch of, once nothing is to be cut out any more. */
function useCheckOfGuess(take: string, { plate, from, to }: Cut, isGuess: boolean): void {
  const [reports, cutOuts] = [useReports(), useCutOuts()]
  // Whoever stops it is not asked again.
  const begun = useRef('')
  useEffect(() => {
    if (!isGuess || !reports || !cutOuts) return
    const begin = () => {
      const told = cutOuts.progress()
      const which = `${take} ${plate}`
      if (begun.current === which || !told || told.done < told.of) return
      begun.current = which
      reports.lookAgainst(take, { plate, from, to })
    }
    begin()
    return cutOuts.subscribe(begin)
  }, [reports, cutOuts, take, plate, from, to, isGuess])
}

export function CutDoubts({ layer, cut, onMade }: { layer: Layer; cut: Cut; onMade: (plate: Take) => void }) {
  const reports = useReports()
  const digest = asTake(layer.source)?.digest ?? ''
  const takes = useStore(s => projectOf(s)?.takes)
  const films = [...new Set([digest, cut.plate])].flatMap(
    of => takes?.filter(t => t.digest === of && isLookedAt(t)) ?? [],
  )
  const isFilm = films[0]?.digest === digest
  const report = useReport(digest)
  const isKnown = report?.against?.plate === cut.plate && report.state !== 'none'
  const isUntold = report === null || report.state === 'none'
  useCheckOfGuess(digest, cut, isFilm && films.at(-1)!.marked === null && cut.from === 0 && isUntold)
  if (cut.plate === '' || !isFilm) return null
  if (!isKnown || report.state === 'failed') {
    return (
      <TextButton
        className="col-span-2"
        disabled={!reports}
        title="Whether the plate shows the same set, and what is in the way of a clean cut"
        onClick={() => reports?.lookAgainst(digest, { plate: cut.plate, from: cut.from, to: cut.to })}
      >
        Check the take by this plate
      </TextButton>
    )
  }
  const doubts = report.findings.filter(isInTheWay)
  return (
    <div className="col-span-2 flex flex-col gap-1 text-xs text-quiet" role="status">
      {report.state === 'waiting' && 'Waiting to be checked by this plate…'}
      {report.state === 'looking' && `Checking it by this plate: ${report.seen.length} of ${report.of || '…'} frames`}
      {report.state === 'ready' && doubts.length === 0 && 'By this plate nothing is in the way of a clean cut.'}
      {doubts.map(({ from, sentence }) => (
        <p key={`${from} ${sentence}`} className="text-warn">
          ◆ {sentence}
        </p>
      ))}
      {doubts.some(d => d.advice === 'empty') && (
        <span className="-mr-3 self-end">
          <MakePlate takes={films} onMade={onMade} />
        </span>
      )}
    </div>
  )
}
