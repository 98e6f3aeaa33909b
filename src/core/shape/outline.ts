// A free outline.
import { boundsOf, carryOutlinePoint, flatten, mixOutlines, type OutlinePoint } from '../outline'
import type { Kernels } from '../render/kernels'
import type { Coverage, Feather, ShapeKind } from './kind'

/** In px of the picture that is made. */
export interface PlannedOutline {
  kind: 'outline'
  points: OutlinePoint[]
}

/** px that chords may miss the curve by: half a hundredth of coverage, where the border is hard; as much where it is soft. */
const FINE = 0.005
const COARSE = 0.05

const NOTHING: Coverage = { top: 0, bottom: 0, row() {} }

/** Where a point and its handles end. */
const endsOf = ({ x, y, inX, inY, outX, outY }: OutlinePoint) => [x, y, x + inX, y + inY, x + outX, y + outY]

/** Numbers of a chord as the kernels read it. */
const CHORD = 5

/** Chords told from (left, top). */
function writeChords(ends: Float64Array, left: number, top: number, out: Float64Array): void {
  for (let i = 0; i < ends.length; i += 2) {
    const j = i + 2 < ends.length ? i + 2 : 0
    const [x, y] = [ends[i]! - left, ends[i + 1]! - top]
    const [dx, dy] = [ends[j]! - left - x, ends[j + 1]! - top - y]
    const length = dx * dx + dy * dy
    out.set([x, y, dx, dy, length > 0 ? 1 / length : 0], (i / 2) * CHORD)
  }
}

function openOutline(k: Kernels, ends: Float64Array, feather: Feather, frame: { width: number; height: number }) {
  const { grow, inside, outside } = feather
  const bounds = boundsOf(ends)
  const reach = Math.max(0, grow) + outside + 1
  const left = bounds && Math.max(0, Math.floor(bounds.left - reach))
  const top = bounds && Math.max(0, Math.floor(bounds.top - reach))
  if (bounds === null || left === null || top === null) return NOTHING
  const width = Math.min(frame.width, Math.ceil(bounds.right + reach)) - left
  const height = Math.min(frame.height, Math.ceil(bounds.bottom + reach)) - top
  if (!(width > 0 && height > 0)) return NOTHING
  const count = ends.length / 2
  const points = k.alloc(count * CHORD * 8)
  writeChords(ends, left, top, k.doubles(points, count * CHORD))
  // Two cells to spare, in which is summed up what lies beyond.
  const stride = (width * 4 + 8 + 15) & ~15
  const out = k.alloc(stride * height)
  if (grow === 0 && inside === 0 && outside === 0) k.outlineArea(points, count, width, height, out, stride)
  else {
    const near = k.alloc(stride * height)
    const square = k.alloc(stride * height)
    const rows = k.alloc((height + 1 + k.outlineRows(points, count, height)) * 4)
    k.outlineDistance(points, count, width, height, grow, inside, outside, out, near, square, stride, rows)
    for (const ptr of [near, square, rows]) k.free(ptr)
  }
  k.free(points)
  return {
    top,
    bottom: top + height,
    row(y: number, to: number) {
      k.fillCoverage(to, left, 0)
      k.copyBytes(to + left * 4, out + (y - top) * stride, width * 4)
      k.fillCoverage(to + (left + width) * 4, frame.width - left - width, 0)
    },
  }
}

export const OUTLINE: ShapeKind<OutlinePoint[], PlannedOutline> = {
  name: 'Outline',
  letter: 'u',
  field: 'points',
  word: 'shape',
  isDrawn: true,
  make: () => [],
  schema: ({ px, list, record }) => list(record({ x: px, y: px, inX: px, inY: px, outX: px, outY: px })),
  mix: mixOutlines,
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
  open(k, { points }, feather, frame) {
    const soft = (feather.inside + feather.outside) / 1.5
    const tolerance = Math.min(COARSE, FINE * Math.max(1, soft))
    return openOutline(k, flatten(points, tolerance), feather, frame)
  },
}
