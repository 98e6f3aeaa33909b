import { borderOf, type Grip, isSmooth, type OutlinePoint } from '../../../core/outline'

interface Props {
  points: readonly OutlinePoint[]
  chosen: readonly number[]
  /** What the next press takes hold of. */
  grip: Grip | null
  /** The points whose softness is shown to be set; null while it is not. */
  softening: readonly number[] | null
}

const LINE = 'currentColor'
const GROUND = '#141414'

/** A mark with dark about it, so that it is seen on anything. */
function Mark({ x, y, d, filled, large }: { x: number; y: number; d: string; filled: boolean; large: boolean }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${large ? 1.6 : 1})`}>
      <path d={d} fill="none" stroke="#000" strokeOpacity="0.6" strokeWidth="3.6" />
      <path d={d} fill={filled ? LINE : GROUND} stroke={LINE} strokeWidth="1.4" />
    </g>
  )
}

/** A roof for a corner, a drop for a point that goes on smoothly: told apart by form. Both stand on the line. */
const CORNER = 'M-3.6 3 0-4 3.6 3Z'
const SMOOTH = 'M-3.6 0A3.6 3.6 0 1 1 3.6 0A3.6 3.6 0 1 1-3.6 0Z'
/** A lozenge for how wide a strip is, or how soft an outline. */
const BORDER = 'M-3.2 0 0-3.2 3.2 0 0 3.2Z'
const END = 'M-2.4 0A2.4 2.4 0 1 1 2.4 0A2.4 2.4 0 1 1-2.4 0Z'

/** The points of an outline, the handles of those that are chosen, and where the next press would put a new one. */
export function OutlinePoints({ points, chosen, grip, softening }: Props) {
  const isHeld = (index: number) => grip?.kind === 'point' && grip.index === index
  return (
    <>
      {chosen.map(index => {
        const p = points[index]
        if (!p) return null
        return (['in', 'out'] as const).map(side => {
          const [dx, dy] = side === 'in' ? [p.inX, p.inY] : [p.outX, p.outY]
          if (Math.hypot(dx, dy) <= 3) return null
          const held = grip?.kind === 'handle' && grip.index === index && grip.side === side
          return (
            <g key={`${index} ${side}`}>
              <path d={`M${p.x} ${p.y}l${dx} ${dy}`} stroke="#000" strokeOpacity="0.5" strokeWidth="2.6" />
              <path d={`M${p.x} ${p.y}l${dx} ${dy}`} stroke={LINE} strokeWidth="0.8" />
              <Mark x={p.x + dx} y={p.y + dy} d={END} filled={held} large={held} />
            </g>
          )
        })
      })}
      {(softening ?? chosen).map(index =>
        ([1, -1] as const).map(side => {
          const at = borderOf(points, index, side, softening ? 'soft' : 'width')
          if (!at) return null
          const held = grip?.kind === 'border' && grip.index === index && grip.side === side
          return <Mark key={`${index} ${side}`} {...at} d={BORDER} filled={held} large={held} />
        }),
      )}
      {points.map((p, index) => (
        <Mark
          // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place round the outline
          key={index}
          x={p.x}
          y={p.y}
          d={isSmooth(p) ? SMOOTH : CORNER}
          filled={chosen.includes(index)}
          large={isHeld(index)}
        />
      ))}
      {grip?.kind === 'new' && (
        <g transform={`translate(${grip.at.x} ${grip.at.y})`} data-testid="new-point">
          <path d="M-8 0H8M0-8V8" stroke="#000" strokeOpacity="0.6" strokeWidth="4" />
          <path d="M-8 0H8M0-8V8" stroke="#e8e27a" strokeWidth="1.6" />
        </g>
      )}
    </>
  )
}
