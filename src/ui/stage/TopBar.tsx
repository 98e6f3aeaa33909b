import { Lightbulb, Menu as MenuIcon } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { toast } from 'sonner'
import { COMMANDS, commandOf, shownKeys } from '../../app/commands'
import { leaveGroup } from '../../app/commands/layers'
import { dialogOpened, edit, findingSet, projectOf, rootShot, shotOf, useSend, useStore } from '../../app/store'
import { innerShot, type Shot } from '../../core/shot'
import { lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { Ghost } from '../common/Ghost'
import { History } from '../common/History'
import { switchLights } from '../common/lights'
import { Menu, MenuItem } from '../common/Menu'
import { Tip } from '../common/Tip'
import { TypedName } from '../common/TypedName'
import { useEngine } from './engine-context'
import { Lamps } from './Lamps'
import { usePacking } from './use-packing'

const SAVING = { saved: 'saved', waiting: 'saving…', failed: '◆ not saved' } as const

function ShotName({ name }: { name: string }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  return (
    <TypedName
      label="Name of the shot"
      disabled={readOnly}
      size={Math.max(8, name.length)}
      className="field-sizing-content min-w-24 max-w-96 rounded bg-transparent px-1 font-display text-xl font-semibold hover:bg-card focus:bg-card"
      name={name}
      onDone={next => send(edit('renameShot', next))}
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

/** Says that a change is not saved as long as that is so, with the way out beside it. */
function useUnsaved(saveFile: () => void) {
  const unsaved = useStore(s => s.view.unsaved)
  const save = useRef(saveFile)
  save.current = saveFile
  useEffect(() => {
    if (!unsaved) return
    const action = { label: 'Save as file', onClick: () => save.current() }
    toast.error(unsaved, { id: 'unsaved', duration: Number.POSITIVE_INFINITY, closeButton: true, action })
    return () => void toast.dismiss('unsaved')
  }, [unsaved])
}

/** Where one is, what can be taken back, and the way out. */
export function TopBar() {
  const send = useSend()
  const id = useStore(s => projectOf(s)?.id)
  const name = useStore(s => rootShot(s)?.name)
  const form = useStore(s => formOf(shotOf(s)))
  const saving = useStore(s => s.view.saving)
  const readOnly = useStore(s => s.view.readOnly)
  const packing = usePacking()
  useUnsaved(packing.begin)
  if (!id || name === undefined) return null
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
      <Lamps />
      <History />
      <IconButton icon={Lightbulb} label="House lights" onClick={switchLights} />
      <Menu trigger={<IconButton icon={MenuIcon} label="Commands" />}>
        <CommandItems />
      </Menu>
      <button
        type="button"
        onClick={packing.share === null ? packing.begin : packing.stop}
        className="rounded-full bg-card px-4 py-1.5 whitespace-nowrap hover:bg-raised"
      >
        {packing.share === null ? 'Save as file' : `Packing ${Math.round(packing.share * 100)}% · stop`}
      </button>
      <Link
        to={`/shot/${encodeURIComponent(id)}/export`}
        className="rounded-full bg-lime px-4 py-1.5 font-bold text-on-lime"
      >
        Export
      </Link>
    </header>
  )
}
