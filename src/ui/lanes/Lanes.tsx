import { type PointerEvent, useEffect, useRef, useState } from 'react'
import { shotOf, useStore } from '../../app/store'
import { fps } from '../../core/time'
import { Ghost } from '../common/Ghost'
import { useEngine } from '../stage/engine-context'
import { Lane } from './Lane'
import { rulerStep, type TimeScale, timeScale } from './time-scale'

function Ruler({ length, framesPerSecond, scale }: { length: number; framesPerSecond: number; scale: TimeScale }) {
  const step = rulerStep(scale.perFrame, framesPerSecond)
  const marks = Array.from({ length: Math.floor(length / framesPerSecond / step) + 1 }, (_, i) => i * step)
  return marks.map(s => (
    <span
      key={s}
      className="absolute top-0 h-6 border-l border-line pl-1.5 text-xs leading-6 text-quiet"
      style={{ left: scale.x(s * framesPerSecond) }}
    >
      {s >= 60 ? `${Math.floor(s / 60)}m ${s % 60}s` : `${s}s`}
    </span>
  ))
}

/** One lane a layer, in the same order as the stack, under a ruler that moves the playhead. */
export function Lanes() {
  const engine = useEngine()
  const shot = useStore(shotOf)
  const frame = useStore(s => s.view.frame)
  const host = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(900)
  useEffect(() => {
    const element = host.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(element.clientWidth))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  if (!shot) return null
  const scale = timeScale(shot.length, width)
  const seek = (event: PointerEvent<HTMLElement>) => {
    const left = host.current?.getBoundingClientRect().left ?? 0
    engine?.goTo(Math.floor(scale.frame(event.clientX - left) + 1e-6))
  }
  return (
    <section aria-label="Lanes" className="flex h-full min-h-0 flex-col bg-ground">
      <div ref={host} className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        <div
          role="slider"
          tabIndex={0}
          aria-label="Playhead"
          aria-valuemin={1}
          aria-valuemax={shot.length}
          aria-valuenow={frame + 1}
          data-testid="ruler"
          className="sticky top-0 z-10 h-6 cursor-pointer touch-none border-b border-line bg-ground"
          onPointerDown={event => {
            if (event.button !== 0) return
            event.currentTarget.setPointerCapture(event.pointerId)
            seek(event)
          }}
          onPointerMove={event => event.buttons & 1 && seek(event)}
        >
          <Ruler length={shot.length} framesPerSecond={fps(shot.rate)} scale={scale} />
        </div>
        <ol className="flex flex-col gap-1 py-1.5">
          {shot.layers.map(layer => (
            <Lane key={layer.id} layer={layer} scale={scale} />
          ))}
        </ol>
        <div
          className="pointer-events-none absolute inset-y-0 z-20 w-px bg-lime"
          style={{ left: scale.x(frame) }}
          data-testid="playhead"
        >
          <Ghost size={16} className="absolute -top-0.5 -left-[7.5px] text-lime" />
        </div>
      </div>
    </section>
  )
}
