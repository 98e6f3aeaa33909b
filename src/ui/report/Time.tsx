// A take in time: its film with the stretches that are worth something marked on it, its curves under that, and the frame that is pointed at.
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react'
import type { TakeReport } from '../../app/engine/reports'
import type { Finding } from '../../core/plate'
import type { Take } from '../../core/shot'
import { Strip } from '../takes/Strip'
import { Curves } from './Curves'

const FILM = 40
const LABELS = 118

interface Props {
  take: Take
  report: TakeReport
  frame: number | null
  onPoint: (frame: number) => void
}

function StretchWord({
  finding: { from, to, word, isFault },
  count,
  width,
}: {
  finding: Finding
  count: number
  width: number
}) {
  const left = (from / count) * width
  const wide = Math.max(2, ((to + 1 - from) / count) * width)
  return (
    <span
      className={`absolute top-0 h-full border-l-2 ${isFault ? 'border-warn' : 'border-ghost'}`}
      style={{ left, width: wide }}
    >
      <span
        className={`absolute -top-[17px] left-0 rounded-t bg-ground px-1 text-xs leading-4 whitespace-nowrap ${isFault ? 'text-warn' : 'text-ghost'}`}
      >
        {isFault && '◆ '}
        {word}
      </span>
    </span>
  )
}

export function Time({ take, report, frame, onPoint }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  useEffect(() => {
    const element = host.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(element.clientWidth - LABELS))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const { seen, of } = report
  const count = Math.max(1, of)
  const last = Math.max(0, seen.length - 1)
  const point = (event: PointerEvent) => {
    const x = event.clientX - host.current!.getBoundingClientRect().left - LABELS
    if (x >= 0) onPoint(Math.max(0, Math.min(last, Math.floor((x / width) * count))))
  }
  const step = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, PageDown: 10, PageUp: -10 }[event.key]
    if (!by) return
    event.preventDefault()
    onPoint(Math.max(0, Math.min(last, (frame ?? 0) + by)))
  }
  return (
    <div
      ref={host}
      role="slider"
      tabIndex={0}
      aria-label={`Frames of ${take.name}`}
      aria-valuemin={0}
      aria-valuemax={last}
      aria-valuenow={frame ?? 0}
      aria-valuetext={`frame ${(frame ?? 0) + 1}`}
      className="relative mt-2 cursor-crosshair pt-[18px]"
      onPointerMove={point}
      onPointerDown={point}
      onKeyDown={step}
    >
      <div className="relative" style={{ marginLeft: LABELS, height: FILM }}>
        {width > 0 && <Strip take={take} height={FILM} />}
        {report.findings
          .filter(f => f.word !== '')
          .map(finding => (
            <StretchWord key={`${finding.about} ${finding.from}`} finding={finding} count={count} width={width} />
          ))}
      </div>
      {width > 0 && <Curves seen={seen} count={count} width={width} />}
      {frame !== null && (
        <span
          className="pointer-events-none absolute inset-y-0 w-px bg-lime"
          style={{ left: LABELS + ((frame + 0.5) / count) * width }}
        />
      )}
    </div>
  )
}
