import { type Camera, editIn, store, useSend } from '../../app/store'
import { carry, carryBy, inverse, type Point } from '../../core/affine'
import { sample } from '../../core/keys'
import { type Corners, canHold, pinMap, project, type Quad, quadAt } from '../../core/projective'
import { type Layer, type Pin, type Place, placeMap } from '../../core/shot'
import { Handle } from './Handle'
import { onScreen, round } from './piece-space'

interface Props {
  layer: Layer
  pin: Pin
  frame: number
  camera: Camera
  onActive: (active: boolean) => void
}

const CORNERS = [
  ['topLeft', 'top left', 'nwse-resize'],
  ['topRight', 'top right', 'nesw-resize'],
  ['bottomRight', 'bottom right', 'nwse-resize'],
  ['bottomLeft', 'bottom left', 'nesw-resize'],
] as const

/** Where lines lie across the flat picture, as shares of it: they show how it is turned. */
const LINES = [0.25, 0.5, 0.75]

const SQUARE = { left: 0, top: 0, right: 1, bottom: 1 }

const pathOf = (lines: readonly (readonly [Point, Point])[]): string =>
  lines.map(([p, q]) => `M${p.x} ${p.y}L${q.x} ${q.y}`).join('')

/** Lines on a flat thing seen in perspective. */
function linesOn(quad: Quad): string {
  const map = pinMap(SQUARE, quad)
  if (!map) return ''
  const at = (x: number, y: number) => project(map, { x, y })
  return pathOf(
    LINES.flatMap(t => [
      [at(t, 0), at(t, 1)],
      [at(0, t), at(1, t)],
    ]),
  )
}

/** The four corners that a layer's picture hangs on, each to be taken hold of; inside of them the layer is moved as a whole. */
export function PinHandles({ layer, pin, frame, camera, onActive }: Props) {
  const send = useSend()
  const place = sample(layer.place, frame)
  const corners = sample(pin.corners, frame)
  const map = placeMap(layer, place)
  const quad = quadAt(corners).map(p => carry(onScreen(camera), carry(map, p))) as unknown as Quad
  const isFlat = canHold(quad)
  const move = (name: keyof Corners) => (from: Corners, drag: { dx: number; dy: number; gesture: string }) => {
    const { keying } = store.getState().view
    const by = carryBy(inverse(map), { x: drag.dx / camera.zoom, y: drag.dy / camera.zoom })
    const next = { ...from, [name]: { x: round(from[name].x + by.x), y: round(from[name].y + by.y) } }
    send(editIn(drag.gesture, 'setValue', layer.id, { of: 'corners' }, frame, next, keying))
  }
  const moveAll = (from: Place, drag: { dx: number; dy: number; gesture: string }) => {
    const { keying } = store.getState().view
    const next = { ...from, x: round(from.x + drag.dx / camera.zoom), y: round(from.y + drag.dy / camera.zoom) }
    send(editIn(drag.gesture, 'setValue', layer.id, { of: 'place' }, frame, next, keying))
  }
  const outline = quad.map(p => `${p.x},${p.y}`).join(' ')
  const colour = isFlat ? '#e9e6df' : '#ff9a76'
  return (
    <g data-pin={layer.name}>
      <Handle<Place>
        label="Move the layer"
        x={0}
        y={0}
        form="area"
        cursor="move"
        start={() => place}
        move={moveAll}
        onActive={() => {}}
      >
        <polygon points={outline} fill="transparent" stroke="#000" strokeOpacity="0.5" strokeWidth="3.5" />
        <polygon
          points={outline}
          fill="transparent"
          stroke={colour}
          strokeWidth="1.2"
          strokeDasharray={isFlat ? undefined : '5 4'}
        />
        <path d={linesOn(quad)} fill="none" stroke={colour} strokeOpacity="0.35" strokeWidth="1" />
      </Handle>
      {CORNERS.map(([name, said, cursor], i) => (
        <Handle<Corners>
          key={name}
          label={`Move the ${said} corner`}
          x={quad[i]!.x}
          y={quad[i]!.y}
          form="disc"
          cursor={cursor}
          start={() => corners}
          move={move(name)}
          onActive={onActive}
        />
      ))}
    </g>
  )
}
