// A film or still that is a matte, white where something is to be kept.
import { shapeWith } from '../shape'
import { asTake, takeSeconds } from '../source'
import { frameToSeconds } from '../time'
import { layerSize } from './edits/pieces'
import { makeLayer, makePiece } from './make'
import { named } from './names'
import { framesOf } from './timing'
import type { Layer, Piece, Shot, Take } from './types'

/** Frames by which a matte may be longer or shorter than what it was made for. */
const NEARLY = 2

/**
 * A take as the matte of a layer: a layer over the whole of that one's picture, and a piece that is as bright as it. A matte as long as that
 * layer's take goes with the take; one as long as the shot goes with the shot; any other begins where the layer does.
 */
export function matteOf(take: Take, layer: Layer, shot: Shot, takes: readonly Take[]): { matte: Layer; piece: Piece } {
  const size = layerSize(layer, shot, takes)
  const made = makeLayer(take, size, shot.rate)
  const scale = take.picture ? size.width / take.picture.size.width : 1
  const own = takes.find(t => t.digest === asTake(layer.source)?.digest)
  const frames = framesOf(take, shot.rate)
  const isLike = (other: number) => Math.abs(frames - other) <= NEARLY
  const isOfTake = own !== undefined && Number.isFinite(takeSeconds(own)) && isLike(framesOf(own, shot.rate))
  const from = isLike(shot.length) ? frameToSeconds(Math.max(0, layer.span.from), shot.rate) : 0
  const matte: Layer = {
    ...made,
    name: named(layer.name, 'matte'),
    place: { x: size.width / 2, y: size.height / 2, scale, angle: 0 },
    span: { ...layer.span },
    timing: isOfTake ? structuredClone(layer.timing) : { kind: 'play', from, speed: 1, mixed: null },
    sound: { ...made.sound, on: false },
    on: false,
  }
  return {
    matte,
    piece: { ...makePiece(shapeWith('layer', { layer: matte.id, of: 'brightness' })), pinnedTo: 'layer' },
  }
}
