// A plate from frames of a set: the mean of those in which nobody is, or of those in which somebody is never long in one place what is there as a rule.
import type { Cells } from './cells'

const PLANES = ['y', 'u', 'v', 'luma'] as const

/** Adds a share of one picture to another. */
export function addCells(to: Cells, from: Cells, share: number): void {
  for (const name of PLANES) {
    const [sum, part] = [to[name], from[name]]
    for (let i = 0; i < sum.length; i++) sum[i]! += part[i]! * share
  }
}

/** The planes of a picture, apart from the kernels' memory. */
export type Kept = Record<(typeof PLANES)[number], Float32Array>

export const keptCells = ({ y, u, v, luma }: Cells): Kept => ({
  y: y.slice(),
  u: u.slice(),
  v: v.slice(),
  luma: luma.slice(),
})

/** The median of each value over frames in which people move about, in `out`: what shows in more than half of them. */
export function medianCells(all: readonly Kept[], out: Cells): void {
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
}
