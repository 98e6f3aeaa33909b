// On which side of a seam the people of either take are, told by where each changes over time.
import { radians } from '../affine'
import type { Line } from '../shape'
import type { Differences, Seam } from './seam'

/** How much may speak against a side, for each part that speaks for it. */
const AGAINST = 0.1

/** How much each of some cells changes over time: the variance of what is added, frame by frame, in squared codes. */
export function changes(count: number) {
  const [sums, squares] = [new Float64Array(count), new Float64Array(count)]
  let frames = 0
  return {
    add(codes: ArrayLike<number>): void {
      frames++
      for (let i = 0; i < count; i++) {
        sums[i]! += codes[i]!
        squares[i]! += codes[i]! ** 2
      }
    },
    variance: (): Float64Array => squares.map((square, i) => Math.max(0, square / frames - (sums[i]! / frames) ** 2)),
  }
}

/** The side of a seam: that which its line's normal points to, the other one, or neither for certain. */
export type Side = 'ahead' | 'behind' | 'unclear'

/**
 * On which side of a seam the people of the one take move, and those of the other do not. `one` and `other` are how much the cells of either change. It is unclear
 * where nobody moves, or somebody of both on one side.
 */
export function sideOf(
  { width, somebody }: Differences,
  seam: Seam,
  { angle }: Line,
  one: ArrayLike<number>,
  other: ArrayLike<number>,
): Side {
  const [nx, ny] = [Math.cos(radians(angle)), Math.sin(radians(angle))]
  const isAhead = (x: number, y: number): boolean => {
    if (!('runs' in seam)) return (x + 0.5 - seam.x) * nx + (y + 0.5 - seam.y) * ny > 0
    return seam.runs === 'down' ? x + 0.5 > seam.at[y]! === nx > 0 : y + 0.5 > seam.at[x]! === ny > 0
  }
  let [ahead, behind] = [0, 0]
  somebody.forEach((is, i) => {
    if (is === 0) return
    const more = one[i]! - other[i]!
    if (isAhead(i % width, Math.floor(i / width))) ahead += more
    else behind += more
  })
  if (behind > 0 && ahead < AGAINST * behind) return 'behind'
  return ahead > 0 && behind < AGAINST * ahead ? 'ahead' : 'unclear'
}
