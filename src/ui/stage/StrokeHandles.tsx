// Strokes that keep and lose, painted on the picture of a take that is cut out. What is kept has a whole line, what is lost one of dashes with bars across its ends.
import { type PointerEvent, useRef, useState } from 'react'
import { paintedMoment } from '../../app/painted-moment'
import { edit, projectOf, shotOf, useSend, useStore } from '../../app/store'
import { carry, inverse, scaleOf } from '../../core/affine'
import type { Cut } from '../../core/plate/recipe'
import { isOn, type Stroke } from '../../core/plate/strokes'
import { shapeAt } from '../../core/shape'
import type { Point } from '../../core/shot'
import { pieceMap, round } from './piece-space'
import type { HandlesProps } from './shape-views'

/** px of the screen between two points of a stroke. */
const STEP = 4

const pathOf = (points: readonly Point[]): string => points.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x} ${y}`).join('')

/** A bar across a line's end. */
function barAt(at: Point, from: Point, half: number): string {
  const far = Math.hypot(at.x - from.x, at.y - from.y) || 1
  const [nx, ny] = [(-(at.y - from.y) / far) * half, ((at.x - from.x) / far) * half]
  return `M${at.x - nx} ${at.y - ny}L${at.x + nx} ${at.y + ny}`
}

function StrokeLine({
  does,
  points,
  wide,
  isFaint,
}: {
  does: Stroke['does']
  points: readonly Point[]
  wide: number
  isFaint: boolean
}) {
  const [first, last] = [points[0]!, points.at(-1)!]
  const line = points.length > 1 ? points : [first, { x: first.x + 0.1, y: first.y }]
  const bars = does === 'lose' ? barAt(first, line[1]!, 7) + barAt(last, line.at(-2)!, 7) : ''
  const dashes = does === 'lose' ? '5 5' : undefined
  return (
    <g opacity={isFaint ? 0.35 : 1} fill="none" strokeLinecap="round" strokeLinejoin="round">
      <path d={pathOf(line)} stroke="#fff" strokeOpacity={0.16} strokeWidth={wide * 2} />
      <path d={pathOf(line) + bars} stroke="#000" strokeOpacity={0.6} strokeWidth={4} />
      <path d={pathOf(line)} stroke="#a9ecd9" strokeWidth={2} strokeDasharray={dashes} />
      {bars && <path d={bars} stroke="#a9ecd9" strokeWidth={2} />}
    </g>
  )
}

export function StrokeHandles({ layer, piece, frame, camera, onActive }: HandlesProps) {
  const send = useSend()
  const brush = useStore(s => s.brush)
  const rate = useStore(s => shotOf(s)?.rate)
  const takes = useStore(s => projectOf(s)?.takes)
  const readOnly = useStore(s => s.view.readOnly)
  const [pointer, setPointer] = useState<Point | null>(null)
  const [drawn, setDrawn] = useState<Point[]>([])
  const drawing = useRef<Point[] | null>(null)
  if (!rate) return null
  const cut = shapeAt(piece.shape, frame) as Cut
  const map = pieceMap(layer, piece, frame, camera)
  const moment = paintedMoment(layer, frame, rate, takes ?? [])
  const wide = (size: number) => size * scaleOf(map)
  const place = (event: PointerEvent): Point => {
    const area = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
    return { x: event.clientX - area.left, y: event.clientY - area.top }
  }
  const begin = (event: PointerEvent) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    drawing.current = [place(event)]
    setDrawn(drawing.current)
    onActive(true)
  }
  const move = (event: PointerEvent) => {
    const at = place(event)
    setPointer(at)
    const points = drawing.current
    if (!points) return
    const last = points.at(-1)!
    if (Math.hypot(at.x - last.x, at.y - last.y) < STEP) return
    drawing.current = [...points, at]
    setDrawn(drawing.current)
  }
  const end = () => {
    const points = drawing.current
    drawing.current = null
    setDrawn([])
    onActive(false)
    if (!points || !brush.does) return
    const back = inverse(map)
    const stroke: Stroke = {
      at: moment,
      does: brush.does,
      size: brush.size,
      points: points.map(p => carry(back, p)).map(({ x, y }) => ({ x: round(x), y: round(y) })),
    }
    // Strokes have a time of their own: they are the same at every frame of the shot.
    const next = { ...cut, strokes: [...(cut.strokes ?? []), stroke] }
    send(edit('setValue', layer.id, { of: 'shape', piece: piece.id }, frame, next))
  }
  const shown = (cut.settled ? [] : (cut.strokes ?? [])).filter(s => Math.abs(s.at - moment) < 1)
  return (
    <>
      {shown.map((stroke, i) => (
        <StrokeLine
          // biome-ignore lint/suspicious/noArrayIndexKey: strokes have no names, and are only ever added behind the others
          key={i}
          does={stroke.does}
          points={stroke.points.map(p => carry(map, p))}
          wide={wide(stroke.size)}
          isFaint={!isOn(stroke, moment)}
        />
      ))}
      {brush.does && !readOnly && !cut.settled && (
        <>
          <rect
            data-testid="paint"
            width="100%"
            height="100%"
            fill="transparent"
            style={{ pointerEvents: 'all', cursor: 'none' }}
            onPointerDown={begin}
            onPointerMove={move}
            onPointerUp={end}
            onPointerCancel={end}
            onPointerLeave={() => setPointer(null)}
          />
          {drawn.length > 0 && <StrokeLine does={brush.does} points={drawn} wide={wide(brush.size)} isFaint={false} />}
          {pointer && (
            <g className="pointer-events-none" fill="none" transform={`translate(${pointer.x} ${pointer.y})`}>
              <circle r={wide(brush.size)} stroke="#000" strokeOpacity={0.6} strokeWidth={3} />
              <circle
                r={wide(brush.size)}
                stroke="#a9ecd9"
                strokeWidth={1.5}
                strokeDasharray={brush.does === 'lose' ? '4 4' : undefined}
              />
              <path d={brush.does === 'keep' ? 'M-4 0H4M0 -4V4' : 'M-4 0H4'} stroke="#a9ecd9" strokeWidth={1.5} />
            </g>
          )}
        </>
      )}
    </>
  )
}
