import { carry, carryBy, degrees, inverse, radians, scaleOf, turn as turned } from '../../core/affine'
import { sample } from '../../core/keys'
import { shapeAt } from '../../core/shape'
import type { Line } from '../../core/shot'
import { Handle } from './Handle'
import { nearAngle, pieceMap, round } from './piece-space'
import type { HandlesProps } from './shape-views'
import { usePieceEdit } from './use-piece-edit'

/** How far along the line the turning handles stand from its middle, in screen px. */
const ARM = 110
const FAR = 6000

/** An edge on the picture: its line, its feather, and what moves, turns and widens them. */
export function EdgeHandles({ layer, piece, frame, camera, onActive }: HandlesProps) {
  const change = usePieceEdit(layer, piece)
  const map = pieceMap(layer, piece, frame, camera)
  const scale = scaleOf(map)
  const back = (dx: number, dy: number) => carryBy(inverse(map), { x: dx, y: dy })
  const line = shapeAt(piece.shape, frame) as Line
  const inside = sample(piece.feather.inside, frame)
  const outside = sample(piece.feather.outside, frame)
  const grow = sample(piece.grow, frame)
  const a = radians(line.angle)
  // n points to what is kept, t runs along the line.
  const n = turned(map, { x: Math.cos(a), y: Math.sin(a) })
  const t = turned(map, { x: -Math.sin(a), y: Math.cos(a) })
  const middle = carry(map, line)
  const at = (along: number, across: number) => ({
    x: middle.x + t.x * along + n.x * across * scale,
    y: middle.y + t.y * along + n.y * across * scale,
  })
  const stroke = (across: number, dashed: boolean) => {
    const from = at(-FAR, across)
    const to = at(FAR, across)
    return (
      <>
        <line
          x1={from.x}
          y1={from.y}
          x2={to.x}
          y2={to.y}
          stroke="#000"
          strokeOpacity="0.5"
          strokeWidth={dashed ? 2.5 : 3.5}
        />
        <line
          x1={from.x}
          y1={from.y}
          x2={to.x}
          y2={to.y}
          stroke="#a9ecd9"
          strokeWidth={dashed ? 1 : 1.5}
          strokeDasharray={dashed ? '2 4' : undefined}
        />
      </>
    )
  }
  // Dragged the wrong way an inverted edge would feel broken: what is kept decides which side is inside.
  const turn = (sign: 1 | -1) => ({
    start: () => line,
    move: (from: Line, drag: { dx: number; dy: number; gesture: string; shift: boolean }) => {
      const by = back(drag.dx * scale, drag.dy * scale)
      const x = -Math.sin(radians(from.angle)) * ARM * sign + by.x
      const y = Math.cos(radians(from.angle)) * ARM * sign + by.y
      let angle = nearAngle(degrees(Math.atan2(-x * sign, y * sign)), from.angle)
      if (drag.shift) angle = Math.round(angle / 15) * 15
      change('shape', { ...from, angle: round(angle) }, drag.gesture)
    },
  })
  const feather = (of: 'inside' | 'outside', from0: number, sign: 1 | -1) => ({
    start: () => from0,
    move: (from: number, drag: { dx: number; dy: number; gesture: string }) => {
      const by = ((drag.dx * n.x + drag.dy * n.y) * sign) / scale
      change(of, round(Math.max(0, Math.min(4000, from + by))), drag.gesture)
    },
  })
  const positions = {
    up: at(-ARM, 0),
    down: at(ARM, 0),
    inside: at(44, inside - grow),
    outside: at(-44, -outside - grow),
  }
  return (
    <g data-piece={piece.name}>
      {inside > 0 && stroke(inside - grow, true)}
      {outside > 0 && stroke(-outside - grow, true)}
      {stroke(-grow, false)}
      <Handle
        label="Feather inside"
        {...positions.inside}
        form="lozenge"
        cursor="ew-resize"
        {...feather('inside', inside, 1)}
        onActive={onActive}
      />
      <Handle
        label="Feather outside"
        {...positions.outside}
        form="lozenge"
        cursor="ew-resize"
        {...feather('outside', outside, -1)}
        onActive={onActive}
      />
      <Handle label="Turn the edge" {...positions.up} form="disc" cursor="grab" {...turn(-1)} onActive={onActive} />
      <Handle
        label="Turn the edge from below"
        {...positions.down}
        form="disc"
        cursor="grab"
        {...turn(1)}
        onActive={onActive}
      />
      <Handle<Line>
        label="Move the edge"
        x={middle.x}
        y={middle.y}
        form="square"
        cursor="move"
        start={() => line}
        move={(from, { dx, dy, gesture }) => {
          const by = back(dx, dy)
          change('shape', { ...from, x: round(from.x + by.x), y: round(from.y + by.y) }, gesture)
        }}
        onActive={onActive}
      />
    </g>
  )
}
