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

/** What a letter of a word takes, and what lies about it, px. */
const LETTER = 6.3
const ABOUT = 10

const isWord = ({ word }: Finding): boolean => word !== ''
const written = ({ word, isFault }: Finding): string => (isFault ? `◆ ${word}` : word)

/** Where the words of stretches begin, px: of what has to be looked at before others, and of none that would cover another. */
function placedWords(findings: readonly Finding[], count: number, width: number): Map<Finding, number> {
  const places = new Map<Finding, { left: number; right: number }>()
  for (const finding of [...findings].sort((a, b) => Number(b.isFault) - Number(a.isFault))) {
    const wide = written(finding).length * LETTER + ABOUT
    const left = Math.max(0, Math.min((finding.from / count) * width, width - wide))
    const right = left + wide
    if ([...places.values()].every(p => right <= p.left || left >= p.right)) places.set(finding, { left, right })
  }
  return new Map([...places].map(([finding, { left }]) => [finding, left]))
}

interface StretchProps {
  finding: Finding
  count: number
  width: number
  /** Where its word stands, px; none where there is no room for it. */
  at: number | undefined
}

function StretchWord({ finding, count, width, at }: StretchProps) {
  const { from, to, isFault } = finding
  const left = (from / count) * width
  const wide = Math.max(2, ((to + 1 - from) / count) * width)
  return (
    <span
      className={`absolute top-0 h-full border-l-2 ${isFault ? 'border-warn' : 'border-ghost'}`}
      style={{ left, width: wide }}
    >
      {at !== undefined && (
        <span
          className={`absolute -top-[17px] rounded-t bg-ground px-1 text-xs leading-4 whitespace-nowrap ${isFault ? 'text-warn' : 'text-ghost'}`}
          style={{ left: at - left }}
        >
          {written(finding)}
        </span>
      )}
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
  const worded = report.findings.filter(isWord)
  const places = placedWords(worded, count, width)
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
        {worded.map(finding => (
          <StretchWord
            key={`${finding.about} ${finding.from}`}
            finding={finding}
            count={count}
            width={width}
            at={places.get(finding)}
          />
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
