import { type PointerEvent, useEffect, useRef } from 'react'
import { gestureLeft, store } from '../../app/store'
import { newId } from '../../core/shot'

export interface Drag {
  /** Names the gesture: all edits that carry it are one step of the history. */
  gesture: string
  /** From where it began, in screen px. */
  dx: number
  dy: number
  /** Where the pointer is, in client px. */
  x: number
  y: number
  shift: boolean
  /** Ctrl or the command key. */
  ctrl: boolean
}

interface Handlers<T> {
  /** What the drag starts from, or null for no drag. */
  start: (event: PointerEvent) => T | null
  move: (from: T, drag: Drag) => void
  /** `moved` is false for a press that was no drag. */
  end?: (from: T, moved: boolean) => void
}

/** Pointer handlers of something that can be dragged with the main button. A press without movement is no drag; Escape takes one back. */
export function useDrag<T>({ start, move, end }: Handlers<T>) {
  const active = useRef<{ from: T; x: number; y: number; gesture: string; moved: boolean } | null>(null)
  const latest = useRef(end)
  latest.current = end
  const leave = useRef((event: KeyboardEvent) => {
    const a = active.current
    if (event.key !== 'Escape' || !a) return
    event.preventDefault()
    event.stopPropagation()
    letGo()
    // What is still on its way is let arrive first, so that all of it can be taken back.
    latest.current?.(a.from, true)
    store.dispatch(gestureLeft(a.gesture))
  })
  const letGo = () => {
    active.current = null
    removeEventListener('keydown', leave.current, true)
  }
  useEffect(() => () => removeEventListener('keydown', leave.current, true), [])
  return {
    onPointerDown(event: PointerEvent<Element>) {
      if (event.button !== 0) return
      const from = start(event)
      if (from === null) return
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      active.current = { from, x: event.clientX, y: event.clientY, gesture: newId(), moved: false }
      addEventListener('keydown', leave.current, true)
    },
    onPointerMove(event: PointerEvent<Element>) {
      const a = active.current
      if (!a) return
      const dx = event.clientX - a.x
      const dy = event.clientY - a.y
      if (!a.moved && Math.hypot(dx, dy) < 2) return
      a.moved = true
      const { clientX: x, clientY: y, shiftKey: shift } = event
      move(a.from, { gesture: a.gesture, dx, dy, x, y, shift, ctrl: event.ctrlKey || event.metaKey })
    },
    onPointerUp() {
      const a = active.current
      letGo()
      if (a) end?.(a.from, a.moved)
    },
    onPointerCancel() {
      const a = active.current
      letGo()
      if (a) end?.(a.from, true)
    },
  }
}
