import { Lightbulb, Menu as MenuIcon, Redo2, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { COMMANDS, commandOf, shownKeys } from '../../app/commands'
import { leaveGroup } from '../../app/commands/layers'
import { packProject } from '../../app/engine/bring-in'
import { fileName, saveBlob } from '../../app/engine/exports'
import {
  dialogOpened,
  edit,
  findingSet,
  projectOf,
  redo,
  rootShot,
  shotOf,
  store,
  undo,
  useSend,
  useStore,
} from '../../app/store'
import { innerShot, type Shot } from '../../core/shot'
import { lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { Ghost } from '../common/Ghost'
import { switchLights } from '../common/lights'
import { Menu, MenuItem } from '../common/Menu'
import { sayProblem } from '../common/problem'
import { Tip } from '../common/Tip'
import { useEngine } from './engine-context'

const SAVING = { saved: 'saved', waiting: 'saving…', failed: '◆ not saved' } as const

function ShotName({ name }: { name: string }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const [typed, setTyped] = useState<string | null>(null)
  const commit = () => {
    if (typed?.trim() && typed !== name) send(edit('renameShot', typed.trim()))
    setTyped(null)
  }
  return (
    <input
      aria-label="Name of the shot"
      disabled={readOnly}
      size={Math.max(8, (typed ?? name).length)}
      className="field-sizing-content min-w-24 max-w-96 rounded bg-transparent px-1 font-display text-xl font-semibold hover:bg-card focus:bg-card"
      value={typed ?? name}
      onChange={event => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={event => {
        if (event.key === 'Enter') event.currentTarget.blur()
        if (event.key === 'Escape') setTyped(null)
      }}
    />
  )
}

/** The groups one has gone into, each a way back. */
function Inside() {
  const into = useStore(s => s.view.into)
  const root = useStore(rootShot)
  if (into.length === 0 || !root) return null
  const names = into.map((id, i) => innerShot(root, into.slice(0, i))?.layers.find(l => l.id === id)?.name ?? '')
  return (
    <nav aria-label="Groups" className="flex items-center gap-1 text-quiet">
      <button
        type="button"
        className="rounded-full bg-card px-2.5 py-0.5 text-lime"
        onClick={() => {
          for (const _ of into) leaveGroup()
        }}
      >
        ← out of
      </button>
      {names.map((name, i) => (
        <span key={into[i]} className="max-w-32 truncate font-display text-ink">
          {i > 0 && '› '}
          {name}
        </span>
      ))}
    </nav>
  )
}

/** Every command; asked whether it applies only while the menu is open. */
function CommandItems() {
  const send = useSend()
  const engine = useEngine()
  return (
    <>
      <MenuItem keys={shownKeys(commandOf('find').keys)} onSelect={() => setTimeout(() => send(findingSet(true)))}>
        Find a command
      </MenuItem>
      <MenuItem onSelect={() => window.open('/guide', '_blank')}>Guide and shortcuts</MenuItem>
      {COMMANDS.filter(c => c.id !== 'find').map(c => (
        <MenuItem
          key={c.id}
          keys={shownKeys(c.keys)}
          disabled={!engine || c.applies?.() === false}
          onSelect={() => engine && c.run(engine)}
        >
          {c.name}
        </MenuItem>
      ))}
    </>
  )
}

const formOf = (shot: Shot | null): string =>
  shot
    ? `${shot.size.width}×${shot.size.height} · ${rateText(shot.rate)} fps · ${lengthText(shot.length, shot.rate)}`
    : ''

/** Where one is, what can be taken back, and the way out. */
export function TopBar() {
  const send = useSend()
  const id = useStore(s => projectOf(s)?.id)
  const name = useStore(s => rootShot(s)?.name)
  const form = useStore(s => formOf(shotOf(s)))
  const past = useStore(s => s.project.past.some(p => p !== null))
  const future = useStore(s => s.project.future.length > 0)
  const saving = useStore(s => s.view.saving)
  const readOnly = useStore(s => s.view.readOnly)
  const [packing, setPacking] = useState<number | null>(null)
  if (!id || name === undefined) return null
  const saveFile = async () => {
    const project = projectOf(store.getState())
    if (!project) return
    setPacking(0)
    const packed = await packProject(project, setPacking)
    setPacking(null)
    if (packed.ok) saveBlob(packed.value, `${fileName(name)}.jollyghost.zip`)
    else sayProblem(packed.problem)
  }
  return (
    <header className="flex h-[46px] shrink-0 items-center gap-2 border-b border-line bg-panel px-3">
      <Link to="/" aria-label="Shots" className="flex items-center gap-3 text-quiet hover:text-ink">
        <Ghost size={20} className="text-ghost" /> Shots
      </Link>
      <span className="text-quiet">/</span>
      <h1>
        <ShotName name={name} />
      </h1>
      <Inside />
      <Tip text="Change size, rate and length">
        <button
          type="button"
          disabled={readOnly}
          className="truncate rounded-full px-2 py-0.5 text-quiet hover:bg-card hover:text-ink"
          onClick={() => send(dialogOpened('form'))}
        >
          {form}
        </button>
      </Tip>
      <span
        className={`whitespace-nowrap ${saving === 'failed' ? 'text-warn' : 'text-quiet'}`}
        data-testid="saving"
        role="status"
      >
        · {readOnly ? 'read only' : SAVING[saving]}
      </span>
      <span className="flex-1" />
      <IconButton icon={Undo2} label="Undo" keys="Ctrl Z" disabled={!past || readOnly} onClick={() => send(undo())} />
      <IconButton
        icon={Redo2}
        label="Redo"
        keys="Ctrl Shift Z"
        disabled={!future || readOnly}
        onClick={() => send(redo())}
      />
      <IconButton icon={Lightbulb} label="House lights" onClick={switchLights} />
      <Menu trigger={<IconButton icon={MenuIcon} label="Commands" />}>
        <CommandItems />
      </Menu>
      <button
        type="button"
        disabled={packing !== null}
        onClick={saveFile}
        className="rounded-full bg-card px-4 py-1.5 whitespace-nowrap hover:bg-raised"
      >
        {packing === null ? 'Save as file' : `Packing ${Math.round(packing * 100)}%`}
      </button>
      <Link to={`/shot/${id}/export`} className="rounded-full bg-lime px-4 py-1.5 font-bold text-on-lime">
        Export
      </Link>
    </header>
  )
}
