// What a frame tells of its take beside who is there: how sharp it is, what of it is clipped, how much of it lies in shadow.
import type { Kernels } from '../render'
import { type Cells, LIFT } from './cells'
import type { Plane } from './plane'

/** Codes that are as good as black, and as white. */
const BLACK = LIFT + 0.75
const WHITE = LIFT + 254
/** Codes a cell by which the plate has to change for sharpness to be told there. */
const SLOPE = 6
/** What is left of the light in shadow that is worth the name. */
const SHADED = 0.8
/** Log odds below which a cell is told only just. */
const DOUBT = 1.5
/** Cells along each of a border that are its own, and what counts as one at least. */
const WIDE = 6
const BORDER = 100
/** Fewer places tell nothing. */
const FEW = 60

/** How much sharper a frame is than its plate where nobody is (`is` 0): the ratio of what both change by along rows; 1 where too little is seen. */
export function sharpness(frame: Cells, plate: Cells, is: Plane): number {
  const { k, width, height } = frame
  return k.scope(() => {
    const sums = k.alloc(12)
    k.changeSums({
      frame: frame.y.byteOffset,
      plate: plate.y.byteOffset,
      is: is.byteOffset,
      width,
      height,
      least: SLOPE,
      sums,
    })
    const [own, other] = k.floats(sums, 2) as unknown as [number, number]
    return k.ints(sums + 8, 1)[0]! < FEW ? 1 : own / other
  })
}

/** What is clipped in a frame, as shares of its cells. */
export interface Clipped {
  /** Black and white beyond telling. */
  dark: number
  bright: number
}

/** Counts what is. */
export function clipped({ k, y }: Cells): Clipped {
  return k.scope(() => {
    const counts = k.alloc(8)
    k.clippedCells(y.byteOffset, y.length, BLACK, WHITE, counts)
    const [dark, bright] = k.ints(counts, 2) as unknown as [number, number]
    return { dark: dark / y.length, bright: bright / y.length }
  })
}

/** What a frame's cells come to, as shares of them. */
export interface Tally {
  /** Somebody is there. */
  share: number
  /** Nobody is there but their shadow. */
  shade: number
  /** Told only just, in shares of those along somebody's border. */
  unsure: number
}

/** Counts cells, of `all` that the frame has. `told`: log odds of somebody; `is`: 1 where those are above nought; `left`: how much of the plate's light is. */
export function tally(k: Kernels, told: Plane, is: Plane, left: Plane, all = told.length): Tally {
  return k.scope(() => {
    const counts = k.alloc(16)
    k.tallyCells(told.byteOffset, is.byteOffset, left.byteOffset, told.length, DOUBT, SHADED, counts)
    const [there, border, doubtful, shade] = k.ints(counts, 4) as unknown as [number, number, number, number]
    const unsure = Math.min(1, doubtful / Math.max(BORDER, border * WIDE))
    return { share: there / all, shade: shade / all, unsure }
  })
}
