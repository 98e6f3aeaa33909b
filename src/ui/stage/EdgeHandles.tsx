import type { Camera } from '../../app/store'
import { sample } from '../../core/keys'
import type { Layer, Line, Piece, Shape } from '../../core/shot'
import { Handle } from './Handle'
import { degrees, nearAngle, pieceSpace, radians, round } from './piece-space'
import { usePieceEdit } from './use-piece-edit'

interface Props {
  layer: Layer
  piece: Piece
  shape: Extract<Shape, { kind: 'edge' }>
  frame: number
  camera: Camera
  onActive: (active: boolean) => void
}

/** How far along the line the turning handles stand from its middle, in screen px. */
const ARM = 110
const FAR = 6000

/** An edge on the picture: its line, its feather, and what moves, turns and widens them. */
export function EdgeHandles({ layer, piece, shape, frame, camera, onActive }: Props) {
  const change = usePieceEdit(layer, piece)
  const space = pieceSpace(layer, piece, frame, camera)
  const line = sample(shape.line, frame)
  const inside = sample(piece.feather.inside, frame)
  const outside = sample(piece.feather.outside, frame)
  const grow = sample(piece.grow, frame)
  const a = radians(line.angle)
  // n points to what is kept, t runs along the line.
  const n = space.way(Math.cos(a), Math.sin(a))
  const t = space.way(-Math.sin(a), Math.cos(a))
  const middle = space.toScreen(line.x, line.y)
  const at = (along: number, across: number) => ({
    x: middle.x + t.x * along + n.x * across * space.scale,
    y: middle.y + t.y * along + n.y * across * space.scale,
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
      const by = space.back(drag.dx * space.scale, drag.dy * space.scale)
      const x = -Math.sin(radians(from.angle)) * ARM * sign + by.x
      const y = Math.cos(radians(from.angle)) * ARM * sign + by.y
      let angle = nearAngle(degrees(Math.atan2(-x * sign, y * sign)), from.angle)
      if (drag.shift) angle = Math.round(angle / 15) * 15
      change('line', { ...from, angle: round(angle) }, drag.gesture)
    },
  })
  const feather = (of: 'inside' | 'outside', from0: number, sign: 1 | -1) => ({
    start: () => from0,
    move: (from: number, drag: { dx: number; dy: number; gesture: string }) => {
      const by = ((drag.dx * n.x + drag.dy * n.y) * sign) / space.scale
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
          const by = space.back(dx, dy)
          change('line', { ...from, x: round(from.x + by.x), y: round(from.y + by.y) }, gesture)
        }}
        onActive={onActive}
      />
    </g>
  )
}
