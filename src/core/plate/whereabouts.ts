// Where in the picture somebody is, told so that a raised arm or a speck far off says little.
import type { Size } from '../shot/types'
import type { Part, Plane } from './plane'

/** The middle of what somebody fills, and how wide and high most of it is: as shares of the picture's width and height. */
export interface Whereabouts {
  x: number
  y: number
  width: number
  height: number
  /** Whether they reach to the left or right border of the picture. */
  atBorder: boolean
}

/** Shares of somebody's cells that lie to the left or above, between which most of them do. */
const FIRST = 0.1
const LAST = 0.9

/** Where along counts, cells, a share of all they count lies. */
function reached(counts: Uint32Array, all: number, share: number): number {
  let before = 0
  for (let i = 0; i < counts.length; i++) {
    const count = counts[i]!
    if (before + count >= share * all) return i + (share * all - before) / count
    before += count
  }
  return counts.length
}

/**
 * Where somebody is. `is`: 1 of each cell of a part of the picture that is theirs, in rows as long as the part is wide; `standing`: where within it those lie. Null where nobody is.
 */
export function whereaboutsOf(is: Plane, part: Part, standing: Part, picture: Size): Whereabouts | null {
  const [columns, rows] = [new Uint32Array(standing.width), new Uint32Array(standing.height)]
  let all = 0
  for (let y = 0; y < standing.height; y++) {
    const from = (standing.y + y) * part.width + standing.x
    for (let x = 0; x < standing.width; x++) {
      if (is[from + x] === 0) continue
      columns[x]!++
      rows[y]!++
      all++
    }
  }
  if (all === 0) return null
  const across = (share: number) => reached(columns, all, share)
  const down = (share: number) => reached(rows, all, share)
  const left = part.x + standing.x
  return {
    x: (left + across(0.5)) / picture.width,
    y: (part.y + standing.y + down(0.5)) / picture.height,
    width: (across(LAST) - across(FIRST)) / picture.width,
    height: (down(LAST) - down(FIRST)) / picture.height,
    atBorder: left === 0 || left + standing.width === picture.width,
  }
}
