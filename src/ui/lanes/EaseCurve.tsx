import { eased, type Handles, SWING } from '../../core/keys'
import { useDrag } from '../common/use-drag'

const SIDE = 96
/** Room for a curve that swings beyond its keys. */
const ROOM = 40

const within = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v))
const round = (v: number) => Math.round(v * 1000) / 1000

interface Props {
  curve: Handles
  onChange: (curve: Handles, gesture: string) => void
}

/** How a value goes to the next key, drawn: time to the right, the way upwards. Its two handles are dragged, or stepped with arrows. */
export function EaseCurve({ curve, onChange }: Props) {
  const x = (v: number) => v * SIDE
  const y = (v: number) => SIDE - v * SIDE
  const line = Array.from({ length: 33 }, (_, i) => `${x(i / 32)} ${y(eased({ curve }, i / 32))}`).join('L')
  const moved = (from: Handles, which: 0 | 2, dx: number, dy: number): Handles => {
    const next = [...from] as [number, number, number, number]
    next[which] = round(within(from[which] + dx, 0, 1))
    next[which + 1] = round(within(from[which + 1]! + dy, -SWING, SWING))
    return next
  }
  return (
    <svg
      viewBox={`-8 -${ROOM} ${SIDE + 16} ${SIDE + 2 * ROOM}`}
      width={SIDE + 16}
      height={SIDE + 2 * ROOM}
      className="mx-auto block"
      role="group"
      aria-label="The way to the next key"
    >
      <rect width={SIDE} height={SIDE} className="fill-ground" />
      <path d={`M${line}`} fill="none" className="stroke-ghost" strokeWidth="1.6" />
      {([0, 2] as const).map(which => (
        <HandleOf
          key={which}
          label={which === 0 ? 'How it leaves' : 'How it arrives'}
          from={which === 0 ? { x: 0, y: SIDE } : { x: SIDE, y: 0 }}
          to={{ x: x(curve[which]), y: y(curve[which + 1]!) }}
          start={() => curve}
          onMove={(began, dx, dy, gesture) => onChange(moved(began, which, dx / SIDE, -dy / SIDE), gesture)}
        />
      ))}
    </svg>
  )
}

interface HandleProps {
  label: string
  from: { x: number; y: number }
  to: { x: number; y: number }
  start: () => Handles
  onMove: (began: Handles, dx: number, dy: number, gesture: string) => void
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-4, 0],
  ArrowRight: [4, 0],
  ArrowUp: [0, -4],
  ArrowDown: [0, 4],
}

function HandleOf({ label, from, to, start, onMove }: HandleProps) {
  const drag = useDrag<Handles>({
    start,
    move: (began, { dx, dy, gesture }) => onMove(began, dx, dy, gesture),
  })
  return (
    <g>
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} className="stroke-quiet" strokeWidth="1" />
      <circle
        cx={to.x}
        cy={to.y}
        r="5"
        role="button"
        tabIndex={0}
        aria-label={label}
        className="cursor-move touch-none fill-lime stroke-ground"
        onKeyDown={event => {
          const step = STEPS[event.key]
          if (!step) return
          event.preventDefault()
          event.stopPropagation()
          onMove(start(), step[0], step[1], `step ${label}`)
        }}
        {...drag}
      />
    </g>
  )
}
