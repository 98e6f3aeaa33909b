// shot + frame -> plan. Pure and cheap: nothing here touches a pixel.
import { type Affine, after, scaleOf, scaling } from '../affine'
import { sample } from '../keys'
import { planLooks } from '../look'
import { type Need, needsOf, type PlannedPicture } from '../picture'
import { SHAPES, shapeAt } from '../shape'
import {
  fadeAt,
  type Layer,
  momentAt,
  motionMap,
  type Piece,
  placeMap,
  type Shot,
  type Size,
  sourceKind,
} from '../shot'
import { inSpan, type Rate } from '../time'
import { sweepOf } from './sweep'
import type { Plan, PlannedLayer, PlannedPiece } from './types'

function planPiece(piece: Piece, frame: number, outer: Affine): PlannedPiece {
  const kind = SHAPES[piece.shape.kind]
  const mapAt = (moment: number) => after(outer, motionMap(piece.pivot, sample(piece.motion, moment)))
  const shapeIn = (moment: number) => kind.plan(shapeAt(piece.shape, moment), mapAt(moment))
  const to = mapAt(frame)
  const shape = shapeIn(frame)
  const scale = scaleOf(to)
  const grow = sample(piece.grow, frame) * scale
  return {
    shape,
    sweep: sweepOf(piece.blur, frame, shapeIn),
    join: piece.join,
    inverted: piece.inverted,
    strength: sample(piece.strength, frame),
    grow,
    inside: sample(piece.feather.inside, frame) * scale,
    // No softer than it is large: what shrinks to nothing goes with all that lies about it.
    outside: Math.min(sample(piece.feather.outside, frame) * scale, kind.extent(shape, grow)),
  }
}

const pictureAt = ({ source }: Layer, seconds: number, scale: number): PlannedPicture =>
  sourceKind(source).plan(source, seconds, scale, planFrame)

function planPicture(layer: Layer, frame: number, rate: Rate, scale: number): PlannedPicture {
  const { seconds, other } = momentAt(layer.timing, frame - layer.span.from, rate)
  const one = pictureAt(layer, seconds, scale)
  return other ? { kind: 'mix', one, other: pictureAt(layer, other.seconds, scale), share: other.share } : one
}

/** A layer as it is at a frame of its own, for the frame of the shot at which it shows; null where nothing shows. */
function planLayer(
  layer: Layer,
  own: number,
  frame: number,
  copy: number,
  { rate, size }: Shot,
  scale: number,
): PlannedLayer | null {
  if (!inSpan(own, layer.span)) return null
  const keep = (layer.copies?.keep ?? 1) ** copy
  const opacity = sample(layer.opacity, own) * fadeAt(layer.span, layer.fade, own, 1) * keep
  if (opacity <= 0) return null
  const still = sample(layer.place, own)
  const place = {
    ...still,
    x: still.x + copy * (layer.copies?.x ?? 0),
    y: still.y + copy * (layer.copies?.y ?? 0),
  }
  const map = after(scaling(scale), placeMap(layer, place))
  const pictureScale = sourceKind(layer.source).scale(layer.source, { size, scale, shown: scaleOf(map) })
  const pieces = layer.matteOn ? layer.matte : []
  const matte = pieces.flatMap(p => {
    const [at, to] = p.pinnedTo === 'layer' ? ([own, map] as const) : ([frame, scaling(scale)] as const)
    return sample(p.on, at) ? [planPiece(p, at, to)] : []
  })
  return {
    id: layer.id,
    picture: planPicture(layer, own, rate, pictureScale),
    place: after(map, scaling(1 / pictureScale)),
    opacity,
    blend: layer.blend,
    looks: planLooks(layer.looks, own, pictureScale),
    matte,
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
    if (!layer.on || !sourceKind(layer.source).hasPicture(layer.source)) return []
    const { count, later } = layer.copies ?? { count: 0, later: 0 }
    const planned: PlannedLayer[] = []
    for (let i = 0; i <= count; i++) {
      const one = planLayer(layer, frame - i * later, frame, i, shot, scale)
      if (one) planned.push(one)
    }
    return planned
  })
  return { size: scaledSize(shot.size, scale), backdrop: shot.backdrop, layers }
}

/** Every take moment a plan needs, groups included, nearest first. */
export const neededFrames = (plan: Plan): Need[] => plan.layers.flatMap(layer => needsOf(layer.picture))
