// A line that is as wide as each of its points says, and does not close: hair, cables, the edge of a door.
import { boundsOf, carryOutlinePoint, flattenAlong, mixOutlines, type OutlinePoint } from '../outline'
import type { Kernels } from '../render/kernels'
import { type Coverage, type Feather, NOTHING, type ShapeKind } from './kind'
import { OUTLINE } from './outline'

/** In px of the picture that is made. */
export interface PlannedStrip {
  kind: 'strip'
  points: OutlinePoint[]
}

/** px that chords may miss the curve by. */
const FINE = 0.02
/** Numbers of a chord as the kernel reads it. */
const CHORD = 7
/** px across, where a point does not say it. */
const USUAL = 12

const halfOf = (points: readonly OutlinePoint[], share: number): number => {
  const i = Math.min(points.length - 1, Math.floor(share))
  const [from, to] = [points[i]!.width ?? 0, (points[i + 1] ?? points[i])!.width ?? 0]
  return (from + (to - from) * (share - i)) / 2
}

/** Chords told from (left, top), with half of how wide they are at their ends. */
function writeChords(
  points: readonly OutlinePoint[],
  ends: Float64Array,
  left: number,
  top: number,
  out: Float64Array,
) {
  const count = Math.max(1, ends.length / 3 - 1)
  for (let i = 0; i < count; i++) {
    const j = Math.min(ends.length / 3 - 1, i + 1)
    const [x, y] = [ends[i * 3]! - left, ends[i * 3 + 1]! - top]
    const [dx, dy] = [ends[j * 3]! - left - x, ends[j * 3 + 1]! - top - y]
    const length = dx * dx + dy * dy
    const halves = [halfOf(points, ends[i * 3 + 2]!), halfOf(points, ends[j * 3 + 2]!)]
    out.set([x, y, dx, dy, length > 0 ? 1 / length : 0, ...halves], i * CHORD)
  }
  return count
}

function openStrip(
  k: Kernels,
  points: OutlinePoint[],
  feather: Feather,
  frame: { width: number; height: number },
): Coverage {
  const { grow, inside, outside } = feather
  const ends = flattenAlong(points, FINE, true)
  const widest = Math.max(0, ...points.map(p => p.width ?? 0)) / 2
  const bounds = boundsOf(ends.filter((_, i) => i % 3 < 2))
  if (!bounds || widest + grow <= -outside) return NOTHING
  const reach = widest + Math.max(0, grow) + outside + 1
  const left = Math.max(0, Math.floor(bounds.left - reach))
  const top = Math.max(0, Math.floor(bounds.top - reach))
  const width = Math.min(frame.width, Math.ceil(bounds.right + reach)) - left
  const height = Math.min(frame.height, Math.ceil(bounds.bottom + reach)) - top
  if (!(width > 0 && height > 0)) return NOTHING
  const chords = k.alloc((ends.length / 3) * CHORD * 8)
  const count = writeChords(points, ends, left, top, k.doubles(chords, (ends.length / 3) * CHORD))
  const out = k.alloc(width * height * 4)
  const field = k.alloc(width * height * 16)
  k.stripCoverage({ points: chords, count, width, height, grow, inside, outside, out, field })
  for (const ptr of [chords, field]) k.free(ptr)
  return {
    top,
    bottom: top + height,
    row(y, to) {
      k.fillCoverage(to, left, 0)
      k.copyBytes(to + left * 4, out + (y - top) * width * 4, width * 4)
      k.fillCoverage(to + (left + width) * 4, frame.width - left - width, 0)
    },
  }
}

export const STRIP: ShapeKind<OutlinePoint[], PlannedStrip> = {
  name: 'Strip',
  letter: 'i',
  field: 'points',
  word: 'shape',
  isDrawn: true,
  isOpen: true,
  soft: 2,
  make: () => [],
  schema: ({ px, extent, list, record }) =>
    list(record({ x: px, y: px, inX: px, inY: px, outX: px, outY: px, width: extent })),
  mix: mixOutlines,
  taken: points => points.map(({ soft: _, ...p }) => ({ ...p, width: p.width ?? USUAL })),
  carried: (points, map) => points.map(p => carryOutlinePoint(map, p)),
  plan: (points, to) => ({ kind: 'strip', points: points.map(p => carryOutlinePoint(to, p)) }),
  cost: points => points.length / 50,
  travel: (from, to) => OUTLINE.travel!({ ...from, kind: 'outline' }, { ...to, kind: 'outline' }),
  extent: ({ points }, grow) => Math.max(0, ...points.map(p => p.width ?? 0)) / 2 + Math.max(0, grow),
  open: (k, { points }, feather, { size }) => openStrip(k, points, feather, size),
}
