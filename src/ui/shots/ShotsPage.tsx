import { FolderOpen, Lightbulb } from 'lucide-react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { bringIn, newShot, openProjectFile } from '../../app/engine/bring-in'
import { convertFile } from '../../app/engine/convert'
import { forgetExportsOf } from '../../app/engine/exports'
import type { JobKind } from '../../app/jobs/kinds'
import { runJob, stopJob, type Working } from '../../app/jobs/run'
import { Stopped } from '../../app/stopped'
import { type Demo, keepDemo, listDemos } from '../../app/storage/demo'
import { hasProject, type Listed, listProjects, removeProject } from '../../app/storage/projects'
import { sweepScratch } from '../../app/storage/scratch'
import { jobUnderWay, useStore } from '../../app/store'
import type { Checked } from '../../core/door'
import { bareName, type Project } from '../../core/shot'
import { rateText } from '../../core/time'
import { askRate } from '../ask/AskRate'
import { IconButton, TextButton } from '../common/Button'
import { droppedFiles } from '../common/dropped-files'
import { Ghost } from '../common/Ghost'
import { jobText } from '../common/job-text'
import { switchLights } from '../common/lights'
import { MEDIA_FILES } from '../common/media-files'
import { offerInstead, sayNote, sayProblem } from '../common/problem'
import { ShotCard, StoredShot } from './ShotCard'

const isProjectFile = (file: File): boolean => /\.zip$/i.test(file.name)

/** The shots on this machine, the demo shots, and every way to begin. */
export function ShotsPage() {
  const navigate = useNavigate()
  const [projects, setProjects] = useState<Listed[] | null>(null)
  const [demos, setDemos] = useState<Demo[]>([])
  const busy = useStore(s => jobUnderWay(s.jobs, ['bring', 'convert', 'open', 'fetch', 'remove'], null))
  const here = useRef(true)
  const [over, setOver] = useState(false)
  const picker = useRef<HTMLInputElement>(null)
  const opener = useRef<HTMLInputElement>(null)

  const refresh = useCallback(async () => {
    try {
      setProjects(await listProjects())
    } catch (error) {
      setProjects([])
      sayProblem(
        `The shots on this machine cannot be listed: ${error instanceof Error ? error.message : String(error)}`,
      )
    }
  }, [])
  useEffect(() => {
    here.current = true
    return () => {
      here.current = false
    }
  }, [])
  useEffect(() => {
    void refresh()
    sweepScratch().catch(error => console.error('What was left behind stays:', error))
    listDemos().then(setDemos, () => sayProblem('The demo shots are not to be had: the server does not answer.'))
  }, [refresh])

  /** Work that leads to a shot, which is entered if somebody still stands here; what goes wrong is said. */
  const job = async <T,>(kind: JobKind, name: string, work: (working: Working) => Promise<T>): Promise<T | null> => {
    try {
      return await runJob({ kind, project: null, name }, work)
    } catch (error) {
      if (error instanceof Stopped) return null
      sayProblem(`That did not work (${error instanceof Error ? error.message : String(error)}). Try it again.`)
      return null
    }
  }
  const enterMade = (made: Checked<Project> | null) => {
    if (!made) return
    if (!made.ok) sayProblem(made.problem)
    else if (here.current) navigate(`/shot/${encodeURIComponent(made.value.id)}`)
    else void refresh()
  }
  const openFile = async (file: File) =>
    enterMade(
      await job('open', file.name, ({ signal, tell }) =>
        openProjectFile(file, signal, hasProject, share => tell(share, `Opening ${file.name}`)),
      ),
    )
  const begin = async (files: readonly File[]) => {
    const begun = await job('bring', files[0]!.name, async ({ signal, tell }) => {
      const begun = new Set<string>()
      const onProgress = (name: string, share: number) => {
        begun.add(name)
        tell(Math.min(1, (begun.size - 1 + share) / files.length), name)
      }
      const brought = await bringIn(files, signal, onProgress, askRate)
      const first = brought.takes.find(t => !t.font)
      if (!first && brought.takes.length > 0)
        brought.problems.push('A font alone makes no shot: bring it in where letters are set.')
      return { ...brought, made: first ? await newShot(brought, bareName(first.name)) : null }
    })
    if (!begun) return
    for (const problem of begun.problems) sayProblem(problem)
    for (const { file, problem } of begun.foreign) {
      offerInstead(problem, 'Convert it here', () => void convert(file))
    }
    enterMade(begun.made)
    const film = begun.made?.ok ? begun.takes.find(t => t.picture?.kind === 'film') : null
    if (begun.made?.ok && film?.picture?.kind === 'film' && film.picture.varies) {
      const [own, given] = [rateText(film.picture.rate), rateText(begun.made.value.shot.rate)]
      sayNote(`“${film.name}” has frames of uneven length, ${own} a second on average. The shot has ${given}.`)
    }
  }
  const convert = async (file: File) => {
    const film = await job('convert', file.name, ({ signal, tell }) =>
      convertFile(file, signal, share => tell(share, `Converting ${file.name}`)),
    )
    if (film) await begin([film])
  }
  const take = async (files: readonly File[]) => {
    if (files.length === 0 || busy) return
    const project = files.find(isProjectFile)
    await (project ? openFile(project) : begin(files))
  }
  const openDemo = async (demo: Demo) => {
    const kept = await job('fetch', demo.shot.name, ({ signal, tell }) =>
      keepDemo(demo, signal, share => tell(share, `Fetching ${demo.shot.name}`)),
    )
    enterMade(kept?.ok ? { ok: true, value: kept.value.project } : kept)
  }
  const remove = async (id: string, name: string) => {
    const refused = await job('remove', name, async () => {
      const problem = await removeProject(id)
      if (!problem) await forgetExportsOf(id)
      return problem
    })
    if (refused) sayProblem(refused)
    await refresh()
  }

  const fresh = demos.filter(d => !projects?.some(p => p.id === d.id))
  return (
    <main
      className="h-full overflow-y-auto"
      onDragOver={event => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={event => event.currentTarget === event.target && setOver(false)}
      onDrop={event => {
        event.preventDefault()
        setOver(false)
        void droppedFiles(event.dataTransfer).then(files => take(files))
      }}
    >
      <div className="mx-auto flex max-w-[1120px] flex-col gap-8 px-8 py-8">
        <header className="flex items-center gap-4">
          <Ghost size={44} className="text-ghost" />
          <div className="flex-1">
            <h1 className="text-3xl leading-tight">Jolly Ghost</h1>
            <p className="text-quiet">One camera that stands still, two takes, and somebody who is there twice.</p>
          </div>
          <Link to="/guide" className="rounded-full bg-card px-4 py-1.5 hover:bg-raised">
            Guide
          </Link>
          <IconButton icon={Lightbulb} label="House lights" onClick={switchLights} />
        </header>

        <section aria-label="Begin" className="grid grid-cols-[2fr_1fr] gap-4">
          <button
            type="button"
            disabled={busy !== null}
            onClick={() => picker.current?.click()}
            className={`flex flex-col items-start gap-1 rounded-2xl border border-dashed px-6 py-6 text-left ${over ? 'border-ghost bg-card' : 'border-line hover:border-quiet'}`}
          >
            <span className="font-display text-xl font-semibold">{busy ? jobText(busy) : 'Begin with your takes'}</span>
            <span className="text-quiet">
              Choose or drop videos, stills or sound. The first gives the shot its size, rate and length.
            </span>
          </button>
          <div className="flex flex-col items-start justify-center gap-2 rounded-2xl bg-panel px-6 py-4">
            <span className="text-quiet">
              {busy ? 'It goes on until it is there or stopped' : 'A shot that was saved as a file'}
            </span>
            {busy ? (
              <TextButton onClick={() => stopJob(busy.id)}>Stop</TextButton>
            ) : (
              <TextButton onClick={() => opener.current?.click()}>
                <span className="flex items-center gap-2">
                  <FolderOpen size={15} /> Open a project file
                </span>
              </TextButton>
            )}
          </div>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            accept={MEDIA_FILES}
            aria-label="Takes for a new shot"
            onChange={e => void take([...(e.target.files ?? [])])}
          />
          <input
            ref={opener}
            type="file"
            hidden
            accept=".zip"
            aria-label="Project file"
            onChange={event => {
              const file = event.target.files?.[0]
              event.target.value = ''
              if (file) void openFile(file)
            }}
          />
        </section>

        {projects && projects.length > 0 && (
          <section aria-label="Shots on this machine">
            <h2 className="mb-3 text-xl">On this machine</h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-4">
              {projects.map(kept => (
                <StoredShot
                  key={kept.id}
                  kept={kept}
                  onRemove={() => void remove(kept.id, kept.project?.shot.name ?? '')}
                />
              ))}
            </ul>
          </section>
        )}

        {fresh.length > 0 && (
          <section aria-label="Demo shots">
            <h2 className="mb-3 text-xl">To try</h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-4">
              {fresh.map(demo => (
                <ShotCard key={demo.id} {...demo} onOpen={() => void openDemo(demo)} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  )
}
