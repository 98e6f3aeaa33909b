import { carry, carryBy, degrees, inverse, radians, scaleOf, turn } from '../../core/affine'
import { sample } from '../../core/keys'
import { shapeAt } from '../../core/shape'
import type { Frame } from '../../core/shot'
import type { Drag } from '../common/use-drag'
import { Handle } from './Handle'
import { nearAngle, pieceMap, round } from './piece-space'
import type { HandlesProps } from './shape-views'
import { usePieceEdit } from './use-piece-edit'

const CORNERS = [
  [-1, -1, 'Stretch from the top left', 'nwse-resize'],
  [1, -1, 'Stretch from the top right', 'nesw-resize'],
  [1, 1, 'Stretch from the bottom right', 'nwse-resize'],
  [-1, 1, 'Stretch from the bottom left', 'nesw-resize'],
  [0, 1, 'Stretch from the bottom', 'ns-resize'],
  [-1, 0, 'Stretch from the left', 'ew-resize'],
  [1, 0, 'Stretch from the right', 'ew-resize'],
] as const

/** A box or an oval on the picture, with what moves, turns, stretches and feathers it. */
export function FrameHandles({ layer, piece, frame, camera, onActive }: HandlesProps) {
  const change = usePieceEdit(layer, piece)
  const map = pieceMap(layer, piece, frame, camera)
  const scale = scaleOf(map)
  const back = (dx: number, dy: number) => carryBy(inverse(map), { x: dx, y: dy })
  const { shape } = piece
  const box = shapeAt(shape, frame) as Frame
  const inside = sample(piece.feather.inside, frame)
  const outside = sample(piece.feather.outside, frame)
  const grow = sample(piece.grow, frame)
  const middle = carry(map, box)
  const a = radians(box.angle)
  const cos = Math.cos(a)
  const sin = Math.sin(a)
  const w = (box.width / 2) * scale
  const h = (box.height / 2) * scale
  const across = turn(map, { x: cos, y: sin })
  const down = turn(map, { x: -sin, y: cos })
  const at = (x: number, y: number) => ({
    x: middle.x + x * across.x + y * down.x,
    y: middle.y + x * across.y + y * down.y,
  })
  const local = (drag: Drag, angle: number) => {
    const r = radians(angle)
    const { x, y } = back(drag.dx, drag.dy)
    return { x: x * Math.cos(r) + y * Math.sin(r), y: y * Math.cos(r) - x * Math.sin(r) }
  }
  // The side across from the one that is dragged stays where it is; with shift the middle does.
  const stretch = (sx: number, sy: number) => (from: Frame, drag: Drag) => {
    const by = local(drag, from.angle)
    const both = drag.shift ? 2 : 1
    const width = Math.max(1, from.width + by.x * sx * both)
    const height = Math.max(1, from.height + by.y * sy * both)
    const mx = drag.shift ? 0 : ((width - from.width) / 2) * sx
    const my = drag.shift ? 0 : ((height - from.height) / 2) * sy
    const r = radians(from.angle)
    const x = from.x + mx * Math.cos(r) - my * Math.sin(r)
    const y = from.y + mx * Math.sin(r) + my * Math.cos(r)
    change('shape', { ...from, x: round(x), y: round(y), width: round(width), height: round(height) }, drag.gesture)
  }
  const feather = (of: 'inside' | 'outside', sign: 1 | -1) => (from: number, drag: Drag) => {
    const by = local(drag, box.angle).y * sign
    change(of, round(Math.max(0, Math.min(4000, from + by))), drag.gesture)
  }
  const ring = (by: number, dashed: boolean) => {
    const rw = Math.max(0, w + by * scale)
    const rh = Math.max(0, h + by * scale)
    const form = (extra: object) =>
      shape.kind === 'oval' ? (
        <ellipse rx={rw} ry={rh} fill="none" {...extra} />
      ) : (
        <rect x={-rw} y={-rh} width={2 * rw} height={2 * rh} rx={Math.max(0, by * scale)} fill="none" {...extra} />
      )
    return (
      <g transform={`matrix(${across.x} ${across.y} ${down.x} ${down.y} ${middle.x} ${middle.y})`}>
        {form({ stroke: '#000', strokeOpacity: 0.5, strokeWidth: dashed ? 2.5 : 3.5 })}
        {form({ stroke: '#a9ecd9', strokeWidth: dashed ? 1 : 1.5, strokeDasharray: dashed ? '2 4' : undefined })}
      </g>
    )
  }
  const start = () => box
  return (
    <g data-piece={piece.name}>
      {outside > 0 && ring(grow + outside, true)}
      {inside > 0 && ring(grow - inside, true)}
      {ring(grow, false)}
      {CORNERS.map(([sx, sy, label, cursor]) => (
        <Handle
          key={label}
          label={label}
          {...at(sx * w, sy * h)}
          form="disc"
          cursor={cursor}
          start={start}
          move={stretch(sx, sy)}
          onActive={onActive}
        />
      ))}
      <Handle
        label="Stretch from the top"
        {...at(0, -h)}
        form="disc"
        cursor="ns-resize"
        start={start}
        move={stretch(0, -1)}
        onActive={onActive}
      />
      <Handle
        label="Feather outside"
        {...at(w * 0.5, -h - (grow + outside) * scale)}
        form="lozenge"
        cursor="ns-resize"
        start={() => outside}
        move={feather('outside', -1)}
        onActive={onActive}
      />
      <Handle
        label="Feather inside"
        {...at(-w * 0.5, -h - (grow - inside) * scale)}
        form="lozenge"
        cursor="ns-resize"
        start={() => inside}
        move={feather('inside', 1)}
        onActive={onActive}
      />
      <Handle<Frame>
        label={`Turn the ${shape.kind}`}
        {...at(0, -h - 30)}
        form="disc"
        cursor="grab"
        start={start}
        move={(from, drag) => {
          const reach = h + 30
          const r = radians(from.angle)
          const by = back(drag.dx * scale, drag.dy * scale)
          let angle = nearAngle(degrees(Math.atan2(Math.sin(r) * reach + by.x, Math.cos(r) * reach - by.y)), from.angle)
          if (drag.shift) angle = Math.round(angle / 15) * 15
          change('shape', { ...from, angle: round(angle) }, drag.gesture)
        }}
        onActive={onActive}
      />
      <Handle<Frame>
        label={`Move the ${shape.kind}`}
        x={middle.x}
        y={middle.y}
        form="square"
        cursor="move"
        start={start}
        move={(from, { dx, dy, gesture }) => {
          const by = back(dx, dy)
          change('shape', { ...from, x: round(from.x + by.x), y: round(from.y + by.y) }, gesture)
        }}
        onActive={onActive}
      />
    </g>
  )
}
