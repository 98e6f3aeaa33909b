// Waits for a press on what something is to ride on.
import { type PointerEvent, useEffect, useState } from 'react'
import { rideOn } from '../../app/commands/ride'
import { aimSet, type Camera, useSend, useStore } from '../../app/store'
import { carry, inverse, type Point } from '../../core/affine'
import { useEngine } from './engine-context'
import { onScreen } from './piece-space'

/** px of the screen to the sides of what is pressed on that are looked at, about. */
const REACH = 10

export function Aim({ camera }: { camera: Camera }) {
  const send = useSend()
  const engine = useEngine()
  const aim = useStore(s => s.aim)
  const frame = useStore(s => s.view.frame)
  const [pointer, setPointer] = useState<Point | null>(null)
  useEffect(() => {
    if (!aim) return
    const leave = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return
      event.stopPropagation()
      send(aimSet(null))
    }
    addEventListener('keydown', leave, true)
    return () => removeEventListener('keydown', leave, true)
  }, [aim, send])
  // biome-ignore lint/correctness/useExhaustiveDependencies: whoever goes to another frame aims there
  useEffect(() => setPointer(null), [frame])
  if (!aim || !engine) return null
  const place = (event: PointerEvent): Point => {
    const area = event.currentTarget.getBoundingClientRect()
    return { x: event.clientX - area.left, y: event.clientY - area.top }
  }
  const half = Math.max(5, REACH * camera.zoom)
  return (
    <>
      <svg
        className="absolute inset-0 size-full cursor-none"
        data-testid="aim"
        role="img"
        aria-label="The picture, to be pressed on"
        onPointerMove={event => setPointer(place(event))}
        onPointerLeave={() => setPointer(null)}
        onPointerDown={event => {
          if (event.button !== 0) return
          event.stopPropagation()
          rideOn(engine, carry(inverse(onScreen(camera)), place(event)))
        }}
      >
        {pointer && (
          <g transform={`translate(${pointer.x} ${pointer.y})`} fill="none">
            <rect
              x={-half}
              y={-half}
              width={2 * half}
              height={2 * half}
              stroke="#000"
              strokeOpacity={0.6}
              strokeWidth={3}
            />
            <rect x={-half} y={-half} width={2 * half} height={2 * half} stroke="#a9ecd9" strokeWidth={1.5} />
            <path d="M-4 0H4M0 -4V4" stroke="#a9ecd9" strokeWidth={1.5} />
          </g>
        )}
      </svg>
      <p
        className="pointer-events-none absolute top-3 left-1/2 -translate-x-1/2 rounded-full bg-ground px-3 py-1"
        role="status"
      >
        Press on what it is to ride on: a corner, or a spot. Esc leaves.
      </p>
    </>
  )
}
