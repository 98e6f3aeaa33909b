// From a layer's own px to the shot's.
import { type Affine, radians } from '../affine'
import type { Layer, Motion, Place, Point } from './types'

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
