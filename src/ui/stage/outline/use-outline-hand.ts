import { type PointerEvent, useState } from 'react'
import { pointsChosen, useSend } from '../../../app/store'
import type { Point } from '../../../core/affine'
import {
  borderOf,
  type Grip,
  gripAt,
  handleOf,
  moveHandle,
  movePoints,
  newAt,
  type OutlinePoint,
  softGripAt,
  toggleSmooth,
  widenPoints,
} from '../../../core/outline'
import { newId } from '../../../core/shot'
import { type Drag, useDrag } from '../../common/use-drag'
import type { OutlineOnScreen } from './use-outline'
import { placeOf, useOver } from './use-over'

/** What a drag began with. */
interface Held {
  grip: Grip | null
  at: Point
  points: readonly OutlinePoint[]
  chosen: readonly number[]
}

export interface Box {
  from: Point
  to: Point
}

const inBox = ({ x, y }: Point, { from, to }: Box): boolean =>
  x >= Math.min(from.x, to.x) &&
  x <= Math.max(from.x, to.x) &&
  y >= Math.min(from.y, to.y) &&
  y <= Math.max(from.y, to.y)

/** The two ends of the curve that leaves a point. */
const endsOf = (index: number, count: number): number[] => [index, (index + 1) % count]

/** What a hand does with points: it moves them, puts down new ones, or sets how soft the outline is at them; nothing else meanwhile. */
type Mode = 'moving' | 'adding' | 'softening'

/** A hand over an outline: what its next press would do, and what it does. */
export function useOutlineHand(
  outline: OutlineOnScreen,
  chosen: readonly number[],
  mode: Mode,
  onActive: (active: boolean) => void,
) {
  const send = useSend()
  const [box, setBox] = useState<Box | null>(null)
  const [isHeld, setHeld] = useState(false)
  const adding = mode === 'adding'
  const { points: all, isOpen } = outline
  const softening = mode === 'softening' ? (chosen.length > 0 ? chosen : [...all.keys()]) : null
  const gripOf = (at: Point) =>
    adding ? newAt(all, at, isOpen) : softening ? softGripAt(all, at, softening) : gripAt(all, at, chosen, isOpen)

  function take(at: Point, event: PointerEvent<Element>): Held {
    const found = gripOf(at)
    const held = (now: readonly number[]): Held => ({ grip: found, at, points: outline.points, chosen: now })
    const choose = (now: number[]): Held => {
      send(pointsChosen(now))
      return held(now)
    }
    if (found?.kind === 'point') {
      if (event.detail === 2) outline.reshape(toggleSmooth(outline.points, [found.index], outline.isOpen), newId())
      const isChosen = chosen.includes(found.index)
      if (event.shiftKey) return choose(isChosen ? chosen.filter(i => i !== found.index) : [...chosen, found.index])
      return isChosen ? held(chosen) : choose([found.index])
    }
    if (found?.kind === 'border') return held(chosen.includes(found.index) ? chosen : [found.index])
    if (found?.kind === 'line') return choose(endsOf(found.index, outline.points.length))
    if (found?.kind === 'new') {
      outline.add(found.index, found.t, newId())
      return { ...held([]), grip: null }
    }
    if (!found && !event.shiftKey && mode === 'moving') return choose([])
    return held(chosen)
  }

  function move({ grip: held, at, points, chosen: moved }: Held, { dx, dy, gesture, ctrl }: Drag): void {
    if (!held) {
      if (mode === 'moving') setBox({ from: at, to: { x: at.x + dx, y: at.y + dy } })
      return
    }
    if (held.kind === 'border') {
      // As far as the hand has gone away from the line, on both sides of it.
      const [from, p] = [borderOf(points, held.index, held.side, held.of)!, points[held.index]!]
      const far = Math.hypot(from.x - p.x, from.y - p.y)
      const along = ((from.x - p.x) * dx + (from.y - p.y) * dy) / far
      outline.reshape(widenPoints(points, moved, 2 * along, held.of), gesture)
      return
    }
    if (held.kind === 'handle') {
      const from = handleOf(points[held.index]!, held.side)
      outline.reshape(moveHandle(points, held.index, held.side, { x: from.x + dx, y: from.y + dy }, ctrl), gesture)
    } else outline.reshape(movePoints(points, moved, { x: dx, y: dy }), gesture)
  }

  const drag = useDrag<Held>({
    start(event) {
      const from = take(placeOf(event), event)
      setHeld(true)
      if (from.grip) onActive(true)
      return from
    },
    move,
    end({ chosen: before }) {
      setHeld(false)
      onActive(false)
      if (!box) return
      const inside = outline.points.flatMap((p, i) => (inBox(p, box) ? [i] : []))
      send(pointsChosen([...new Set([...before, ...inside])]))
      setBox(null)
    },
  })
  const { over, handlers } = useOver(drag)
  const grip = over && !isHeld ? gripOf(over) : null
  return { grip, box, softening, handlers }
}
