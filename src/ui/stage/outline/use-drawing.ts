import { useEffect, useRef } from 'react'
import { drawingSet, edit, useSend } from '../../../app/store'
import type { Point } from '../../../core/affine'
import { corner, fitPoints, type OutlinePoint } from '../../../core/outline'
import { type Layer, newId, type Piece } from '../../../core/shot'
import { type Drag, useDrag } from '../../common/use-drag'
import type { OutlineOnScreen } from './use-outline'
import { placeOf, useOver } from './use-over'

/** px of the screen within which the first point closes the outline. */
const CLOSE = 10
/** px of the screen that a strip is wide at first. */
const WIDE = 12
/** px of the screen that a line drawn freely may be off. */
const FREE = 2.5
/** Points of an outline that has an area, and of a line. */
const LEAST = { closed: 3, open: 2 }

/** Putting down the points of a new outline, one after the other: a press makes a corner, a drag a curve. */
export function useDrawing(outline: OutlineOnScreen, layer: Layer, piece: Piece, isDrawing: boolean) {
  const send = useSend()
  const { points, isOpen } = outline
  const least = LEAST[isOpen ? 'open' : 'closed']
  const first = points[0]
  const width = points.at(-1)?.width ?? WIDE
  const fresh = (at: Point): OutlinePoint => (isOpen ? { ...corner(at), width } : corner(at))
  const closes = (at: Point | null): boolean =>
    !isOpen &&
    at !== null &&
    first !== undefined &&
    points.length >= least &&
    Math.hypot(at.x - first.x, at.y - first.y) < CLOSE
  const isWhole = points.length >= least

  const pressing = useRef(false)
  const takeBack = useRef(() => {})
  takeBack.current = () => {
    if (points.length > 0) outline.draw(points.slice(0, -1), newId())
  }

  useEffect(() => {
    if (!isDrawing) return
    const down = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement).closest('input, textarea, [role=dialog], [role=menu]')) return
      // In the middle of a press only that is taken back.
      if (pressing.current) return
      const done = event.key === 'Enter' || event.key === 'Escape'
      if (!done && event.key !== 'Backspace') return
      event.preventDefault()
      event.stopPropagation()
      if (!done) takeBack.current()
      else {
        send(drawingSet(false))
        if (!isWhole) send(edit('removePiece', layer.id, piece.id))
      }
    }
    addEventListener('keydown', down, true)
    return () => removeEventListener('keydown', down, true)
  }, [send, isDrawing, isWhole, layer.id, piece.id])

  // What the hand has gone through since it was pressed with Shift held.
  const hand = useRef<Point[] | null>(null)
  const drag = useDrag<OutlinePoint[]>({
    start(event) {
      const at = placeOf(event)
      // The second press of two has put its point down already.
      if (closes(at) || (event.detail === 2 && isWhole)) {
        send(drawingSet(false))
        return null
      }
      pressing.current = true
      hand.current = event.shiftKey ? [at] : null
      return [...points, fresh(at)]
    },
    move(drawn, { dx, dy, gesture }: Drag) {
      const last = drawn.at(-1)!
      if (hand.current) {
        hand.current.push({ x: last.x + dx, y: last.y + dy })
        outline.draw(
          [...drawn.slice(0, -1), ...fitPoints(hand.current, FREE).map(p => (isOpen ? { ...p, width } : p))],
          gesture,
        )
        return
      }
      outline.draw([...drawn.slice(0, -1), { ...last, inX: -dx, inY: -dy, outX: dx, outY: dy }], gesture)
    },
    end(drawn, moved) {
      pressing.current = false
      if (!moved) outline.draw(drawn, newId())
    },
  })
  const { over, handlers } = useOver(drag)
  return { over, closes: closes(over), handlers }
}
