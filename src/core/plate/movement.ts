// How the camera of a take stands against that of its plate, and the plate as that camera would have seen it.
import type { Size } from '../shot/types'
import type { Cells } from './cells'
import type { Plane } from './plane'

/** Where a place of the frame lies in the plate, about the picture's middle: shift in px, turn in radians, scale. */
export interface Movement {
  x: number
  y: number
  turn: number
  scale: number
}

export const STILL: Movement = { x: 0, y: 0, turn: 0, scale: 1 }

/** How far apart the corner that differs most lies between two, px. */
export function farBetween(one: Movement, other: Movement, { width, height }: Size): number {
  const reach = Math.hypot(width, height) / 2
  return (
    Math.hypot(one.x - other.x, one.y - other.y) + reach * Math.hypot(one.turn - other.turn, one.scale - other.scale)
  )
}

/** A plate as the camera of the frame would have seen it. Throws OutOfMemory. */
export function movedPlate(plate: Cells, { x, y, turn, scale }: Movement, out: Cells): void {
  const { k } = plate
  const go = ({ width, height }: Size, from: Plane, to: Plane, px: number) => {
    if (turn === 0 && scale === 1)
      return k.scope(() =>
        k.shiftPlane({
          src: from.byteOffset,
          width,
          height,
          x: x / px,
          y: y / px,
          dst: to.byteOffset,
          row: k.alloc(width * 4),
        }),
      )
    const [cx, cy] = [(width - 1) / 2, (height - 1) / 2]
    const [cos, sin] = [scale, scale * turn]
    const x0 = cx - cos * cx + sin * cy + x / px
    const y0 = cy - sin * cx - cos * cy + y / px
    k.turnPlane({ src: from.byteOffset, width, height, x0, y0, cos, sin, dst: to.byteOffset })
  }
  for (const name of ['y', 'u', 'v'] as const) go(plate, plate[name], out[name], 2)
  go(plate.full, plate.luma, out.luma, 1)
}
