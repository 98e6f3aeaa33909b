// From a piece's own px to the screen's, and back.
import type { Camera } from '../../app/store'
import { sample } from '../../core/keys'
import { carry, type Layer, type Piece, type Point } from '../../core/shot'

export interface Space {
  /** Screen px a piece's px takes. */
  scale: number
  toScreen(x: number, y: number): Point
  /** A direction of the piece as it lies on the screen, of the same length. */
  way(x: number, y: number): Point
  /** A movement on the screen in px of the piece. */
  back(dx: number, dy: number): Point
}

/** The space that a piece is told in: its layer's, turned and mirrored as that is, or the shot's. */
export function pieceSpace(layer: Layer, piece: Piece, frame: number, camera: Camera): Space {
  if (piece.pinnedTo === 'shot') {
    return {
      scale: camera.zoom,
      toScreen: (x, y) => ({ x: camera.x + x * camera.zoom, y: camera.y + y * camera.zoom }),
      way: (x, y) => ({ x, y }),
      back: (dx, dy) => ({ x: dx / camera.zoom, y: dy / camera.zoom }),
    }
  }
  const place = sample(layer.place, frame)
  const scale = place.scale * camera.zoom
  const cos = Math.cos(radians(place.angle))
  const sin = Math.sin(radians(place.angle))
  const fx = layer.flip.across ? -1 : 1
  const fy = layer.flip.down ? -1 : 1
  return {
    scale,
    toScreen(x, y) {
      const at = carry(layer, place, { x, y })
      return { x: camera.x + at.x * camera.zoom, y: camera.y + at.y * camera.zoom }
    },
    way: (x, y) => ({ x: x * fx * cos - y * fy * sin, y: x * fx * sin + y * fy * cos }),
    back: (dx, dy) => ({ x: ((dx * cos + dy * sin) * fx) / scale, y: ((dy * cos - dx * sin) * fy) / scale }),
  }
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180
export const degrees = (r: number): number => (r * 180) / Math.PI

/** An angle in degrees brought next to another one, so that a turn never jumps by a whole circle. */
export const nearAngle = (angle: number, to: number): number => angle - 360 * Math.round((angle - to) / 360)

export const round = (v: number): number => Math.round(v * 100) / 100
