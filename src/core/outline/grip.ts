// What lies under the hand: told before it presses, so that a press is never a surprise.
import type { Point } from '../affine'
import { curveCount, curveFrom, nearestOn, pointOn } from './curve'
import type { Breadth, OutlinePoint } from './point'
import { handleOf, type Side } from './reshape'
import { borderOf } from './width'

/** What the next press takes hold of, or where it puts a new point. */
export type Grip =
  | { kind: 'point'; index: number }
  | { kind: 'handle'; index: number; side: Side }
  | { kind: 'border'; index: number; side: 1 | -1; of: Breadth }
  | { kind: 'line'; index: number; t: number }
  | { kind: 'new'; index: number; t: number; at: Point }

/** How near the hand has to come, px of the screen. */
export interface Reach {
  point: number
  line: number
  new: number
}

export const REACH: Reach = { point: 10, line: 7, new: 40 }

/** The nearest place on an outline: which curve, how far along it, how far away. */
function nearestLine(points: readonly OutlinePoint[], at: Point, isOpen: boolean) {
  let best: { index: number; t: number; distance: number } | null = null
  for (let index = 0; index < curveCount(points, isOpen); index++) {
    const { t, distance } = nearestOn(curveFrom(points, index), at)
    if (!best || distance < best.distance) best = { index, t, distance }
  }
  return best
}

/** Where on the outline a new point would come; null where the line is too far. */
export function newAt(points: readonly OutlinePoint[], at: Point, isOpen: boolean, reach = REACH): Grip | null {
  const line = nearestLine(points, at, isOpen)
  if (!line || line.distance > reach.new) return null
  // Never upon a point that is there: half a pixel of the screen would be no new point to anybody.
  const t = Math.max(0.02, Math.min(0.98, line.t))
  return { kind: 'new', index: line.index, t, at: pointOn(curveFrom(points, line.index), t) }
}

type Offer = (x: number, y: number, grip: Grip) => void

function offerBorders(points: readonly OutlinePoint[], index: number, of: Breadth, offer: Offer): void {
  for (const side of [1, -1] as const) {
    const border = borderOf(points, index, side, of)
    if (border) offer(border.x, border.y, { kind: 'border', index, side, of })
  }
}

/** The nearest of what is offered within some px of a place. */
function nearestOf(at: Point, within: number, offers: (offer: Offer) => void): Grip | null {
  let best: Grip | null = null
  let least = within
  offers((x, y, grip) => {
    const distance = Math.hypot(x - at.x, y - at.y)
    if (distance >= least) return
    least = distance
    best = grip
  })
  return best
}

/** What a press takes hold of where softness is set: the borders beside these points, and nothing else. */
export const softGripAt = (
  points: readonly OutlinePoint[],
  at: Point,
  shown: readonly number[],
  reach = REACH,
): Grip | null =>
  nearestOf(at, reach.point, offer => {
    for (const index of shown) offerBorders(points, index, 'soft', offer)
  })

/**
 * What a press takes hold of, all in px of the screen: the nearest point or shown handle, else the line. Of a point and its handle that lie upon
 * each other it is the point. `shown` are the points whose handles are to be seen.
 */
export function gripAt(
  points: readonly OutlinePoint[],
  at: Point,
  shown: readonly number[],
  isOpen: boolean,
  reach = REACH,
): Grip | null {
  const best = nearestOf(at, reach.point, offer => {
    points.forEach((p, index) => {
      offer(p.x, p.y, { kind: 'point', index })
    })
    for (const index of shown) {
      const p = points[index]
      for (const side of ['in', 'out'] as const) {
        const handle = p && handleOf(p, side)
        // One that is drawn in lies under its point.
        if (p && handle && Math.hypot(handle.x, handle.y) > 3)
          offer(p.x + handle.x, p.y + handle.y, { kind: 'handle', index, side })
      }
      offerBorders(points, index, 'width', offer)
    }
  })
  if (best) return best
  const line = nearestLine(points, at, isOpen)
  return line && line.distance <= reach.line ? { kind: 'line', index: line.index, t: line.t } : null
}
