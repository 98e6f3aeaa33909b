// Two pictures of one set: how the light of one stands to the other's, and by how much they differ, cell by cell.

import type { Kernels, Picture } from '../render'
import type { Size } from '../shot/types'
import { blankCells, type Cells } from './cells'
import { type Gain, inLight, type Light, measureGain, measureLight } from './light'
import { readCells } from './read-cells'

export interface Between {
  /** What the light of the other is multiplied by to be that of the one. */
  gain: Gain
  /** The same with light that is added to all of it. */
  veiled: Light
  /** Codes by which they differ, and by which they would in the same light. */
  plain: Float32Array
  matched: Float32Array
}

const apart = (one: Cells, other: Cells): Float32Array =>
  Float32Array.from(
    one.y,
    (y, i) => Math.abs(y - other.y[i]!) + Math.abs(one.u[i]! - other.u[i]!) + Math.abs(one.v[i]! - other.v[i]!),
  )

/** Prepares for comparing pictures of a size, each by its cells of 2×2 px. `k`: a memory of its own. Throws OutOfMemory. */
export function comparer(k: Kernels, size: Size) {
  const [one, other, lit] = [blankCells(k, size), blankCells(k, size), blankCells(k, size)]
  return {
    cells: { width: one.width, height: one.height },
    /** What has been read last, in codes of luma. */
    seen: { one: one.y, other: other.y },
    readOne: (from: Kernels, picture: Picture) => readCells(from, picture, one),
    readOther: (from: Kernels, picture: Picture) => readCells(from, picture, other),
    between(): Between {
      const gain = measureGain(one, other, null)
      inLight(other, { gain, offset: 0 }, lit)
      return { gain, veiled: measureLight(one, other, null, gain), plain: apart(one, other), matched: apart(one, lit) }
    },
  }
}
