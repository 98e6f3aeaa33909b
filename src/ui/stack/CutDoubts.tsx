// Why somebody may be told only badly by a plate: what the take says by it, or a way to have it looked through.
import { isLookedAt } from '../../app/engine/reports'
import { projectOf, useStore } from '../../app/store'
import type { Finding } from '../../core/plate'
import type { Cut } from '../../core/plate/recipe'
import { asTake, type Layer } from '../../core/shot'
import { TextButton } from '../common/Button'
import { useReport } from '../report/use-report'
import { useReports } from '../stage/engine-context'

/** A cut-out allows for a camera that was nudged and for light that is another by itself. */
const isInTheWay = ({ isFault, advice }: Finding): boolean => isFault && advice !== 'match' && advice !== 'steady'

export function CutDoubts({ layer, cut }: { layer: Layer; cut: Cut }) {
  const reports = useReports()
  const digest = asTake(layer.source)?.digest ?? ''
  const isFilm = useStore(s => projectOf(s)?.takes.some(t => t.digest === digest && isLookedAt(t)) ?? false)
  const report = useReport(digest)
  if (cut.plate === '' || !isFilm) return null
  if (report?.against?.plate !== cut.plate || report.state === 'none' || report.state === 'failed') {
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
      {report.state === 'looking' && `Checking it by this plate: ${report.seen.length} of ${report.of || '…'} frames`}
      {report.state === 'ready' && doubts.length === 0 && 'By this plate nothing is in the way of a clean cut.'}
      {doubts.map(({ from, sentence }) => (
        <p key={`${from} ${sentence}`} className="text-warn">
          ◆ {sentence}
        </p>
      ))}
    </div>
  )
}
