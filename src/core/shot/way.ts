// The way that something takes through the picture.
import { carry, type Point } from '../affine'
import { sample } from '../keys'
import { motionMap, placeMap } from './place'
import type { Layer, Piece } from './types'

/** Where that lies in the shot about which a layer turns, or one of its pieces, frame by frame from `from` to before `to`; px of the shot. */
export function wayOf(layer: Layer, piece: Piece | null, from: number, to: number): Point[] {
  return Array.from({ length: Math.max(0, to - from) }, (_, i) => {
    const place = placeMap(layer, sample(layer.place, from + i))
    if (!piece) return carry(place, layer.anchor)
    const own = carry(motionMap(piece.pivot, sample(piece.motion, from + i)), piece.pivot)
    return piece.pinnedTo === 'shot' ? own : carry(place, own)
  })
}
