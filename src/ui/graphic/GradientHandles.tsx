import { type Camera, editIn, useSend } from '../../app/store'
import { after, carry, carryBy, inverse } from '../../core/affine'
import { sample } from '../../core/keys'
import { type Layer, type Point, placeMap } from '../../core/shot'
import { Handle } from '../stage/Handle'
import { onScreen, round } from '../stage/piece-space'

interface Props {
  layer: Layer
  frame: number
  camera: Camera
  onActive: (active: boolean) => void
}

const ENDS = [
  ['from', 'Where the gradient begins'],
  ['to', 'Where the gradient ends'],
] as const

/** Where a gradient goes from and to, on the picture. */
export function GradientHandles({ layer, frame, camera, onActive }: Props) {
  const send = useSend()
  const { source } = layer
  const fill = 'fill' in source ? source.fill : null
  if (fill?.kind !== 'gradient') return null
  const map = after(onScreen(camera), placeMap(layer, sample(layer.place, frame)))
  const [from, to] = [carry(map, fill.from), carry(map, fill.to)]
  return (
    <g>
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} stroke="#000" strokeOpacity="0.5" strokeWidth="3" />
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} stroke="#e9e6df" strokeWidth="1.2" strokeDasharray="5 4" />
      {ENDS.map(([end, label]) => (
        <Handle<Point>
          key={end}
          label={label}
          {...carry(map, fill[end])}
          form={end === 'from' ? 'disc' : 'lozenge'}
          cursor="move"
          start={() => fill[end]}
          move={(at, { dx, dy, gesture }) => {
            const by = carryBy(inverse(map), { x: dx, y: dy })
            const moved = { ...fill, [end]: { x: round(at.x + by.x), y: round(at.y + by.y) } }
            send(editIn(gesture, 'changeGraphic', layer.id, { fill: moved }))
          }}
          onActive={onActive}
        />
      ))}
    </g>
  )
}
