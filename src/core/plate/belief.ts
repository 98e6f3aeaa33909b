// Which of two things each cell is, told by itself and its neighbours together.
import type { Size } from '../shot/types'

/**
 * Min-sum belief propagation of two labels on a grid of four neighbours, by sweeps to the right, left, down and up
 * (Felzenszwalb and Huttenlocher, "Efficient belief propagation for early vision", 2006; in log odds a message of a Potts
 * model is what is known, held within what the bond is worth).
 *
 * `odds`: log odds of each cell by itself. `across[i]` and `down[i]`: what it costs to part cell i from its right and lower
 * neighbour. Returns log odds told together, in `out`.
 */
export function believe(
  { width, height }: Size,
  odds: Float32Array,
  across: Float32Array,
  down: Float32Array,
  sweeps: number,
  out: Float32Array,
  room: BeliefRoom,
): void {
  const { fromLeft, fromRight, fromAbove, fromBelow } = room
  fromLeft.fill(0)
  fromRight.fill(0)
  fromAbove.fill(0)
  fromBelow.fill(0)
  for (let sweep = 0; sweep < sweeps; sweep++) {
    for (let y = 0; y < height; y++) {
      const row = y * width
      for (let i = row; i < row + width - 1; i++) {
        const w = across[i]!
        const m = odds[i]! + fromLeft[i]! + fromAbove[i]! + fromBelow[i]!
        fromLeft[i + 1] = m < -w ? -w : Math.min(m, w)
      }
      for (let i = row + width - 1; i > row; i--) {
        const w = across[i - 1]!
        const m = odds[i]! + fromRight[i]! + fromAbove[i]! + fromBelow[i]!
        fromRight[i - 1] = m < -w ? -w : Math.min(m, w)
      }
    }
    for (let i = 0; i < width * (height - 1); i++) {
      const w = down[i]!
      const m = odds[i]! + fromAbove[i]! + fromLeft[i]! + fromRight[i]!
      fromAbove[i + width] = m < -w ? -w : Math.min(m, w)
    }
    for (let i = width * height - 1; i >= width; i--) {
      const w = down[i - width]!
      const m = odds[i]! + fromBelow[i]! + fromLeft[i]! + fromRight[i]!
      fromBelow[i - width] = m < -w ? -w : Math.min(m, w)
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = odds[i]! + fromLeft[i]! + fromRight[i]! + fromAbove[i]! + fromBelow[i]!
}

export interface BeliefRoom {
  fromLeft: Float32Array
  fromRight: Float32Array
  fromAbove: Float32Array
  fromBelow: Float32Array
}

export function beliefRoom({ width, height }: Size): BeliefRoom {
  const plane = () => new Float32Array(width * height)
  return { fromLeft: plane(), fromRight: plane(), fromAbove: plane(), fromBelow: plane() }
}
