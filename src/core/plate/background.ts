// A plate from frames of a set: the mean of those in which nobody is, or of those in which somebody is never long in one place what is there as a rule.
import type { Cells } from './cells'
import { boxMean, roomFor } from './plane'

export const PLANES = ['y', 'u', 'v', 'luma'] as const

/** The planes of a picture, apart from the kernels' memory. */
export type Kept = Record<(typeof PLANES)[number], Float32Array>

/** Adds a share of one picture to another. */
export function addCells(to: Kept, from: Kept, share: number): void {
  for (const name of PLANES) {
    const [sum, part] = [to[name], from[name]]
    for (let i = 0; i < sum.length; i++) sum[i]! += part[i]! * share
  }
}

export const keptCells = ({ y, u, v, luma }: Cells): Kept => ({
  y: y.slice(),
  u: u.slice(),
  v: v.slice(),
  luma: luma.slice(),
})

/** Values that are told at a time, so that those of all frames lie close together. */
const AT_ONCE = 2048

/**
 * The median of each value over frames in which people move about, in `out`: what shows in more than half of them. `where`: 1 for each cell to be told, else 0; all of them without it. Throws OutOfMemory.
 */
export function medianCells(all: readonly Kept[], out: Cells, where?: ArrayLike<number>): void {
  const { k, full, width } = out
  const cellOf = (p: number) => (Math.floor(p / full.width) >> 1) * width + ((p % full.width) >> 1)
  k.scope(() => {
    const [rows, medians] = [roomFor(k, all.length * AT_ONCE), roomFor(k, AT_ONCE)]
    for (const name of PLANES) {
      const to = out[name]
      for (let from = 0; from < to.length; from += AT_ONCE) {
        const n = Math.min(AT_ONCE, to.length - from)
        const isTold = (i: number) => where![name === 'luma' ? cellOf(from + i) : from + i] === 1
        let first = 0
        if (where) while (first < n && !isTold(first)) first++
        if (first === n) continue
        for (const [j, cells] of all.entries()) rows.set(cells[name].subarray(from, from + n), j * AT_ONCE)
        k.medianRow({ src: rows.byteOffset, rows: all.length, stride: AT_ONCE, n, out: medians.byteOffset })
        if (where) {
          for (let i = first; i < n; i++) if (isTold(i)) to[from + i] = medians[i]!
        } else to.set(medians.subarray(0, n), from)
      }
    }
  })
}

/** Codes by which frames differ that show the same, of brightness and of colour. */
export const ALIKE = { y: 12, u: 7, v: 7 } as const
/** Share of the frames in which a place has to look as in the plate. */
const OFTEN = 0.5
/** Cells round each that have to agree for the most part. */
const ROUND = 2

/** Of each cell, 1 where what a plate shows is what few of the frames that it was made of show, else 0: there it may never have been the set. Throws OutOfMemory. */
export function seldomSeen(all: readonly Kept[], plate: Cells): Float32Array {
  const { k, y, u, v } = plate
  const often = new Float32Array(y.length)
  for (const cells of all) {
    for (let i = 0; i < often.length; i++) {
      const isSame =
        Math.abs(cells.y[i]! - y[i]!) < ALIKE.y &&
        Math.abs(cells.u[i]! - u[i]!) < ALIKE.u &&
        Math.abs(cells.v[i]! - v[i]!) < ALIKE.v
      if (isSame) often[i]!++
    }
  }
  return k.scope(() => {
    const open = k.floats(k.alloc(often.length * 4), often.length)
    for (let i = 0; i < open.length; i++) open[i] = often[i]! < OFTEN * all.length ? 1 : 0
    boxMean(k, plate, open, ROUND, open)
    return Float32Array.from(open, share => (share > 0.5 ? 1 : 0))
  })
}
