// shot + frame -> plan. Pure and cheap: nothing here touches a pixel.
import { sample } from '../keys'
import type { Layer, Piece, Place, Shape, Shot, Size } from '../shot'
import { frameToSeconds, inSpan, type Rate } from '../time'
import type { Plan, PlannedLayer, PlannedPicture, PlannedPiece, PlannedShape } from './types'

const radians = (degrees: number): number => (degrees * Math.PI) / 180

function planShape(shape: Shape, frame: number, to: Place): PlannedShape {
  if (shape.kind === 'edge') {
    const { x, y, angle } = sample(shape.line, frame)
    const a = radians(angle)
    return { kind: 'edge', x: to.x + x * to.scale, y: to.y + y * to.scale, nx: Math.cos(a), ny: Math.sin(a) }
  }
  const box = sample(shape.frame, frame)
  const a = radians(box.angle)
  return {
    kind: shape.kind,
    x: to.x + box.x * to.scale,
    y: to.y + box.y * to.scale,
    halfWidth: (box.width / 2) * to.scale,
    halfHeight: (box.height / 2) * to.scale,
    cos: Math.cos(a),
    sin: Math.sin(a),
  }
}

function planPiece(piece: Piece, frame: number, layer: Place, scale: number): PlannedPiece {
  const to = piece.pinnedTo === 'layer' ? layer : { x: 0, y: 0, scale }
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

/** The moment of a layer's source, in seconds, that shows at a frame of the shot. */
export const sourceSeconds = (layer: Layer, frame: number, rate: Rate): number =>
  layer.timing.from + frameToSeconds(frame - layer.span.from, rate)

function planPicture(layer: Layer, seconds: number, scale: number): PlannedPicture {
  const { source } = layer
  if (source.kind === 'take') return { kind: 'take', digest: source.digest, seconds }
  const frame = Math.floor((seconds + 1e-6) * (source.shot.rate.num / source.shot.rate.den))
  return { kind: 'group', plan: { ...planFrame(source.shot, frame, scale), backdrop: null } }
}

/** The size of a picture at a scale, at least one pixel either way. */
export const scaledSize = (size: Size, scale: number): Size => ({
  width: Math.max(1, Math.round(size.width * scale)),
  height: Math.max(1, Math.round(size.height * scale)),
})

/**
 * Plans one frame of a shot at a scale (1: full size). Layers that are off, out of their span, or wholly transparent
 * are left out. A group is planned at the scale it is shown at, so that its edges stay as fine as any other.
 */
export function planFrame(shot: Shot, frame: number, scale = 1): Plan {
  const layers = shot.layers.flatMap((layer): PlannedLayer[] => {
    if (!layer.on || !inSpan(frame, layer.span)) return []
    const opacity = sample(layer.opacity, frame)
    if (opacity <= 0) return []
    const own = sample(layer.place, frame)
    const place = { x: own.x * scale, y: own.y * scale, scale: own.scale * scale }
    const isGroup = layer.source.kind === 'group'
    const pieces = layer.matteOn ? layer.matte.filter(p => p.on) : []
    return [
      {
        id: layer.id,
        picture: planPicture(layer, sourceSeconds(layer, frame, shot.rate), place.scale),
        place: isGroup ? { ...place, scale: 1 } : place,
        opacity,
        matte: pieces.map(piece => planPiece(piece, frame, place, scale)),
      },
    ]
  })
  return { size: scaledSize(shot.size, scale), backdrop: shot.backdrop, layers }
}

/** Every take moment a plan needs, groups included, nearest first. */
export function neededFrames(plan: Plan): { digest: string; seconds: number }[] {
  return plan.layers.flatMap(({ picture }) => {
    if (picture.kind === 'take') return [{ digest: picture.digest, seconds: picture.seconds }]
    return picture.kind === 'group' ? neededFrames(picture.plan) : []
  })
}
