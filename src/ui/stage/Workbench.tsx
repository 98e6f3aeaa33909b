import { Suspense, useEffect, useState } from 'react'
import { Group, Panel, Separator } from 'react-resizable-panels'
import { Link, useOutlet, useParams } from 'react-router'
import { toast } from 'sonner'
import { onSaying } from '../../app/commands/say'
import { saveBlob } from '../../app/engine/exports'
import { openSession, type Session } from '../../app/engine/session'
import { stopJobsOf } from '../../app/jobs/run'
import { asItWas, hasProject } from '../../app/storage/projects'
import { asideRead, jobUnderWay, type State, shotOf, useSend, useStore } from '../../app/store'
import { Asking } from '../ask/Asking'
import { TextButton } from '../common/Button'
import { Ghost } from '../common/Ghost'
import { sayNote, sayProblem } from '../common/problem'
import { Lanes, lanesHeight } from '../lanes/Lanes'
import { TakeLane } from '../lanes/TakeLane'
import { DepthStack } from '../stack/DepthStack'
import { TakesPanel } from '../takes/TakesPanel'
import { Clipboard } from './Clipboard'
import { SessionContext } from './engine-context'
import { Finder } from './Finder'
import { Foldable } from './Foldable'
import { Shortcuts } from './Shortcuts'
import { Stage } from './Stage'
import { TopBar } from './TopBar'
import { Transport } from './Transport'

const LANES_SHARE = 0.36
/** Px of a take that is looked at alone. */
const TAKE_LANE = 180

/** Commands that have their keys also while something lies over the workbench. */
const OVER: readonly string[] = ['undo', 'redo']

const seam = 'bg-line transition-colors hover:bg-quiet focus-visible:bg-lime'

/** Saves the text of a shot as it was kept, for whoever wants to look into it. */
async function saveAsItWas(id: string): Promise<void> {
  try {
    const text = await asItWas(id)
    if (text !== null) saveBlob(new Blob([text], { type: 'application/json' }), 'shot as it was.json')
    else sayProblem('There is nothing of it on this machine.')
  } catch (error) {
    sayProblem(`It cannot be read (${error instanceof Error ? error.message : String(error)}).`)
  }
}

function Waiting({ id, problem }: { id: string; problem: string | null }) {
  const [isKept, setIsKept] = useState(false)
  const fetching = useStore(s => jobUnderWay(s.jobs, ['fetch'], id))
  useEffect(() => {
    setIsKept(false)
    // Where not even that can be told, it may be.
    if (problem) hasProject(id).then(setIsKept, () => setIsKept(true))
  }, [id, problem])
  return (
    <main className="flex h-full flex-col items-center justify-center gap-4">
      <Ghost size={48} className={problem ? 'text-quiet' : 'animate-pulse text-ghost motion-reduce:animate-none'} />
      <p className="max-w-md text-center tabular-nums">
        {problem ?? (fetching ? `Fetching ${fetching.name}: ${Math.round(fetching.done * 100)}%` : 'Opening the shot…')}
      </p>
      {(problem || fetching) && (
        <div className="flex gap-2">
          {problem && isKept && <TextButton onClick={() => void saveAsItWas(id)}>Save it as it was kept</TextButton>}
          <Link to="/" className="rounded-full bg-card px-4 py-1.5 hover:bg-raised">
            {problem ? 'Back to the shots' : 'Leave it'}
          </Link>
        </div>
      )}
    </main>
  )
}

/** What the shot could not be opened with, until it is read. */
function Aside({ id }: { id: string }) {
  const send = useSend()
  const aside = useStore(s => s.view.aside)
  if (aside.length === 0) return null
  return (
    <div role="status" className="flex items-center gap-3 bg-card px-4 py-1.5">
      <p className="min-w-0 flex-1 text-warn">
        ◆ Not all of this shot could be opened. Left out or changed: {aside.slice(0, 6).join('; ')}
        {aside.length > 6 && `; and ${aside.length - 6} more`}.
      </p>
      <TextButton onClick={() => void saveAsItWas(id)}>Save it as it was</TextButton>
      <TextButton onClick={() => send(asideRead())}>Go on</TextButton>
    </div>
  )
}

/** Px that the lanes take: as high as their rows are, up to a share of the window. */
function lanesRoom(state: State): number {
  const most = Math.round(innerHeight * LANES_SHARE)
  return Math.min(most, state.view.take ? TAKE_LANE : lanesHeight(shotOf(state)?.layers ?? [], state.view.layer))
}

/** The workbench: one shot open, its picture in the middle. */
export function Workbench() {
  const { id = '' } = useParams()
  const [canvas, setCanvas] = useState<HTMLCanvasElement | null>(null)
  const [beside, setBeside] = useState<HTMLElement | null>(null)
  const [session, setSession] = useState<Session | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const ready = useStore(s => shotOf(s) !== null)
  const readOnly = useStore(s => s.view.readOnly)
  const take = useStore(s => s.view.take)
  const lanes = useStore(lanesRoom)

  /** What lies over the workbench, with the shot open all the while. */
  const over = useOutlet()
  const refusal = useStore(s => s.view.refusal)

  useEffect(() => onSaying((sentence, isProblem) => (isProblem ? sayProblem(sentence) : sayNote(sentence))), [])
  useEffect(() => {
    if (refusal) toast.error(refusal, { id: 'refusal' })
  }, [refusal])

  useEffect(() => {
    const surface = document.createElement('canvas')
    let left = false
    let mine: Session | null = null
    setCanvas(surface)
    setProblem(null)
    openSession(id, surface, sayProblem).then(
      result => {
        if (typeof result === 'string') setProblem(result)
        else if (left) void result.close()
        else {
          mine = result
          setSession(result)
        }
      },
      error => {
        if (!left) setProblem(`The shot cannot be opened: ${error instanceof Error ? error.message : String(error)}`)
      },
    )
    return () => {
      left = true
      stopJobsOf(id, ['fetch'])
      setSession(null)
      void mine?.close()
    }
  }, [id])

  if (!ready || !canvas || problem) return <Waiting id={id} problem={problem} />
  return (
    <SessionContext value={session}>
      <Shortcuts only={over ? OVER : null} />
      {!over && <Clipboard />}
      <Finder />
      <Asking beside={beside} />
      {session && <Suspense fallback={null}>{over}</Suspense>}
      <main className="flex h-full flex-col" data-ready={session !== null} inert={over !== null}>
        <TopBar />
        <Aside id={id} />
        {readOnly && (
          <p role="status" className="bg-card px-4 py-1.5 text-warn">
            ◆ This shot is open in another tab. Here it can be looked at and exported, not changed.
          </p>
        )}
        <Group orientation="horizontal" className="min-h-0 flex-1">
          <Panel minSize="420px">
            <Group orientation="vertical">
              <Panel minSize="240px">
                <Group orientation="horizontal">
                  <Foldable part="takes" size={196} least={150} most={360}>
                    <TakesPanel />
                  </Foldable>
                  <Separator className={`w-px ${seam}`} />
                  <Panel minSize="320px">
                    <div className="flex h-full flex-col">
                      <div className="min-h-0 flex-1">
                        <Stage canvas={canvas} />
                      </div>
                      <Transport />
                    </div>
                  </Panel>
                </Group>
              </Panel>
              <Separator className={`h-px ${seam}`} />
              <Foldable part="lanes" size={lanes} least={90}>
                {take ? <TakeLane digest={take.digest} /> : <Lanes />}
              </Foldable>
            </Group>
          </Panel>
          <Separator className={`w-px ${seam}`} />
          <Foldable part="stack" size={344} least={280} most={520}>
            <div ref={setBeside} className="relative h-full">
              <DepthStack />
            </div>
          </Foldable>
        </Group>
      </main>
    </SessionContext>
  )
}
