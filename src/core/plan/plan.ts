// shot + frame -> plan. Pure and cheap: nothing here touches a pixel.
import { sample } from '../keys'
import {
  carry,
  type Layer,
  momentAt,
  type Piece,
  type Place,
  type Point,
  type Shape,
  type Shot,
  type Size,
} from '../shot'
import { inSpan, type Rate, secondsToFrame } from '../time'
import type { Matrix, Plan, PlannedLayer, PlannedPicture, PlannedPiece, PlannedShape } from './types'

const radians = (degrees: number): number => (degrees * Math.PI) / 180

/** From the px that a piece is told in to px of the output. */
interface Space {
  scale: number
  point(at: Point): Point
  /** A direction, of the same length. */
  way(direction: Point): Point
}

const shotSpace = (scale: number): Space => ({
  scale,
  point: ({ x, y }) => ({ x: x * scale, y: y * scale }),
  way: direction => direction,
})

function layerSpace(layer: Layer, place: Place, scale: number): Space {
  const at = (p: Point): Point => {
    const { x, y } = carry(layer, place, p)
    return { x: x * scale, y: y * scale }
  }
  const cos = Math.cos(radians(place.angle))
  const sin = Math.sin(radians(place.angle))
  return {
    scale: place.scale * scale,
    point: at,
    way(direction) {
      const x = layer.flip.across ? -direction.x : direction.x
      const y = layer.flip.down ? -direction.y : direction.y
      return { x: x * cos - y * sin, y: x * sin + y * cos }
    },
  }
}

/** The matrix of a layer's picture, which may itself have been made at a scale. */
function matrixOf(space: Space, pictureScale: number): Matrix {
  const across = space.way({ x: 1, y: 0 })
  const down = space.way({ x: 0, y: 1 })
  const origin = space.point({ x: 0, y: 0 })
  const s = space.scale / pictureScale
  return { a: across.x * s, b: across.y * s, c: down.x * s, d: down.y * s, x: origin.x, y: origin.y }
}

function planShape(shape: Shape, frame: number, to: Space): PlannedShape {
  const own = shape.kind === 'edge' ? sample(shape.line, frame) : sample(shape.frame, frame)
  const { x, y } = to.point(own)
  const a = radians(own.angle)
  const along = to.way({ x: Math.cos(a), y: Math.sin(a) })
  if (shape.kind === 'edge') return { kind: 'edge', x, y, nx: along.x, ny: along.y }
  const { width, height } = sample(shape.frame, frame)
  const half = { halfWidth: (width / 2) * to.scale, halfHeight: (height / 2) * to.scale }
  return { kind: shape.kind, x, y, ...half, cos: along.x, sin: along.y }
}

function planPiece(piece: Piece, frame: number, to: Space): PlannedPiece {
  return {
    shape: planShape(piece.shape, frame, to),
    join: piece.join,
    inverted: piece.inverted,
    strength: sample(piece.strength, frame),
    grow: sample(piece.grow, frame) * to.scale,
    inside: sample(piece.feather.inside, frame) * to.scale,
    outside: sample(piece.feather.outside, frame) * to.scale,
  }
}

function pictureAt(layer: Layer, seconds: number, scale: number): PlannedPicture {
  const { source } = layer
  if (source.kind === 'take') return { kind: 'take', digest: source.digest, seconds }
  const frame = secondsToFrame(seconds, source.shot.rate)
  return { kind: 'group', plan: { ...planFrame(source.shot, frame, scale), backdrop: null } }
}

function planPicture(layer: Layer, frame: number, rate: Rate, scale: number): PlannedPicture {
  const { seconds, other } = momentAt(layer.timing, frame - layer.span.from, rate)
  const one = pictureAt(layer, seconds, scale)
  return other ? { kind: 'mix', one, other: pictureAt(layer, other.seconds, scale), share: other.share } : one
}

/** How much of a layer there is for its fades, 0..1, at a frame of its span. */
export function fadeAt({ span, fade }: Pick<Layer, 'span' | 'fade'>, frame: number): number {
  const coming = Math.min(1, (frame - span.from + 1) / (fade.in + 1))
  const going = Math.min(1, (span.to - frame) / (fade.out + 1))
  return coming * going
}

/** A layer as it is at a frame of its own, for the frame of the shot at which it shows; null where nothing shows. */
function planLayer(
  layer: Layer,
  own: number,
  frame: number,
  copy: number,
  rate: Rate,
  scale: number,
): PlannedLayer | null {
  if (!inSpan(own, layer.span)) return null
  const keep = (layer.copies?.keep ?? 1) ** copy
  const opacity = sample(layer.opacity, own) * fadeAt(layer, own) * keep
  if (opacity <= 0) return null
  const still = sample(layer.place, own)
  const place = {
    ...still,
    x: still.x + copy * (layer.copies?.x ?? 0),
    y: still.y + copy * (layer.copies?.y ?? 0),
  }
  const space = layerSpace(layer, place, scale)
  const pictureScale = layer.source.kind === 'group' ? space.scale : 1
  const pieces = layer.matteOn ? layer.matte.filter(p => p.on) : []
  return {
    id: layer.id,
    picture: planPicture(layer, own, rate, pictureScale),
    place: matrixOf(space, pictureScale),
    opacity,
    blend: layer.blend,
    matte: pieces.map(p => (p.pinnedTo === 'layer' ? planPiece(p, own, space) : planPiece(p, frame, shotSpace(scale)))),
  }
}

/** The size of a picture at a scale, at least one pixel either way. */
export const scaledSize = (size: Size, scale: number): Size => ({
  width: Math.max(1, Math.round(size.width * scale)),
  height: Math.max(1, Math.round(size.height * scale)),
})

/**
 * Plans one frame of a shot at a scale (1: full size). Layers that are off, out of their span, wholly transparent or
 * only heard are left out; a layer's copies lie behind it. A group is planned at the scale it is shown at, so that its
 * edges stay as fine as any other.
 */
export function planFrame(shot: Shot, frame: number, scale = 1): Plan {
  const layers = shot.layers.flatMap((layer): PlannedLayer[] => {
    if (!layer.on || (layer.source.kind === 'take' && layer.source.use === 'sound')) return []
    const { count, later } = layer.copies ?? { count: 0, later: 0 }
    const planned: PlannedLayer[] = []
    for (let i = 0; i <= count; i++) {
      const one = planLayer(layer, frame - i * later, frame, i, shot.rate, scale)
      if (one) planned.push(one)
    }
    return planned
  })
  return { size: scaledSize(shot.size, scale), backdrop: shot.backdrop, layers }
}

function takesIn(picture: PlannedPicture): { digest: string; seconds: number }[] {
  switch (picture.kind) {
    case 'take':
      return [{ digest: picture.digest, seconds: picture.seconds }]
    case 'group':
      return neededFrames(picture.plan)
    case 'mix':
      return [...takesIn(picture.one), ...takesIn(picture.other)]
    case 'colour':
      return []
  }
}

/** Every take moment a plan needs, groups included, nearest first. */
export const neededFrames = (plan: Plan): { digest: string; seconds: number }[] =>
  plan.layers.flatMap(layer => takesIn(layer.picture))
