import { ChevronLeft, ChevronRight, ImageDown, Pause, Play, SkipBack, SkipForward } from 'lucide-react'
import type { ReactNode } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { fileName, saveBlob } from '../../app/engine/exports'
import {
  dialogOpened,
  keyingSet,
  snappingSet,
  stagedFrame,
  stagedShot,
  store,
  useSend,
  useStore,
} from '../../app/store'
import { IconButton } from '../common/Button'
import { sayProblem } from '../common/problem'
import { Tip } from '../common/Tip'
import { Counter } from './Counter'
import { useEngine } from './engine-context'
import { Meter } from './Meter'

function Pill({
  on,
  tip,
  keys,
  onClick,
  children,
}: {
  on?: boolean
  tip: string
  keys: string
  onClick: () => void
  children: ReactNode
}) {
  return (
    <Tip text={tip} keys={keys}>
      <button
        type="button"
        aria-pressed={on}
        onClick={onClick}
        className="rounded-full bg-card px-2.5 py-1 whitespace-nowrap text-quiet hover:bg-raised aria-pressed:text-lime"
      >
        {children}
      </button>
    </Tip>
  )
}

/** Playing and stepping, the counter, and whether changes make keys. */
export function Transport() {
  const send = useSend()
  const engine = useEngine()
  const name = useStore(s => stagedShot(s)?.name)
  const rate = useStore(s => stagedShot(s)?.rate)
  const length = useStore(s => stagedShot(s)?.length)
  const marks = useStore(s => stagedShot(s)?.marks.length)
  const playing = useStore(s => s.view.playing)
  const keying = useStore(s => s.view.keying)
  const snapping = useStore(s => s.view.snapping)
  const take = useStore(s => s.view.take)
  if (!rate || name === undefined || length === undefined) return null
  const button = (id: string, icon: typeof Play) => {
    const { name, keys, run } = commandOf(id)
    return (
      <IconButton
        icon={icon}
        label={name}
        keys={shownKeys(keys)}
        disabled={!engine}
        onClick={() => engine && run(engine)}
      />
    )
  }
  const savePicture = async () => {
    const frame = stagedFrame(store.getState())
    try {
      const png = await engine?.png(frame)
      if (png) saveBlob(png, `${fileName(name)} ${String(frame).padStart(6, '0')}.png`)
    } catch (error) {
      sayProblem(`The frame cannot be saved: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  return (
    <div className="flex h-10 shrink-0 items-center gap-1 border-t border-line bg-panel px-3">
      {button('start', SkipBack)}
      {button('back', ChevronLeft)}
      <Tip text={playing ? 'Stop' : 'Play'} keys="Space">
        <button
          type="button"
          aria-label={playing ? 'Stop' : 'Play'}
          disabled={!engine}
          onClick={() => engine && commandOf('play').run(engine)}
          className="flex h-7 w-11 items-center justify-center rounded-full bg-card text-lime hover:bg-raised"
        >
          {playing ? <Pause size={16} fill="currentColor" /> : <Play size={16} fill="currentColor" />}
        </button>
      </Tip>
      {button('forward', ChevronRight)}
      {button('end', SkipForward)}
      <Counter rate={rate} length={length} />
      <span className="flex-1" />
      <Meter />
      <Pill
        on={snapping}
        tip="What is dragged meets ends, keys, marks and the playhead (hold Ctrl not to)"
        keys={shownKeys(commandOf('snapping').keys)}
        onClick={() => send(snappingSet(!snapping))}
      >
        Snap
      </Pill>
      {!take && (
        <Pill
          tip="A word at this frame"
          keys={shownKeys(commandOf('mark').keys)}
          onClick={() => send(dialogOpened('mark'))}
        >
          Marks {marks}
        </Pill>
      )}
      <Tip text="Changes make keys at the playhead" keys={shownKeys(commandOf('keying').keys)}>
        <button
          type="button"
          aria-pressed={keying}
          onClick={() => send(keyingSet(!keying))}
          className="flex items-center gap-1.5 rounded-full bg-card px-2.5 py-1 text-quiet aria-pressed:text-lime"
        >
          <span className={`size-2 rounded-full ${keying ? 'bg-lime' : 'border border-quiet'}`} />
          <span className="whitespace-nowrap">Keying {keying ? 'on' : 'off'}</span>
        </button>
      </Tip>
      <IconButton icon={ImageDown} label="Save this frame as PNG" disabled={!engine} onClick={savePicture} />
    </div>
  )
}
