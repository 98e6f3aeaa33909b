// A plate made of takes by a touch.
import { makePlate, toldOf } from '../../app/engine/make-plate'
import { stopJob } from '../../app/jobs/run'
import { jobUnderWay, projectOf, useStore } from '../../app/store'
import type { Take } from '../../core/shot'
import { TextButton } from '../common/Button'
import { jobText } from '../common/job-text'
import { sayNote } from '../common/problem'
import { useEngine } from '../stage/engine-context'

interface Props {
  takes: readonly Take[]
  onMade: (plate: Take) => void
  /** Where the plate stands then. */
  where?: string
}

/** Makes a plate of takes, or tells how far that is. */
export function MakePlate({ takes, onMade, where }: Props) {
  const engine = useEngine()
  const readOnly = useStore(s => s.view.readOnly)
  const job = useStore(s => jobUnderWay(s.jobs, ['bring'], projectOf(s)?.id ?? null))
  const make = async () => {
    const made = engine && (await makePlate(engine, takes))
    if (!made) return
    onMade(made.plate)
    sayNote(toldOf(made, where))
  }
  if (job) {
    return (
      <>
        <span role="status" className="text-xs text-quiet">
          {jobText(job)}
        </span>
        <TextButton onClick={() => stopJob(job.id)}>Stop</TextButton>
      </>
    )
  }
  return (
    <TextButton
      disabled={!engine || readOnly}
      title="A still of the set, without whoever moves about in it"
      onClick={() => void make()}
    >
      {takes.length > 1 ? 'Make a plate of both' : 'Make a plate of it'}
    </TextButton>
  )
}
