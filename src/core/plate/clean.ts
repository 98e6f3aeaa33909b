// Specks and holes that are too small, or too little sure, to be what they were told to be.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import type { Plane } from './plane'

/** Log odds of a cell by itself of which a hole has to have more, on average, to stay one. */
const SURE = 2

export interface Limits {
  /** Parts of fewer cells become what is round them. */
  speck: number
  /** Holes of fewer cells do so too, unless they are sure. */
  hole: number
}

/** Stretches of rows in which cells are of one kind, row by row, those of a row in turns of either kind. */
interface Runs {
  count: number
  /** The first of each row, and after the last row how many there are. */
  firsts: Int32Array
  from: Int32Array
  to: Int32Array
  /** 1 where somebody is. */
  is: Uint8Array
}

function runsOf(k: Kernels, { width, height }: Size, told: Plane): Runs {
  return k.scope(() => {
    const [starts, rows] = [k.alloc(width * height * 4), k.alloc((height + 1) * 4)]
    const count = k.signRuns(told.byteOffset, width, height, starts, rows)
    const from = k.ints(starts, count).slice()
    const firsts = k.ints(rows, height + 1).slice()
    const [to, is] = [new Int32Array(count), new Uint8Array(count)]
    for (let y = 0; y < height; y++) {
      const [first, end] = [firsts[y]!, firsts[y + 1]!]
      let kind = told[y * width]! > 0 ? 1 : 0
      for (let r = first; r < end; r++, kind = 1 - kind) {
        to[r] = r + 1 < end ? from[r + 1]! : width
        is[r] = kind
      }
    }
    return { count, firsts, from, to, is }
  })
}

/**
 * Turns the sign of `told` in connected parts (four neighbours) that are too small. A hole is a part of the set that somebody closes in. Parts are
 * found by runs of rows that touch (union–find). Throws OutOfMemory.
 */
export function clean(k: Kernels, size: Size, told: Plane, odds: Plane, { speck, hole }: Limits): void {
  const { width, height } = size
  const { count, firsts, from, to, is } = runsOf(k, size, told)
  const of = Int32Array.from({ length: count }, (_, r) => r)
  const root = (r: number): number => {
    while (of[r] !== r) {
      of[r] = of[of[r]!]!
      r = of[r]!
    }
    return r
  }
  for (let y = 1; y < height; y++) {
    for (let r = firsts[y]!, above = firsts[y - 1]!; r < firsts[y + 1]!; r++) {
      while (to[above]! <= from[r]!) above++
      // The last of those above may reach on over the next of this row.
      for (let a = above; a < firsts[y]! && from[a]! < to[r]!; a++) if (is[a] === is[r]) of[root(a)] = root(r)
    }
  }
  const cells = new Float64Array(count)
  const doubt = new Float64Array(count)
  const open = new Uint8Array(count)
  const eachRun = (use: (r: number, part: number, at: number) => void) => {
    for (let y = 0; y < height; y++)
      for (let r = firsts[y]!; r < firsts[y + 1]!; r++) use(r, root(r), y * width + from[r]!)
  }
  eachRun((r, part, at) => {
    cells[part]! += to[r]! - from[r]!
    if (from[r] === 0 || to[r] === width || at < width || at >= (height - 1) * width) open[part] = 1
  })
  const isHole = (r: number, part: number) => is[r] === 0 && open[part] === 0 && cells[part]! < hole
  eachRun((r, part, at) => {
    if (!isHole(r, part)) return
    for (let i = at; i < at + to[r]! - from[r]!; i++) doubt[part]! += odds[i]!
  })
  eachRun((r, part, at) => {
    const isUnsureHole = isHole(r, part) && doubt[part]! / cells[part]! >= -SURE
    if (cells[part]! >= speck && !isUnsureHole) return
    told.fill(is[r] === 1 ? -0.01 : 0.01, at, at + to[r]! - from[r]!)
  })
}
