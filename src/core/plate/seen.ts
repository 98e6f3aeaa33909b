// What a frame tells of its take beside who is there: how sharp it is, what of it is clipped, how much of it lies in shadow.
import { type Cells, LIFT } from './cells'
import type { Plane } from './plane'

/** Codes that are as good as black, and as white. */
const BLACK = LIFT + 0.75
const WHITE = LIFT + 254
/** Codes a cell by which the plate has to change for sharpness to be told there. */
const SLOPE = 6
/** What is left of the light in shadow that is worth the name. */
const SHADED = 0.8
/** Fewer places tell nothing. */
const FEW = 60

/** How much sharper a frame is than its plate where nobody is (`busy` ≤ 0): the ratio of what both change by along rows; 1 where too little is seen. */
export function sharpness(frame: Cells, plate: Cells, busy: Plane): number {
  const { width, height } = frame
  let [own, other, count] = [0, 0, 0]
  for (let y = 2; y < height - 2; y += 2) {
    for (let x = 2, i = y * width + 2; x < width - 2; x++, i++) {
      const slope = Math.abs(plate.y[i + 1]! - plate.y[i - 1]!)
      if (slope < SLOPE || busy[i]! > 0) continue
      other += slope
      own += Math.abs(frame.y[i + 1]! - frame.y[i - 1]!)
      count++
    }
  }
  return count < FEW ? 1 : own / other
}

/** Shares of a picture, 0..1, that are black and white beyond telling. */
export function clipped({ y }: Cells): { dark: number; bright: number } {
  let [dark, bright] = [0, 0]
  for (let i = 0; i < y.length; i++) {
    if (y[i]! < BLACK) dark++
    else if (y[i]! > WHITE) bright++
  }
  return { dark: dark / y.length, bright: bright / y.length }
}

/** The share of a picture, 0..1, in which nobody is but their shadow. */
export function shaded(told: Plane, left: Plane): number {
  let count = 0
  for (let i = 0; i < told.length; i++) if (told[i]! <= 0 && left[i]! < SHADED) count++
  return count / told.length
}
