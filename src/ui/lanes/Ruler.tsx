import { memo, type PointerEvent } from 'react'
import { dialogOpened, edit, editIn, stagedFrame, stagedShot, useSend, useStore } from '../../app/store'
import { rulerStep } from '../../app/time-scale'
import type { Mark } from '../../core/shot'
import { counter, fps } from '../../core/time'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { useLanes } from './lanes-context'

/** Marks of time as far as they are in view. */
const Scale = memo(function Scale() {
  const { scale } = useLanes()
  const shot = useStore(stagedShot)
  if (!shot) return null
  const perSecond = fps(shot.rate)
  const step = rulerStep(scale.perFrame, perSecond)
  const first = Math.max(0, Math.floor(scale.left / step))
  const last = Math.min(Math.ceil(shot.length / step), Math.ceil(scale.frame(scale.width) / step))
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
    const frame = Math.round((first + i) * step)
    const seconds = frame / perSecond
    const fine = step < Math.round(perSecond)
    const text = fine
      ? counter(frame, shot.rate)
      : seconds >= 60
        ? `${Math.floor(seconds / 60)}m ${Math.round(seconds % 60)}s`
        : `${Math.round(seconds)}s`
    return (
      <span
        key={frame}
        className="pointer-events-none absolute top-0 h-6 border-l border-line pl-1.5 text-xs leading-6 text-quiet"
        style={{ left: scale.x(frame) }}
      >
        {text}
      </span>
    )
  })
})

function MarkFlag({ mark, marks }: { mark: Mark; marks: readonly Mark[] }) {
  const send = useSend()
  const engine = useEngine()
  const { scale } = useLanes()
  const readOnly = useStore(s => s.view.readOnly)
  const drag = useDrag<{ frame: number; marks: readonly Mark[] }>({
    start: () => (readOnly ? null : { frame: mark.frame, marks }),
    move: (from, { dx, gesture }) =>
      send(editIn(gesture, 'slideMark', from.frame, from.frame + Math.round(dx / scale.perFrame), from.marks)),
    end: (from, moved) => {
      if (!moved) engine?.goTo(from.frame)
    },
  })
  return (
    <button
      type="button"
      data-mark={mark.frame}
      aria-label={`Mark ${mark.text || 'without a word'} at frame ${mark.frame + 1}`}
      title="Drag to move, double-click to change, Delete takes it away"
      className="absolute top-0.5 z-10 flex h-5 max-w-40 touch-none items-center rounded-r-full border-l-2 border-lime bg-raised pr-2.5 pl-1.5 text-xs whitespace-nowrap text-lime"
      style={{ left: scale.x(mark.frame) }}
      onDoubleClick={() => {
        engine?.goTo(mark.frame)
        send(dialogOpened('mark'))
      }}
      onKeyDown={event => {
        if (event.key !== 'Delete' && event.key !== 'Backspace') return
        event.stopPropagation()
        send(edit('dropMark', mark.frame))
      }}
      {...drag}
    >
      <span className="truncate">{mark.text || '·'}</span>
    </button>
  )
}

/** Time along the top, with the marks on it; a press or a drag moves the playhead. */
export function Ruler() {
  const engine = useEngine()
  const { scale } = useLanes()
  const shot = useStore(stagedShot)
  const frame = useStore(stagedFrame)
  if (!shot) return null
  const seek = (event: PointerEvent<HTMLElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left
    engine?.goTo(Math.floor(scale.frame(event.clientX - left) + 1e-6))
  }
  return (
    <>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Playhead"
        aria-valuemin={1}
        aria-valuemax={shot.length}
        aria-valuenow={frame + 1}
        data-testid="ruler"
        className="absolute inset-0 cursor-pointer touch-none overflow-hidden focus-visible:-outline-offset-2"
        onPointerDown={event => {
          if (event.button !== 0) return
          event.currentTarget.setPointerCapture(event.pointerId)
          seek(event)
        }}
        onPointerMove={event => event.buttons & 1 && seek(event)}
      >
        <Scale />
      </div>
      {shot.marks
        .filter(m => scale.x(m.frame) > -60 && scale.x(m.frame) < scale.width)
        .map(mark => (
          <MarkFlag key={mark.frame} mark={mark} marks={shot.marks} />
        ))}
    </>
  )
}
