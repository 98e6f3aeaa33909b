// A plate from frames of a set: from those in which nobody is, or from those in which somebody is never long in one place.
import { blankCells, type Cells } from './cells'

const PLANES = ['y', 'u', 'v', 'luma'] as const

/** The mean of frames in which nobody is: their noise is averaged away. */
export function meanCells(all: readonly Cells[]): Cells {
  const out = blankCells(all[0]!.full)
  for (const name of PLANES) {
    const to = out[name]
    for (const cells of all) {
      const from = cells[name]
      for (let i = 0; i < to.length; i++) to[i]! += from[i]! / all.length
    }
  }
  return out
}

/** The median of each value over frames in which people move about: what shows in more than half of them. */
export function medianCells(all: readonly Cells[]): Cells {
  const out = blankCells(all[0]!.full)
  const n = all.length
  const sorted = new Float32Array(n)
  const middle = n >> 1
  for (const name of PLANES) {
    const planes = all.map(cells => cells[name])
    const to = out[name]
    for (let i = 0; i < to.length; i++) {
      for (let j = 0; j < n; j++) {
        const value = planes[j]![i]!
        let at = j
        while (at > 0 && sorted[at - 1]! > value) {
          sorted[at] = sorted[at - 1]!
          at--
        }
        sorted[at] = value
      }
      to[i] = n % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
    }
  }
  return out
}
