import { pathOf } from '../../../core/exchange'
import type { OutlinePoint } from '../../../core/outline'

interface Props {
  points: readonly OutlinePoint[]
  /** Another key's outline: only there to be compared. */
  ghost?: boolean
  closed?: boolean
}

/** A line that is seen on anything: light, with dark at both its sides. */
export function OutlineLine({ points, ghost = false, closed = true }: Props) {
  const d = pathOf(points, !closed)
  if (ghost)
    return <path d={d} fill="none" stroke="#f4efe6" strokeOpacity="0.4" strokeWidth="1" strokeDasharray="1 4" />
  return (
    <>
      <path d={d} fill="none" stroke="#000" strokeOpacity="0.55" strokeWidth="3.5" />
      <path d={d} fill="none" stroke="currentColor" strokeWidth="1.3" data-testid="outline" />
    </>
  )
}
