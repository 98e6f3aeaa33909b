// How the camera of a take stands against that of its plate, and the plate as that camera would have seen it.
import type { Size } from '../shot/types'
import type { Cells } from './cells'

/** Where a place of the frame lies in the plate, about the picture's middle: shift in px, turn in radians, scale. */
export interface Movement {
  x: number
  y: number
  turn: number
  scale: number
}

export const STILL: Movement = { x: 0, y: 0, turn: 0, scale: 1 }

/** Catmull–Rom weights of the four samples about a place between the middle two. */
function weightsAt(t: number): [number, number, number, number] {
  return [
    (-t + 2 * t * t - t * t * t) / 2,
    (2 - 5 * t * t + 3 * t * t * t) / 2,
    (t + 4 * t * t - 3 * t * t * t) / 2,
    (-t * t + t * t * t) / 2,
  ]
}

/** A plane between its samples, its border going on beyond it. */
export function sampleAt({ width, height }: Size, plane: Float32Array, x: number, y: number): number {
  const [ix, iy] = [Math.floor(x), Math.floor(y)]
  const wx = weightsAt(x - ix)
  const wy = weightsAt(y - iy)
  let sum = 0
  for (let b = 0; b < 4; b++) {
    const row = Math.max(0, Math.min(height - 1, iy + b - 1)) * width
    let across = 0
    for (let a = 0; a < 4; a++) across += wx[a]! * plane[row + Math.max(0, Math.min(width - 1, ix + a - 1))]!
    sum += wy[b]! * across
  }
  return sum
}

/** How far apart the corner that differs most lies between two, px. */
export function farBetween(one: Movement, other: Movement, { width, height }: Size): number {
  const reach = Math.hypot(width, height) / 2
  return (
    Math.hypot(one.x - other.x, one.y - other.y) + reach * Math.hypot(one.turn - other.turn, one.scale - other.scale)
  )
}

/** A plane shifted by (x, y) of its samples. */
function shifted(size: Size, from: Float32Array, x: number, y: number, to: Float32Array): void {
  const { width, height } = size
  const [ix, iy] = [Math.floor(x), Math.floor(y)]
  const [wx, wy] = [weightsAt(x - ix), weightsAt(y - iy)]
  const column = (px: number): number => Math.max(0, Math.min(width - 1, px))
  const rows: Float32Array[] = []
  for (let py = 0; py < height; py++) {
    for (let b = 0; b < 4; b++) {
      const at = Math.max(0, Math.min(height - 1, py + iy + b - 1)) * width
      rows[b] = from.subarray(at, at + width)
    }
    const down = new Float32Array(width)
    for (let px = 0; px < width; px++) {
      down[px] = wy[0] * rows[0]![px]! + wy[1] * rows[1]![px]! + wy[2] * rows[2]![px]! + wy[3] * rows[3]![px]!
    }
    for (let px = 0, i = py * width; px < width; px++, i++) {
      const at = px + ix
      to[i] =
        at >= 1 && at < width - 2
          ? wx[0] * down[at - 1]! + wx[1] * down[at]! + wx[2] * down[at + 1]! + wx[3] * down[at + 2]!
          : wx[0] * down[column(at - 1)]! +
            wx[1] * down[column(at)]! +
            wx[2] * down[column(at + 1)]! +
            wx[3] * down[column(at + 2)]!
    }
  }
}

/** A plate as the camera of the frame would have seen it. */
export function movedPlate(plate: Cells, { x, y, turn, scale }: Movement, out: Cells): void {
  const go = (size: Size, from: Float32Array, to: Float32Array, px: number) => {
    if (turn === 0 && scale === 1) return shifted(size, from, x / px, y / px, to)
    const [cx, cy] = [(size.width - 1) / 2, (size.height - 1) / 2]
    for (let py = 0, i = 0; py < size.height; py++) {
      for (let qx = 0; qx < size.width; qx++, i++) {
        const [dx, dy] = [qx - cx, py - cy]
        to[i] = sampleAt(size, from, cx + scale * (dx - turn * dy) + x / px, cy + scale * (dy + turn * dx) + y / px)
      }
    }
  }
  for (const name of ['y', 'u', 'v'] as const) go(plate, plate[name], out[name], 2)
  go(plate.full, plate.luma, out.luma, 1)
}
