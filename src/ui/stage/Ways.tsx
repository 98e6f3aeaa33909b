// The ways that a layer and its pieces take about the playhead, with dots for frames: whether a ride is smooth is seen at a glance.
import type { Camera } from '../../app/store'
import { carry, type Point } from '../../core/affine'
import { isKeyed } from '../../core/keys'
import { type Layer, type Piece, wayOf } from '../../core/shot'
import { useHeldKey } from './outline/use-held-key'
import { onScreen } from './piece-space'

/** Frames before and after the playhead. */
const AROUND = 20
/** px of the screen within which all of a way has to lie to be left out. */
const STILL = 2
/** px of the screen between two dots. */
const APART = 6

const lineOf = (points: readonly Point[]): string =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('')

/** Strokes of no length are round dots; those that would touch the last one are left out. */
function dotsOf(points: readonly Point[], from: Point): string {
  let last = from
  let dots = ''
  for (const p of points) {
    if (Math.hypot(p.x - last.x, p.y - last.y) < APART) continue
    last = p
    dots += `M${p.x.toFixed(1)} ${p.y.toFixed(1)}h0`
  }
  return dots
}

/** Frames that are past are full dots, those that come hollow ones; a cross is where it is now. */
function Way({ points, at }: { points: readonly Point[]; at: number }) {
  const { x, y } = points[at]!
  const line = lineOf(points)
  const [past, coming] = [dotsOf(points.slice(0, at).reverse(), { x, y }), dotsOf(points.slice(at + 1), { x, y })]
  return (
    <g data-testid="way" fill="none" strokeLinecap="round">
      <path d={line} stroke="#000" strokeOpacity={0.55} strokeWidth={3.5} />
      <path d={line} stroke="#a9ecd9" strokeWidth={1} />
      <path d={past} stroke="#a9ecd9" strokeWidth={4.4} />
      <path d={coming} stroke="#a9ecd9" strokeWidth={4.4} />
      <path d={coming} stroke="#141414" strokeWidth={2.4} />
      <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} stroke="#000" strokeOpacity={0.6} strokeWidth={3.5} />
      <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} stroke="#a9ecd9" strokeWidth={1.5} />
    </g>
  )
}

interface Props {
  layer: Layer
  /** The chosen one: others keep their ways to themselves. */
  piece: Piece | undefined
  frame: number
  camera: Camera
}

export function Ways({ layer, piece: own, frame, camera }: Props) {
  const isHidden = useHeldKey('x')
  const from = Math.max(layer.span.from, frame - AROUND)
  const to = Math.min(layer.span.to, frame + AROUND + 1)
  const isLayerKeyed = isKeyed(layer.place)
  const moving: (Piece | null)[] = layer.matte.filter(p => isKeyed(p.motion) && (!own || p === own))
  if (isLayerKeyed) moving.unshift(null)
  if (isHidden || moving.length === 0 || frame < from || frame >= to) return null
  const map = onScreen(camera)
  const extent = (values: number[]) => Math.max(...values) - Math.min(...values)
  return (
    <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
      {moving.map(piece => {
        const points = wayOf(layer, piece, from, to).map(p => carry(map, p))
        if (extent(points.map(p => p.x)) < STILL && extent(points.map(p => p.y)) < STILL) return null
        return <Way key={piece?.id ?? 'layer'} points={points} at={frame - from} />
      })}
    </svg>
  )
}
