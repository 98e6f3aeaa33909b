import { borderOf, curveFrom, type OutlinePoint, pointOn, softAlong } from '../../../core/outline'

/** Places on each curve at which a border is told. */
const STEPS = 8

interface Props {
  points: readonly OutlinePoint[]
  /** How wide a strip is, or how much softer an outline. */
  of: 'width' | 'soft'
}

/** A line as chords, each end with the breadth that it has there. */
function along(points: readonly OutlinePoint[], of: Props['of']): OutlinePoint[] {
  const curves = of === 'soft' ? points : points.slice(0, -1)
  const steps = curves.flatMap((p, i) => {
    const [from, to] = [p.width ?? 0, points[(i + 1) % points.length]!.width ?? 0]
    return Array.from({ length: STEPS }, (_, n) => {
      const t = n / STEPS
      const breadth = of === 'soft' ? softAlong(points, i + t) : from + (to - from) * t
      return { ...p, ...pointOn(curveFrom(points, i), t), inX: 0, inY: 0, outX: 0, outY: 0, [of]: breadth }
    })
  })
  return of === 'soft' ? steps : [...steps, points.at(-1)!]
}

function borderPath(points: readonly OutlinePoint[], side: 1 | -1, of: Props['of']): string {
  const all = along(points, of)
  const open = all
    .map((_, i) => borderOf(all, i, side, of, 0)!)
    .reduce((d, { x, y }, i) => `${d}${i === 0 ? 'M' : 'L'}${x} ${y}`, '')
  return of === 'soft' ? `${open}Z` : open
}

/** The borders of how wide a strip is, or how much softer an outline is, along itself. */
export function BorderLines({ points, of }: Props) {
  if (points.length < 2) return null
  return ([1, -1] as const).map(side => {
    const d = borderPath(points, side, of)
    return (
      <g key={side} fill="none">
        <path d={d} stroke="#000" strokeOpacity="0.5" strokeWidth="2.6" />
        <path d={d} stroke="currentColor" strokeWidth="0.9" strokeDasharray="2 3" />
      </g>
    )
  })
}
