import { carryOutlinePoint, middleOf, type OutlinePoint } from '../../../core/outline'
import { about, TurnFrame } from './TurnFrame'
import type { OutlineOnScreen } from './use-outline'

interface Props {
  outline: OutlineOnScreen
  chosen: readonly number[]
  onActive: (active: boolean) => void
}

/** Round several chosen points: scales and turns them about their middle. */
export function ChosenFrame({ outline, chosen, onActive }: Props) {
  const { points } = outline
  const of = chosen.flatMap(i => points[i] ?? [])
  if (of.length < 2) return null
  return (
    <TurnFrame<readonly OutlinePoint[]>
      points={of}
      middle={middleOf(points, chosen)}
      what="the chosen points"
      start={() => points}
      turn={(from, middle, by, gesture) => {
        const map = about(middle, by)
        outline.reshape(
          from.map((p, i) => (chosen.includes(i) ? carryOutlinePoint(map, p) : p)),
          gesture,
        )
      }}
      onActive={onActive}
    />
  )
}
