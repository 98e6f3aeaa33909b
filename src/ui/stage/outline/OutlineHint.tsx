import { keyingSet, lineColourSet, reachSet, useSend, useStore } from '../../../app/store'
import { keysOf } from '../../../core/keys'
import { SHAPES, shapeValue } from '../../../core/shape'
import type { Piece } from '../../../core/shot'
import { LINE_COLOURS } from './line-colour'

/** By the picture, or one of those that there are. */
const LINE_CHOICES: readonly (string | null)[] = [null, ...LINE_COLOURS]

const KeyCap = ({ children }: { children: string }) => (
  <kbd className="rounded bg-raised px-1.5 py-px text-ink">{children}</kbd>
)

/** px that an outline may lean at most. */
const FARTHEST = 60

/** What the hand can do next, near where it is; and what a change will do to the keys. */
export function OutlineHint({ piece }: { piece: Piece }) {
  const send = useSend()
  const isDrawing = useStore(s => s.view.drawing)
  const keying = useStore(s => s.view.keying)
  const frame = useStore(s => s.view.frame)
  const several = useStore(s => s.view.points.length > 1)
  const reach = useStore(s => s.view.reach)
  const lineColour = useStore(s => s.view.lineColour)
  const keys = keysOf(shapeValue(piece.shape))
  const changes = keying
    ? keys.some(k => k.frame === frame)
      ? 'Changes go to the key here'
      : 'A change makes a key here'
    : keys.length > 0
      ? 'A change shifts all keys'
      : 'No keys'
  return (
    <div className="pointer-events-none absolute top-1 left-1/2 flex -translate-x-1/2 items-center gap-2 rounded-full bg-panel/90 px-3 py-1 text-xs whitespace-nowrap text-quiet">
      {isDrawing ? (
        <>
          Press for a corner, drag for a curve, with <KeyCap>Shift</KeyCap> freely <KeyCap>Enter</KeyCap>{' '}
          {SHAPES[piece.shape.kind].isOpen ? 'ends it' : 'or the first point closes it'} <KeyCap>Backspace</KeyCap>{' '}
          takes one back
        </>
      ) : (
        <>
          <button
            type="button"
            aria-pressed={keying}
            className="pointer-events-auto rounded-full px-1.5 py-0.5 hover:text-ink aria-pressed:text-lime"
            onClick={() => send(keyingSet(!keying))}
          >
            {changes}
          </button>
          {several && (
            <label className="pointer-events-auto flex items-center gap-1">
              <KeyCap>E</KeyCap> leans on edges within
              <input
                aria-label="How far it may reach, px"
                inputMode="numeric"
                className="w-8 rounded bg-ground px-1 text-right text-ink"
                value={reach}
                onChange={event => {
                  const px = Number.parseInt(event.target.value, 10)
                  send(reachSet(Math.max(1, Math.min(FARTHEST, Number.isFinite(px) ? px : 1))))
                }}
                onKeyDown={event => event.key === 'Enter' && event.currentTarget.blur()}
              />
              px
            </label>
          )}
          {keys.length > 1 && (
            <>
              <KeyCap>G</KeyCap> worst frame
            </>
          )}
          {!several && (
            <>
              <KeyCap>Q</KeyCap> all points
            </>
          )}
          <span>·</span> held:{' '}
          {!several && (
            <>
              <KeyCap>A</KeyCap> new points
            </>
          )}
          {!SHAPES[piece.shape.kind].isOpen && (
            <>
              <KeyCap>D</KeyCap> softness
            </>
          )}
          <KeyCap>X</KeyCap> picture alone
          <button
            type="button"
            aria-label={`Colour of the line: ${lineColour ?? 'by the picture'}`}
            title="Colour of the line"
            className="pointer-events-auto flex size-5 items-center justify-center rounded-full border border-line text-[9px]"
            style={lineColour ? { background: lineColour } : undefined}
            onClick={() =>
              send(lineColourSet(LINE_CHOICES[(LINE_CHOICES.indexOf(lineColour) + 1) % LINE_CHOICES.length]!))
            }
          >
            {lineColour ? '' : 'A'}
          </button>
        </>
      )}
    </div>
  )
}
