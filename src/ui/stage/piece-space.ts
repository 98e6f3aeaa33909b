// From a piece's own px to the screen's, and back.
import type { Camera } from '../../app/store'
import { sample } from '../../core/keys'
import type { Layer, Piece } from '../../core/shot'

export interface Space {
  /** Screen px a piece's px takes. */
  scale: number
  toScreen(x: number, y: number): { x: number; y: number }
}

export function pieceSpace(layer: Layer, piece: Piece, frame: number, camera: Camera): Space {
  const place = piece.pinnedTo === 'layer' ? sample(layer.place, frame) : { x: 0, y: 0, scale: 1 }
  const scale = place.scale * camera.zoom
  return {
    scale,
    toScreen: (x, y) => ({
      x: camera.x + (place.x + x * place.scale) * camera.zoom,
      y: camera.y + (place.y + y * place.scale) * camera.zoom,
    }),
  }
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180
export const degrees = (r: number): number => (r * 180) / Math.PI

/** An angle in degrees brought next to another one, so that a turn never jumps by a whole circle. */
export const nearAngle = (angle: number, to: number): number => angle - 360 * Math.round((angle - to) / 360)

export const round = (v: number): number => Math.round(v * 100) / 100
