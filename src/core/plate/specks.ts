// Single px of a soft edge that are unlike all round them.
import type { Size } from '../shot/types'

/** Codes from which a px counts as covered, and below which as bare; neighbours of its kind that it needs, or it is a speck. */
const COVERED = 64
const BARE = 192
const NEEDED = 2

/** Codes from which a px is part of something, and px that something has at least, or it is a speck. */
const PART = 100
const SMALLEST = 48

/** Takes away small things that touch nothing larger: the codec leaves such beside what is bright. Changes alpha. */
export function dropIslands({ width, height }: Size, alpha: Uint8Array): void {
  const found = new Int32Array(SMALLEST)
  for (let y = 1; y < height - 1; y++) {
    for (let start = y * width + 1; start < (y + 1) * width - 1; start++) {
      // Each has a px with nothing to its left.
      if (alpha[start]! < PART || alpha[start - 1]! >= PART) continue
      found[0] = start
      let count = 1
      for (let next = 0; next < count && count < SMALLEST; next++) {
        const at = found[next]!
        for (let v = -width; v <= width && count < SMALLEST; v += width) {
          for (let u = -1; u <= 1 && count < SMALLEST; u++) {
            const other = at + v + u
            if (other < 0 || other >= alpha.length || alpha[other]! < PART) continue
            let isNew = true
            for (let k = 0; k < count; k++) if (found[k] === other) isNew = false
            if (isNew) found[count++] = other
          }
        }
      }
      if (count < SMALLEST) for (let k = 0; k < count; k++) alpha[found[k]!] = 0
    }
  }
}

/** Takes away what is covered, and fills what is bare, where fewer than two of the eight px round it are so too: a hair goes on, a speck does not. Changes alpha. */
export function dropSpecks({ width, height }: Size, alpha: Uint8Array): void {
  const before = alpha.slice()
  for (let y = 1; y < height - 1; y++) {
    for (let i = y * width + 1; i < (y + 1) * width - 1; i++) {
      const a = before[i]!
      const [left, right] = [before[i - 1]!, before[i + 1]!]
      // Most px are as those beside them.
      if (a === left && a === right) continue
      let covered = 0
      let bare = 0
      for (let v = -width; v <= width; v += width) {
        for (let u = -1; u <= 1; u++) {
          if (u === 0 && v === 0) continue
          const other = before[i + v + u]!
          if (other >= COVERED) covered++
          if (other < BARE) bare++
        }
      }
      if (a >= COVERED && covered < NEEDED) alpha[i] = 0
      else if (a < BARE && bare < NEEDED) alpha[i] = 255
    }
  }
}
