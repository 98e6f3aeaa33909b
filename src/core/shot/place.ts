// From a layer's own px to the shot's.
import { type Affine, after, carry, radians } from '../affine'
import { sample } from '../keys'
import { type Quad, quadAt } from '../projective'
import type { Layer, Motion, Piece, Place, Point } from './types'

/**
 * How a place carries a layer's picture into the shot. A flip mirrors the picture about its anchor, so the anchor itself
 * always lies at the place.
 */
export function placeMap({ anchor, flip }: Pick<Layer, 'anchor' | 'flip'>, place: Place): Affine {
  const cos = Math.cos(radians(place.angle))
  const sin = Math.sin(radians(place.angle))
  const across = place.scale * (flip.across ? -1 : 1)
  const down = place.scale * (flip.down ? -1 : 1)
  const [dx, dy] = [-anchor.x * across, -anchor.y * down]
  return {
    a: across * cos,
    b: across * sin,
    c: -down * sin,
    d: down * cos,
    x: place.x + dx * cos - dy * sin,
    y: place.y + dx * sin + dy * cos,
  }
}

/** How a piece is moved as a whole: turned and enlarged about its pivot, then shifted. */
export const motionMap = (pivot: Point, { x, y, scale, angle }: Motion): Affine =>
  placeMap({ anchor: pivot, flip: { across: false, down: false } }, { x: pivot.x + x, y: pivot.y + y, scale, angle })

/** How px that a piece is told in lie in the shot at a frame. */
export function pieceMap(layer: Pick<Layer, 'anchor' | 'flip' | 'place'>, piece: Piece, frame: number): Affine {
  const motion = motionMap(piece.pivot, sample(piece.motion, frame))
  return piece.pinnedTo === 'shot' ? motion : after(placeMap(layer, sample(layer.place, frame)), motion)
}

/** Where a layer's corners lie in the shot at a frame; null where they are not pinned. */
export function pinnedCorners(layer: Layer, frame: number): Quad | null {
  if (!layer.pin) return null
  const map = placeMap(layer, sample(layer.place, frame))
  return quadAt(sample(layer.pin.corners, frame)).map(p => carry(map, p)) as unknown as Quad
}
