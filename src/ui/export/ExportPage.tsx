import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { startExport } from '../../app/engine/exports'
import { loadShot } from '../../app/engine/load-shot'
import { sessionsClosed } from '../../app/engine/session'
import { getPoster } from '../../app/storage/projects'
import { useStore } from '../../app/store'
import { LIMITS, type Project } from '../../core/shot'
import { counter, lengthText } from '../../core/time'
import { type ExportFormat, filmSize } from '../../media/export'
import { TextButton } from '../common/Button'
import { Choice } from '../common/Choice'
import { Ghost } from '../common/Ghost'
import { NumberField } from '../common/NumberField'
import { ExportJob } from './ExportJob'

const FORMATS = [
  { value: 'mp4', name: 'MP4 · H.264 + AAC' },
  { value: 'webm', name: 'WebM · VP9 + Opus' },
] as const

const SIZES = [
  { value: '1', name: 'Full' },
  { value: '0.5', name: 'Half' },
  { value: '0.25', name: 'Quarter' },
] as const

const PARTS = [
  { value: 'all', name: 'The whole shot' },
  { value: 'part', name: 'A part' },
] as const

/** What to make of a shot, how big, how far along, and what was made. */
export function ExportPage() {
  const { id = '' } = useParams()
  const [project, setProject] = useState<Project | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [poster, setPoster] = useState<string | null>(null)
  const [format, setFormat] = useState<ExportFormat>('mp4')
  const [scale, setScale] = useState<(typeof SIZES)[number]['value']>('1')
  const [matte, setMatte] = useState('')
  const [part, setPart] = useState<(typeof PARTS)[number]['value']>('all')
  const [first, setFirst] = useState(1)
  const [last, setLast] = useState(1)
  const all = useStore(s => s.jobs)
  const jobs = all.filter(j => j.kind === 'export' && j.project === id)

  useEffect(() => {
    let url: string | null = null
    const load = async () => {
      await sessionsClosed()
      const loaded = await loadShot(id)
      if (!loaded) return setProblem('There is no such shot on this machine.')
      if (!loaded.ok) return setProblem(`This shot cannot be opened. ${loaded.problem}`)
      setProject(loaded.value.project)
      setLast(loaded.value.project.shot.length)
      const blob = await getPoster(id)
      if (blob) {
        url = URL.createObjectURL(blob)
        setPoster(url)
      }
    }
    load().catch(error => setProblem(error instanceof Error ? error.message : String(error)))
    return () => {
      if (url) URL.revokeObjectURL(url)
    }
  }, [id])

  if (!project) {
    return (
      <main className="flex h-full flex-col items-center justify-center gap-4">
        <Ghost size={48} className="text-quiet" />
        <p>{problem ?? 'Opening the shot…'}</p>
        <Link to="/">Back to the shots</Link>
      </main>
    )
  }
  const { shot } = project
  const span = part === 'all' ? { from: 0, to: shot.length } : { from: first - 1, to: last }
  const { size, left } = filmSize(shot, Number(scale))
  const frames = span.to - span.from
  const begin = () => {
    const layer = shot.layers.find(l => l.id === matte)
    const name = layer ? `${shot.name}, matte of ${layer.name}`.slice(0, LIMITS.name) : shot.name
    const detail = `${size.width}×${size.height} · ${frames} frames`
    void startExport(
      { ...project, shot: { ...shot, name } },
      { format, span, scale: Number(scale), ...(layer && { matte: layer.id }) },
      detail,
    )
  }
  return (
    <main className="h-full overflow-y-auto">
      <div className="mx-auto flex max-w-[1000px] flex-col gap-6 px-8 py-6">
        <header className="flex items-center gap-3 text-quiet">
          <Ghost size={20} className="text-ghost" />
          <Link to="/" className="hover:text-ink">
            Shots
          </Link>
          /
          <Link to={`/shot/${encodeURIComponent(id)}`} className="hover:text-ink">
            {shot.name}
          </Link>
          /<h1 className="text-xl text-ink">Export</h1>
        </header>
        <section aria-label="What to make" className="grid grid-cols-[360px_1fr] gap-6 rounded-2xl bg-panel p-5">
          <div className="flex aspect-video items-center justify-center self-start overflow-hidden rounded-xl bg-well">
            {poster ? (
              <img src={poster} alt="" className="size-full object-contain" />
            ) : (
              <Ghost size={40} className="text-quiet" />
            )}
          </div>
          <div className="flex flex-col gap-3">
            <div className="flex items-center gap-4">
              <span className="w-16 text-quiet">Format</span>
              <Choice label="Format" value={format} options={FORMATS} onChange={setFormat} />
            </div>
            <div className="flex items-center gap-4">
              <span className="w-16 text-quiet">Size</span>
              <Choice label="Size" value={scale} options={SIZES} onChange={setScale} />
              <span className="text-quiet">
                {size.width}×{size.height}
              </span>
            </div>
            <div className="flex items-center gap-4">
              <label htmlFor="what" className="w-16 text-quiet">
                Shows
              </label>
              <select
                id="what"
                value={matte}
                onChange={event => setMatte(event.target.value)}
                className="max-w-72 rounded-full bg-ground px-2.5 py-1 text-xs"
              >
                <option value="">the picture, with its sound</option>
                {shot.layers.map(layer => (
                  <option key={layer.id} value={layer.id}>
                    the matte of {layer.name}, in grey
                  </option>
                ))}
              </select>
            </div>
            <div className="flex items-center gap-4">
              <span className="w-16 text-quiet">Frames</span>
              <Choice label="Frames" value={part} options={PARTS} onChange={setPart} />
            </div>
            {part === 'part' && (
              <div className="ml-20 flex w-64 flex-col gap-1.5">
                <NumberField label="First frame" value={first} min={1} max={last} initial={1} onChange={setFirst} />
                <NumberField
                  label="Last frame"
                  value={last}
                  min={first}
                  max={shot.length}
                  initial={shot.length}
                  onChange={setLast}
                />
              </div>
            )}
            <p className="ml-20 text-quiet" data-testid="export-summary">
              {left && <span className="block text-warn">◆ {left[0]!.toUpperCase() + left.slice(1)}</span>}
              {frames} frames, {lengthText(frames, shot.rate)}, {counter(span.from, shot.rate)} to{' '}
              {counter(span.to - 1, shot.rate)}
            </p>
            <div className="mt-auto ml-20">
              <TextButton main onClick={begin}>
                Make the file
              </TextButton>
            </div>
          </div>
        </section>
        {jobs.length > 0 && (
          <section aria-label="Files">
            <h2 className="mb-2 text-lg">Files</h2>
            <ul className="flex flex-col gap-2">
              {jobs.map(job => (
                <ExportJob key={job.id} job={job} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  )
}
