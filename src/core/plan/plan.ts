// shot + frame -> plan. Pure and cheap: nothing here touches a pixel.
import { type Affine, after, scaleOf, scaling, UNMOVED } from '../affine'
import { sample } from '../keys'
import { planLooks } from '../look'
import { type FrameNeed, layerNeeds, type Need, type PlannedPicture } from '../picture'
import { SHAPES, shapeAt } from '../shape'
import type { Own } from '../shape/kind'
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
import { asTake } from '../source'
import type { Behind, MatteWith, Moment } from '../source/kind'
import { inSpan } from '../time'
import { flatMap, inPerspective, pinnedAt } from './pin'
import { sweepOf } from './sweep'
import type { Plan, PlannedLayer, PlannedPiece } from './types'

/** Where layers are planned. */
interface Setting {
  shot: Shot
  /** Of the output. */
  size: Size
  /** From px of the shot to those of the output. */
  outer: Affine
  /** Whether it is only looked at. */
  quick: boolean
}

function planPiece(piece: Piece, frame: number, outer: Affine, own: Own, setting: Setting): PlannedPiece {
  const kind = SHAPES[piece.shape.kind]
  const mapAt = (moment: number) => after(outer, motionMap(piece.pivot, sample(piece.motion, moment)))
  const shapeIn = (moment: number) => {
    const to = mapAt(moment)
    const layersOf = (id: string) => planNamed(id, moment, { ...setting, outer: to })
    return kind.plan(shapeAt(piece.shape, moment), to, { layersOf, own })
  }
  const to = mapAt(frame)
  const shape = shapeIn(frame)
  const scale = scaleOf(to)
  const grow = sample(piece.grow, frame) * scale
  return {
    shape,
    sweep: sweepOf(piece.shape.kind, piece.blur, frame, shapeIn),
    join: piece.join,
    inverted: piece.inverted,
    strength: sample(piece.strength, frame),
    grow,
    inside: sample(piece.feather.inside, frame) * scale,
    // No softer than it is large: what shrinks to nothing goes with all that lies about it.
    outside: Math.min(sample(piece.feather.outside, frame) * scale, kind.extent(shape, grow)),
  }
}

function planPicture(layer: Layer, frame: number, scale: number, to: Affine, setting: Setting): PlannedPicture {
  const { source } = layer
  const inside: Moment['planFrame'] = (shot, frame, scale) => planFrame(shot, frame, scale, setting.quick)
  const pictureAt = (seconds: number) =>
    sourceKind(source).plan(source, { seconds, frame, scale, to, planFrame: inside })
  const { seconds, other } = momentAt(layer.timing, frame - layer.span.from, setting.shot.rate)
  const one = pictureAt(seconds)
  return other ? { kind: 'mix', one, other: pictureAt(other.seconds), share: other.share } : one
}

/** The colours that the one piece that adds to a layer's matte says it has; null for its own. */
function coloursOf(pieces: readonly Piece[], frame: number, own: Own): PlannedPicture | null {
  const [first, ...more] = pieces.filter(p => p.join === 'add')
  if (!first || more.length > 0 || first.inverted) return null
  return SHAPES[first.shape.kind].colours?.(shapeAt(first.shape, frame), own) ?? null
}

/** A piece that has grown goes farther where it adds, and takes less away where it does not. */
const outwards = ({ join, inverted }: PlannedPiece): 1 | -1 => ((join === 'subtract') === inverted ? 1 : -1)

/** A layer as it is at a frame of its own, for the frame of the shot at which it shows, and what of it lies behind that; nothing where it shows nothing. */
function planLayer(layer: Layer, own: number, frame: number, copy: number, setting: Setting): PlannedLayer[] {
  const { shot, outer } = setting
  const scale = scaleOf(outer)
  if (!inSpan(own, layer.span)) return []
  const keep = (layer.copies?.keep ?? 1) ** copy
  const opacity = sample(layer.opacity, own) * fadeAt(layer.span, layer.fade, own, 1) * keep
  if (opacity <= 0) return []
  const still = sample(layer.place, own)
  const place = {
    ...still,
    x: still.x + copy * (layer.copies?.x ?? 0),
    y: still.y + copy * (layer.copies?.y ?? 0),
  }
  const map = after(outer, placeMap(layer, place))
  const kind = sourceKind(layer.source)
  const pin = layer.pin ? pinnedAt(layer, layer.pin, own, map, { size: shot.size, scale, quick: false }) : null
  const pinned = (p: Piece) => (p.pinnedTo === 'layer' ? { at: own, to: map } : { at: frame, to: outer })
  const pieces = layer.matteOn ? layer.matte.filter(p => sample(p.on, pinned(p).at)) : []
  const shown: Own = {
    digest: asTake(layer.source)?.digest ?? null,
    moment: momentAt(layer.timing, own - layer.span.from, shot.rate).seconds,
    map,
  }
  const colours = pin ? null : coloursOf(pieces, own, shown)
  // Colours are those of the picture as large as it is.
  const quick = setting.quick && colours === null
  const pictureScale = pin?.scale ?? kind.scale(layer.source, { size: shot.size, scale, shown: scaleOf(map), quick })
  const matteWith: MatteWith = (grow, by, soft) =>
    pieces.map(p => {
      const { at, to } = pinned(p)
      const planned = planPiece(
        p,
        at,
        after({ ...UNMOVED, ...by }, to),
        { ...shown, map: after({ ...UNMOVED, ...by }, map) },
        setting,
      )
      const { inside, outside } = planned
      const grown = planned.grow + grow * outwards(planned)
      return { ...planned, grow: grown, inside: inside + soft / 2, outside: outside + soft / 2 }
    })
  const matte = matteWith(0, { x: 0, y: 0 }, 0)
  const filmed = planPicture(layer, own, pictureScale, pin ? flatMap(pin) : map, setting)
  const picture: PlannedPicture =
    colours && filmed.kind !== 'mix' ? { kind: 'unmixed', picture: filmed, colours } : filmed
  const looks = planLooks(layer.looks, own, pictureScale)
  const planned: PlannedLayer = {
    id: layer.id,
    picture: pin ? inPerspective(layer, picture, looks, pin) : picture,
    place: pin || kind.isPlaced ? UNMOVED : after(map, scaling(1 / pictureScale)),
    opacity,
    blend: layer.blend,
    looks: pin ? [] : looks,
    matte,
  }
  const behind = matte.length > 0 ? (kind.behind?.(layer.source, matteWith, map) ?? []) : []
  const shades = shadesOf(pieces, own, planned, shown)
  return [...(behind.length === 0 ? [planned] : withBehind(planned, behind, setting.size)), ...shades]
}

/**
 * What the pieces of a layer's matte, of which `planned` has the plans, darken behind it: nothing of the layer, so that no view of it alone shows it. What is taken away
 * of somebody by pieces that come after is taken away of their shadow, too.
 */
function shadesOf(pieces: readonly Piece[], frame: number, planned: PlannedLayer, own: Own): PlannedLayer[] {
  const { id, opacity, matte } = planned
  return pieces.flatMap((piece, i) => {
    const shade = SHAPES[piece.shape.kind].shade?.(shapeAt(piece.shape, frame), own)
    if (!shade) return []
    const cutting = matte.slice(i + 1).filter(p => p.join !== 'add')
    const piecesOf = (strength: number): PlannedPiece[] => [
      { shape: shade.shape, sweep: [], join: 'add', inverted: false, strength, grow: 0, inside: 0, outside: 0 },
      ...cutting,
    ]
    // What is more than all of it falls once more onto what is dark already.
    const strengths = [Math.min(1, shade.strength), shade.strength - 1].filter(s => s > 0)
    return strengths.map(
      (strength): PlannedLayer => ({
        id: `${id} shade`,
        picture: { kind: 'colour', colour: '#000000' },
        place: UNMOVED,
        opacity,
        blend: 'normal',
        looks: [],
        matte: piecesOf(strength),
      }),
    )
  })
}

/** A layer with what lies behind its own picture: one picture, where it does not merely lie over what is farther. */
function withBehind(layer: PlannedLayer, behind: readonly Behind[], size: Size): PlannedLayer[] {
  const part = (of: Behind): PlannedLayer => ({ id: layer.id, place: UNMOVED, blend: 'normal', looks: [], ...of })
  const layers = [part({ picture: layer.picture, opacity: 1, matte: layer.matte }), ...behind.map(part)]
  const isPlain = layer.opacity === 1 && layer.blend === 'normal' && layer.looks.length === 0
  if (isPlain) return layers
  return [{ ...layer, matte: [], picture: { kind: 'group', plan: { size, backdrop: null, layers } } }]
}

/** The size of a picture at a scale, at least one pixel either way. */
export const scaledSize = (size: Size, scale: number): Size => ({
  width: Math.max(1, Math.round(size.width * scale)),
  height: Math.max(1, Math.round(size.height * scale)),
})

/** A layer at a frame of the shot, its copies behind it. */
function planCopies(layer: Layer, frame: number, setting: Setting): PlannedLayer[] {
  if (!sourceKind(layer.source).hasPicture(layer.source)) return []
  const { count, later } = layer.copies ?? { count: 0, later: 0 }
  return Array.from({ length: count + 1 }, (_, i) => planLayer(layer, frame - i * later, frame, i, setting)).flat()
}

/** What a layer of the shot shows by itself, also where it is off. */
function planNamed(id: string, frame: number, setting: Setting): PlannedLayer[] {
  const layer = setting.shot.layers.find(l => l.id === id)
  return layer ? planCopies(layer, frame, setting).map(l => ({ ...l, blend: 'normal' as const })) : []
}

/**
 * Plans one frame of a shot at a scale (1: full size). Layers that are off, out of their span, wholly transparent or
 * only heard are left out; a layer's copies lie behind it. A group is planned at the scale it is shown at, so that its
 * edges stay as fine as any other. `quick`: for looking at, where large takes may be made smaller in a way that is quicker than exact.
 */
export function planFrame(shot: Shot, frame: number, scale = 1, quick = false): Plan {
  const size = scaledSize(shot.size, scale)
  const setting: Setting = { shot, size, outer: scaling(scale), quick }
  const layers = shot.layers.flatMap(layer => (layer.on ? planCopies(layer, frame, setting) : []))
  return { size, backdrop: shot.backdrop, layers }
}

/** Everything that a plan needs, groups included, nearest first. */
export const neededFor = (plan: Plan): Need[] => plan.layers.flatMap(layerNeeds)

/** Every moment of takes that it needs. */
export const neededFrames = (plan: Plan): FrameNeed[] => neededFor(plan).filter(need => 'digest' in need)
