import type { OutlinePoint } from '../../../core/outline'

/** An outline as the path of an SVG. */
export function pathOf(points: readonly OutlinePoint[], closed = true): string {
  const [first] = points
  if (!first) return ''
  const to = (a: OutlinePoint, b: OutlinePoint) =>
    `C${a.x + a.outX} ${a.y + a.outY} ${b.x + b.inX} ${b.y + b.inY} ${b.x} ${b.y}`
  const on = points.slice(1).map((p, i) => to(points[i]!, p))
  return `M${first.x} ${first.y}${on.join('')}${closed && points.length > 1 ? `${to(points.at(-1)!, first)}Z` : ''}`
}

interface Props {
  points: readonly OutlinePoint[]
  /** Another key's outline: only there to be compared. */
  ghost?: boolean
  closed?: boolean
}

/** A line that is seen on anything: light, with dark at both its sides. */
export function OutlineLine({ points, ghost = false, closed = true }: Props) {
  const d = pathOf(points, closed)
  if (ghost)
    return <path d={d} fill="none" stroke="#f4efe6" strokeOpacity="0.4" strokeWidth="1" strokeDasharray="1 4" />
  return (
    <>
      <path d={d} fill="none" stroke="#000" strokeOpacity="0.55" strokeWidth="3.5" />
      <path d={d} fill="none" stroke="currentColor" strokeWidth="1.3" data-testid="outline" />
    </>
  )
}
