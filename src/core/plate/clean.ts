// Specks and holes that are too small, or too little sure, to be what they were told to be.
import type { Size } from '../shot/types'

/** Log odds of a cell by itself of which a hole has to have more, on average, to stay one. */
const SURE = 2

export interface Limits {
  /** Parts of fewer cells become what is round them. */
  speck: number
  /** Holes of fewer cells do so too, unless they are sure. */
  hole: number
}

/**
 * Turns the sign of `told` in connected parts (four neighbours) that are too small. A hole is a part of the set that somebody closes in. Parts are
 * found by runs of rows that touch (union–find).
 */
export function clean({ width, height }: Size, told: Float32Array, odds: Float32Array, { speck, hole }: Limits): void {
  const [from, to, row, of]: [number[], number[], number[], number[]] = [[], [], [], []]
  const root = (r: number): number => {
    while (of[r] !== r) {
      of[r] = of[of[r]!]!
      r = of[r]!
    }
    return r
  }
  let above = 0
  for (let y = 0; y < height; y++) {
    const first = from.length
    let before = above
    for (let x = 0, at = y * width; x < width; ) {
      const start = x
      const is = told[at + x]! > 0
      while (x < width && told[at + x]! > 0 === is) x++
      const run = from.length
      from.push(start)
      to.push(x)
      row.push(y)
      of.push(run)
      for (let r = before; r < first && from[r]! < x; r++) {
        if (to[r]! <= start) {
          before = r + 1
          continue
        }
        if (told[(y - 1) * width + from[r]!]! > 0 === is) of[root(r)] = root(run)
      }
    }
    above = first
  }
  const runs = from.length
  const size = new Float64Array(runs)
  const doubt = new Float64Array(runs)
  const open = new Uint8Array(runs)
  for (let r = 0; r < runs; r++) {
    const part = root(r)
    size[part]! += to[r]! - from[r]!
    if (from[r] === 0 || to[r] === width || row[r] === 0 || row[r] === height - 1) open[part] = 1
  }
  const isHole = (r: number, part: number) => {
    const isSmall = open[part] === 0 && size[part]! < hole
    return isSmall && !(told[row[r]! * width + from[r]!]! > 0)
  }
  for (let r = 0; r < runs; r++) {
    const part = root(r)
    if (!isHole(r, part)) continue
    for (let x = from[r]!, at = row[r]! * width; x < to[r]!; x++) doubt[part]! += odds[at + x]!
  }
  for (let r = 0; r < runs; r++) {
    const part = root(r)
    const at = row[r]! * width + from[r]!
    const is = told[at]! > 0
    const isUnsureHole = isHole(r, part) && doubt[part]! / size[part]! >= -SURE
    if (size[part]! >= speck && !isUnsureHole) continue
    told.fill(is ? -0.01 : 0.01, at, at + to[r]! - from[r]!)
  }
}
