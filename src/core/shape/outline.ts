// A free outline.
import { boundsOf, carryOutlinePoint, mixOutlines, type OutlinePoint } from '../outline'
import type { ShapeKind } from './kind'
import { openSoftRing } from './rings'

/** In px of the picture that is made. */
export interface PlannedOutline {
  kind: 'outline'
  points: OutlinePoint[]
}

/** Where a point and its handles end. */
const endsOf = ({ x, y, inX, inY, outX, outY }: OutlinePoint) => [x, y, x + inX, y + inY, x + outX, y + outY]

export const OUTLINE: ShapeKind<OutlinePoint[], PlannedOutline> = {
  name: 'Outline',
  letter: 'u',
  field: 'points',
  word: 'shape',
  isDrawn: true,
  make: () => [],
  schema: ({ px, feather, maybe, list, record }) =>
    list(record({ x: px, y: px, inX: px, inY: px, outX: px, outY: px, soft: maybe(feather) })),
  mix: mixOutlines,
  taken: points => points.map(({ width: _, ...p }) => p),
  carried: (points, map) => points.map(p => carryOutlinePoint(map, p)),
  plan: (points, to) => ({ kind: 'outline', points: points.map(p => carryOutlinePoint(to, p)) }),
  cost: points => points.length / 100,
  travel: (from, to) =>
    from.points.reduce((far, p, i) => {
      const q = to.points[i]
      return q ? Math.max(far, Math.hypot(q.x - p.x, q.y - p.y)) : far
    }, 0),
  extent({ points }, grow) {
    // No curve reaches farther than the ends of its handles.
    const bounds = boundsOf(Float64Array.from(points.flatMap(endsOf)))
    return bounds ? Math.max(bounds.right - bounds.left, bounds.bottom - bounds.top) / 2 + Math.max(0, grow) : 0
  },
  open: (k, planned, feather, { size }) =>
    openSoftRing(k, planned.points, feather, OUTLINE.extent(planned, feather.grow), size),
}
