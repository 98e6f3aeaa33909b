import { type PointerEvent, useState } from 'react'
import type { Point } from '../../../core/affine'
import type { useDrag } from '../../common/use-drag'

/** Where the pointer is on the surface that it is over, px. */
export function placeOf(event: PointerEvent<Element>): Point {
  const box = event.currentTarget.getBoundingClientRect()
  return { x: event.clientX - box.left, y: event.clientY - box.top }
}

/** The handlers of a drag on a surface, and where over it the pointer is, pressed or not; null: elsewhere. */
export function useOver(drag: ReturnType<typeof useDrag>) {
  const [over, setOver] = useState<Point | null>(null)
  const handlers = {
    ...drag,
    onPointerMove(event: PointerEvent<Element>) {
      setOver(placeOf(event))
      drag.onPointerMove(event)
    },
    onPointerLeave: () => setOver(null),
  }
  return { over, handlers }
}
