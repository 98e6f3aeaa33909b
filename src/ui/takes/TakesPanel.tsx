import { useRef, useState } from 'react'
import { stopJob } from '../../app/jobs/run'
import { jobUnderWay, projectOf, useStore } from '../../app/store'
import type { Take } from '../../core/shot'
import { TextButton } from '../common/Button'
import { droppedFiles } from '../common/dropped-files'
import { jobText } from '../common/job-text'
import { MEDIA_FILES } from '../common/media-files'
import { TakeRow } from './TakeRow'
import { useBringIn } from './use-bring-in'

/** Fonts are chosen where letters are set. */
const isSeen = ({ font }: Take): boolean => font === undefined

/** The takes of the shot, and a way to bring in more. */
export function TakesPanel() {
  const takes = useStore(s => projectOf(s)?.takes ?? null)
  const readOnly = useStore(s => s.view.readOnly)
  const picker = useRef<HTMLInputElement>(null)
  const job = useStore(s => jobUnderWay(s.jobs, ['bring', 'convert'], projectOf(s)?.id ?? null))
  const bring = useBringIn()
  const [over, setOver] = useState(false)
  return (
    <section
      aria-label="Takes"
      className={`flex h-full flex-col gap-2 overflow-y-auto bg-panel p-3 ${over ? 'outline-2 -outline-offset-4 outline-ghost' : ''}`}
      onDragOver={event => {
        event.preventDefault()
        setOver(event.dataTransfer.types.includes('Files'))
      }}
      onDragLeave={() => setOver(false)}
      onDrop={event => {
        event.preventDefault()
        setOver(false)
        void droppedFiles(event.dataTransfer).then(files => bring(files, false))
      }}
    >
      <h2 className="text-sm">Takes</h2>
      <ul className="flex flex-col gap-2">
        {takes?.filter(isSeen).map(t => (
          <TakeRow key={t.digest} take={t} />
        ))}
      </ul>
      <button
        type="button"
        disabled={readOnly || job !== null}
        className="rounded-xl border border-dashed border-line px-3 py-4 text-quiet hover:border-quiet hover:text-ink"
        onClick={() => picker.current?.click()}
      >
        {job ? jobText(job) : 'Bring in takes, stills or sound, or drop or paste them here'}
      </button>
      {job && <TextButton onClick={() => stopJob(job.id)}>Stop</TextButton>}
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        accept={MEDIA_FILES}
        aria-label="Bring in takes"
        onChange={event => {
          void bring([...(event.target.files ?? [])], false)
          event.target.value = ''
        }}
      />
    </section>
  )
}
