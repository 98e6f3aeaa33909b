import { borderOf, curveFrom, type OutlinePoint, pointOn } from '../../../core/outline'

/** Places on each curve at which the border of a strip is told. */
const STEPS = 8

/** One border of a strip, as an open line of chords. */
function borderPath(points: readonly OutlinePoint[], side: 1 | -1): string {
  const along = points.slice(0, -1).flatMap((p, i) => {
    const [from, to] = [p.width ?? 0, points[i + 1]!.width ?? 0]
    return Array.from({ length: STEPS }, (_, n) => {
      const t = n / STEPS
      return {
        ...p,
        ...pointOn(curveFrom(points, i), t),
        inX: 0,
        inY: 0,
        outX: 0,
        outY: 0,
        width: from + (to - from) * t,
      }
    })
  })
  const all = [...along, points.at(-1)!]
  return all
    .map((_, i) => borderOf(all, i, side, 0)!)
    .reduce((d, { x, y }, i) => `${d}${i === 0 ? 'M' : 'L'}${x} ${y}`, '')
}

/** How wide a strip is along itself. */
export function StripBorder({ points }: { points: readonly OutlinePoint[] }) {
  if (points.length < 2) return null
  return ([1, -1] as const).map(side => {
    const d = borderPath(points, side)
    return (
      <g key={side} fill="none">
        <path d={d} stroke="#000" strokeOpacity="0.5" strokeWidth="2.6" />
        <path d={d} stroke="currentColor" strokeWidth="0.9" strokeDasharray="2 3" />
      </g>
    )
  })
}
