// From a layer's own px to the shot's.
import type { Layer, Place, Point } from './types'

const radians = (degrees: number): number => (degrees * Math.PI) / 180

/**
 * Where a point of a layer's picture comes to lie in the shot. A flip mirrors the picture about its anchor, so the
 * anchor itself always lies at the place.
 */
export function carry({ anchor, flip }: Pick<Layer, 'anchor' | 'flip'>, place: Place, { x, y }: Point): Point {
  const dx = (x - anchor.x) * place.scale * (flip.across ? -1 : 1)
  const dy = (y - anchor.y) * place.scale * (flip.down ? -1 : 1)
  const cos = Math.cos(radians(place.angle))
  const sin = Math.sin(radians(place.angle))
  return { x: place.x + dx * cos - dy * sin, y: place.y + dx * sin + dy * cos }
}
