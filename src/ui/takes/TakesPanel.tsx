import { Film, Plus } from 'lucide-react'
import { useRef, useState } from 'react'
import { bringIn } from '../../app/engine/bring-in'
import { storageProblem } from '../../app/storage/database'
import { saveWithMedia } from '../../app/storage/projects'
import { edit, projectOf, store, takesAdded, useSend, useStore } from '../../app/store'
import { makeLayer, type Take } from '../../core/shot'
import { framesIn, lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { sayProblem } from '../common/problem'
import { useEngine } from '../stage/engine-context'

function TakeRow({ take }: { take: Take }) {
  const send = useSend()
  const project = useStore(projectOf)
  const readOnly = useStore(s => s.view.readOnly)
  if (!project) return null
  const { size, rate, layers } = project.shot
  const uses = layers.filter(l => l.source.kind === 'take' && l.source.digest === take.digest).map(l => l.name)
  return (
    <li className="rounded-xl bg-card py-2 pr-1.5 pl-2.5 text-xs">
      <span className="flex items-center gap-2 pr-1">
        <Film size={14} className="shrink-0 text-quiet" />
        <span className="truncate text-[13px] font-bold" title={take.name}>
          {take.name}
        </span>
      </span>
      <span className="mt-1 block text-quiet">
        {take.size.width}×{take.size.height}, {rateText(take.rate)} fps
      </span>
      <span className="block text-quiet">
        {lengthText(framesIn(take.seconds, take.rate), take.rate)}, {take.sound ? 'sound' : 'silent'}
      </span>
      <span className="flex items-center text-quiet">
        <span className="min-w-0 flex-1 truncate">{uses.length > 0 ? `in ${uses.join(', ')}` : 'not placed'}</span>
        <IconButton
          icon={Plus}
          size="small"
          label={`Place ${take.name} nearest the lens`}
          disabled={readOnly}
          onClick={() => send(edit('addLayer', makeLayer(take, size, rate)))}
        />
      </span>
    </li>
  )
}

/** The takes of the shot, and a way to bring in more. */
export function TakesPanel() {
  const engine = useEngine()
  const takes = useStore(s => projectOf(s)?.takes ?? null)
  const readOnly = useStore(s => s.view.readOnly)
  const picker = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState<string | null>(null)
  const [over, setOver] = useState(false)
  const take = async (files: readonly File[]) => {
    if (files.length === 0 || busy || readOnly) return
    setBusy('Looking…')
    const brought = await bringIn(files, (file, share) => setBusy(`${file} ${Math.round(share * 100)}%`))
    for (const problem of brought.problems) sayProblem(problem)
    const project = projectOf(store.getState())
    if (project && brought.takes.length > 0) {
      try {
        const known = [...project.takes, ...brought.takes.filter(t => !project.takes.some(p => p.digest === t.digest))]
        await saveWithMedia({ ...project, takes: known }, brought.files)
        store.dispatch(takesAdded(brought.takes))
        await engine?.addFiles(brought.files)
        for (const t of brought.takes)
          store.dispatch(edit('addLayer', makeLayer(t, project.shot.size, project.shot.rate)))
      } catch (error) {
        sayProblem(storageProblem(error))
      }
    }
    setBusy(null)
  }
  return (
    <section
      aria-label="Takes"
      className={`flex h-full flex-col gap-2 overflow-y-auto bg-panel p-3 ${over ? 'outline-2 -outline-offset-4 outline-ghost' : ''}`}
      onDragOver={event => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={event => {
        event.preventDefault()
        setOver(false)
        void take([...event.dataTransfer.files])
      }}
    >
      <h2 className="text-sm">Takes</h2>
      <ul className="flex flex-col gap-2">
        {takes?.map(t => (
          <TakeRow key={t.digest} take={t} />
        ))}
      </ul>
      <button
        type="button"
        disabled={readOnly || busy !== null}
        className="rounded-xl border border-dashed border-line px-3 py-4 text-quiet hover:border-quiet hover:text-ink"
        onClick={() => picker.current?.click()}
      >
        {busy ?? 'Bring in takes, or drop them here'}
      </button>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        accept="video/*,.mkv,.mov"
        aria-label="Bring in takes"
        onChange={event => {
          void take([...(event.target.files ?? [])])
          event.target.value = ''
        }}
      />
    </section>
  )
}
