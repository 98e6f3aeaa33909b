import { memo } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { besideSet, type Camera, cameraMoved, goingAlongSet, useSend, useStore, viewChosen } from '../../app/store'
import { BESIDES, type Beside, VIEWS, type View } from '../../core/plan'
import type { Size } from '../../core/shot'
import { Tip } from '../common/Tip'
import { actualPixels } from './camera'

const NAMES: Record<View, [name: string, tip: string]> = {
  picture: ['Picture', 'The finished picture'],
  matte: ['Matte', 'What is kept of the chosen layer, in white'],
  tint: ['Tint', 'The chosen layer, tinted where it is taken away'],
  'cut-out': ['Cut-out', 'The chosen layer alone'],
  uncut: ['Uncut', 'The picture with the chosen layer whole'],
}

const REST: Record<Beside, string> = { plain: 'over the rest', dimmed: 'rest dimmed', through: 'seen through' }

const pill = 'rounded-full px-2.5 py-1 whitespace-nowrap hover:bg-raised aria-pressed:bg-raised aria-pressed:text-ink'

interface Props {
  camera: Camera
  well: Size
}

/** The camera is made anew at each change of the shot: what counts is where it stands. */
const sameView = (a: Props, b: Props): boolean =>
  a.well === b.well && a.camera.zoom === b.camera.zoom && a.camera.x === b.camera.x && a.camera.y === b.camera.y

/** Ways of looking, and how large. */
export const Views = memo(function Views({ camera, well }: Props) {
  const send = useSend()
  const view = useStore(s => s.view.view)
  const beside = useStore(s => s.view.beside)
  const fits = useStore(s => s.view.camera === null)
  const hasPiece = useStore(s => s.view.piece !== null)
  const goesAlong = useStore(s => s.view.goesAlong)
  return (
    <div
      role="toolbar"
      aria-label="Views"
      className="absolute bottom-3 left-1/2 flex -translate-x-1/2 items-center gap-0.5 rounded-full bg-panel p-1 text-quiet shadow-lg shadow-black/40"
    >
      {VIEWS.map(v => (
        <Tip key={v} text={NAMES[v][1]}>
          <button type="button" aria-pressed={view === v} className={pill} onClick={() => send(viewChosen(v))}>
            {NAMES[v][0]}
          </button>
        </Tip>
      ))}
      {view === 'uncut' && (
        <Tip text="How the rest is shown" keys={shownKeys(commandOf('beside').keys)}>
          <button
            type="button"
            className={`${pill} text-ghost`}
            onClick={() => send(besideSet(BESIDES[(BESIDES.indexOf(beside) + 1) % BESIDES.length]!))}
          >
            {REST[beside]}
          </button>
        </Tip>
      )}
      <span className="mx-1 h-4 w-px bg-line" />
      <output className="w-11 text-center" aria-label="Zoom">
        {Math.round(camera.zoom * 100)}%
      </output>
      <button type="button" aria-pressed={fits} className={pill} onClick={() => send(cameraMoved(null))}>
        Fit
      </button>
      <button
        type="button"
        aria-pressed={camera.zoom === 1}
        className={pill}
        onClick={() => send(cameraMoved(actualPixels(camera, well)))}
      >
        1:1
      </button>
      {hasPiece && !fits && (
        <Tip
          text="The picture moves with the chosen piece from frame to frame"
          keys={shownKeys(commandOf('go-along').keys)}
        >
          <button
            type="button"
            aria-pressed={goesAlong}
            className={pill}
            onClick={() => send(goingAlongSet(!goesAlong))}
          >
            Go along
          </button>
        </Tip>
      )}
    </div>
  )
}, sameView)
