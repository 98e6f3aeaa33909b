import { FolderOpen, Lightbulb } from 'lucide-react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { bringIn, newShot, openProjectFile } from '../../app/engine/bring-in'
import { keepDemo, listDemos, posterOf } from '../../app/storage/demo'
import { listProjects, loadProject, removeProject } from '../../app/storage/projects'
import { bareName, type Project } from '../../core/shot'
import { IconButton, TextButton } from '../common/Button'
import { Ghost } from '../common/Ghost'
import { switchLights } from '../common/lights'
import { MEDIA_FILES } from '../common/media-files'
import { sayProblem } from '../common/problem'
import { ShotCard, StoredShot } from './ShotCard'

const isProjectFile = (file: File): boolean => /\.zip$/i.test(file.name)

/** The shots on this machine, the demo shots, and every way to begin. */
export function ShotsPage() {
  const navigate = useNavigate()
  const [projects, setProjects] = useState<Project[] | null>(null)
  const [demos, setDemos] = useState<Project[]>([])
  const [busy, setBusy] = useState<string | null>(null)
  const [over, setOver] = useState(false)
  const picker = useRef<HTMLInputElement>(null)
  const opener = useRef<HTMLInputElement>(null)

  const refresh = useCallback(async () => {
    try {
      setProjects((await listProjects()).map(p => p.project))
    } catch (error) {
      setProjects([])
      sayProblem(
        `The shots on this machine cannot be listed: ${error instanceof Error ? error.message : String(error)}`,
      )
    }
  }, [])
  useEffect(() => {
    void refresh()
    listDemos().then(setDemos, () => sayProblem('The demo shots are not to be had: the server does not answer.'))
  }, [refresh])

  const enter = (project: Project) => navigate(`/shot/${project.id}`)

  const openFile = async (file: File) => {
    setBusy(`Opening ${file.name}…`)
    const opened = await openProjectFile(file, async id => (await loadProject(id)) !== null)
    setBusy(null)
    if (opened.ok) enter(opened.value)
    else sayProblem(opened.problem)
  }
  const begin = async (files: readonly File[]) => {
    setBusy('Looking at the takes…')
    const brought = await bringIn(files, (name, share) => setBusy(`${name}: ${Math.round(share * 100)}%`))
    for (const problem of brought.problems) sayProblem(problem)
    const first = brought.takes[0]
    if (first) {
      const made = await newShot(brought, bareName(first.name))
      if (made.ok) {
        enter(made.value)
        return
      }
      sayProblem(made.problem)
    }
    setBusy(null)
  }
  const take = async (files: readonly File[]) => {
    if (files.length === 0 || busy) return
    const project = files.find(isProjectFile)
    await (project ? openFile(project) : begin(files))
  }
  const openDemo = async (demo: Project) => {
    setBusy(`Fetching ${demo.shot.name}…`)
    try {
      const kept = await keepDemo(demo, share => setBusy(`${demo.shot.name}: ${Math.round(share * 100)}%`))
      if (kept.ok) {
        enter(kept.value)
        return
      }
      sayProblem(kept.problem)
    } catch (error) {
      sayProblem(`“${demo.shot.name}” cannot be fetched: ${error instanceof Error ? error.message : String(error)}`)
    }
    setBusy(null)
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
        void take([...event.dataTransfer.files])
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
            <span className="font-display text-xl font-semibold">{busy ?? 'Begin with your takes'}</span>
            <span className="text-quiet">
              Choose or drop videos, stills or sound. The first gives the shot its size, rate and length.
            </span>
          </button>
          <div className="flex flex-col items-start justify-center gap-2 rounded-2xl bg-panel px-6 py-4">
            <span className="text-quiet">A shot that was saved as a file</span>
            <TextButton disabled={busy !== null} onClick={() => opener.current?.click()}>
              <span className="flex items-center gap-2">
                <FolderOpen size={15} /> Open a project file
              </span>
            </TextButton>
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
              {projects.map(project => (
                <StoredShot
                  key={project.id}
                  project={project}
                  onOpen={() => enter(project)}
                  onRemove={async () => {
                    await removeProject(project.id)
                    await refresh()
                  }}
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
                <ShotCard key={demo.id} project={demo} poster={posterOf(demo)} onOpen={() => void openDemo(demo)} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  )
}
