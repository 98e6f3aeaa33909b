import { useEffect, useState } from 'react'
import { Group, Panel, Separator } from 'react-resizable-panels'
import { Link, useParams } from 'react-router'
import { onSaying } from '../../app/commands/say'
import { openSession, type Session } from '../../app/engine/session'
import { shotOf, useStore } from '../../app/store'
import { Asking } from '../ask/Asking'
import { Ghost } from '../common/Ghost'
import { sayProblem } from '../common/problem'
import { Lanes } from '../lanes/Lanes'
import { TakeLane } from '../lanes/TakeLane'
import { DepthStack } from '../stack/DepthStack'
import { TakesPanel } from '../takes/TakesPanel'
import { Clipboard } from './Clipboard'
import { SessionContext } from './engine-context'
import { Finder } from './Finder'
import { Shortcuts } from './Shortcuts'
import { Stage } from './Stage'
import { TopBar } from './TopBar'
import { Transport } from './Transport'

const seam = 'bg-line transition-colors hover:bg-quiet focus-visible:bg-lime'

function Waiting({ problem }: { problem: string | null }) {
  return (
    <main className="flex h-full flex-col items-center justify-center gap-4">
      <Ghost size={48} className={problem ? 'text-quiet' : 'animate-pulse text-ghost'} />
      <p className="max-w-md text-center">{problem ?? 'Opening the shot…'}</p>
      {problem && (
        <Link to="/" className="rounded-full bg-card px-4 py-1.5">
          Back to the shots
        </Link>
      )}
    </main>
  )
}

/** The workbench: one shot open, its picture in the middle. */
export function Workbench() {
  const { id = '' } = useParams()
  const [canvas, setCanvas] = useState<HTMLCanvasElement | null>(null)
  const [session, setSession] = useState<Session | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const ready = useStore(s => shotOf(s) !== null)
  const readOnly = useStore(s => s.view.readOnly)
  const take = useStore(s => s.view.take)

  useEffect(() => onSaying(sayProblem), [])

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
      error => setProblem(`The shot cannot be opened: ${error instanceof Error ? error.message : String(error)}`),
    )
    return () => {
      left = true
      setSession(null)
      void mine?.close()
    }
  }, [id])

  if (!ready || !canvas || problem) return <Waiting problem={problem} />
  return (
    <SessionContext value={session}>
      <Shortcuts />
      <Clipboard />
      <Finder />
      <Asking />
      <main className="flex h-full flex-col" data-ready={session !== null}>
        <TopBar />
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
                  <Panel defaultSize="196px" minSize="150px" maxSize="360px" collapsible collapsedSize="0px">
                    <TakesPanel />
                  </Panel>
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
              <Panel defaultSize="236px" minSize="90px" collapsible collapsedSize="0px">
                {take ? <TakeLane digest={take.digest} /> : <Lanes />}
              </Panel>
            </Group>
          </Panel>
          <Separator className={`w-px ${seam}`} />
          <Panel defaultSize="344px" minSize="280px" maxSize="520px" collapsible collapsedSize="0px">
            <DepthStack />
          </Panel>
        </Group>
      </main>
    </SessionContext>
  )
}
