// Hair and fringes: parts of somebody that are thinner than the border of what they are taken for, and through which the set shows.
import type { Kernels } from '../render'
import { BLOCK, squaresOf } from './blocks'
import { area, type Plane, placed } from './plane'

/** By how much a line stands out from what lies at both its sides, how low a gap lies, what share of that is seen in the picture itself, not only in the set, and how many standard deviations of noise anything has to differ by. */
export const STRANDS = [1.6, 0.5, 0.3, 4] as const
/** Shares of cells: of lines beyond somebody, of nine squares, and of gaps within, of a square and of nine, from which on there are strands. Few are missed rather than any made of what is solid. */
const [LINES, GAPS] = [0.01, 0.14]
/** The share of cells beyond somebody that differ from the set, from which on they may be somebody's. */
const BEYOND = 0.1
/** How quickly what is known of strands counts for less farther in. */
const INWARD = 3

/** Planes of squares, row by row. */
interface Squares {
  columns: number
  rows: number
}

/** Of each square, what `of` says of the nine about it that there are. */
function nine({ columns, rows }: Squares, of: (found: (visit: (at: number) => void) => void) => number): Float32Array {
  return Float32Array.from({ length: columns * rows }, (_, i) => {
    const [x, y] = [i % columns, Math.floor(i / columns)]
    return of(visit => {
      for (let v = Math.max(0, y - 1); v <= Math.min(rows - 1, y + 1); v++)
        for (let u = Math.max(0, x - 1); u <= Math.min(columns - 1, x + 1); u++) visit(v * columns + u)
    })
  })
}

/** The mean of nine squares, those outside as nought. */
const meanOf = (squares: Squares, plane: ArrayLike<number>): Float32Array =>
  nine(squares, found => {
    let sum = 0
    found(at => {
      sum += plane[at]!
    })
    return sum / 9
  })

/** 1 of each square that is so, or one beside it. */
const spread = (squares: Squares, plane: ArrayLike<number>): Float32Array =>
  nine(squares, found => {
    let most = 0
    found(at => {
      most = Math.max(most, plane[at]!)
    })
    return most
  })

/** What the kernels that look for strands are given, as that which solves for alpha is. */
type Asked = Omit<Parameters<Kernels['strandSquares']>[0], 'block' | 'wanted' | 'within' | 'out'>

/**
 * Looks for strands about the border of what is somebody (1 in `is`), and for what differs from the set beyond it, as motion makes it: where it is, alpha may be anything, and is told of the colours of somebody's round there that
 * are farthest from the set's, since one that is mixed with the set explains itself. Returns the address of what `softenCells` reads of it, which lasts until the present scope is left; 0 for nothing. Throws OutOfMemory.
 */
export function strandsOf(k: Kernels, asked: Asked, is: Plane): number {
  const { width, height } = asked
  const size = squaresOf(asked)
  const squares = { columns: size.width, rows: size.height }
  const n = area(size)
  const [counts, flags] = [k.alloc(n * 8), k.alloc(n)]
  const flagged = (of: ArrayLike<number>) => {
    k.bytes(flags, n).set(Uint8Array.from(of, v => (v > 0 ? 1 : 0)))
    return flags
  }
  k.squareShares(is.byteOffset, width, height, BLOCK, counts)
  const about = meanOf(squares, k.floats(counts, n))
  const isNear = Array.from(about, share => (share > 0 && share < 1 ? 1 : 0))
  k.strandSquares({ ...asked, block: BLOCK, wanted: flagged(isNear), within: 0, out: counts })
  const beyond = k.floats(counts, n).map(share => (share > BEYOND ? 1 : 0))
  const lines = meanOf(squares, k.floats(counts + n * 4, n)).map(share => (share > LINES ? 1 : 0))
  if (!beyond.includes(1) && !lines.includes(1)) return 0
  k.strandSquares({ ...asked, block: BLOCK, wanted: flagged(spread(squares, lines)), within: 1, out: counts })
  const gaps = k.floats(counts, n)
  const many = meanOf(squares, gaps)
  const within = lines.map((is, at) => (is > 0 && Math.min(gaps[at]!, many[at]!) > GAPS ? 1 : 0))
  const outside = spread(squares, within).map((share, at) => Math.max(share, beyond[at]!))
  const touched = spread(squares, outside)
  const colours = k.alloc(n * 16)
  k.farthestColours({ ...asked, block: BLOCK, wanted: flagged(spread(squares, touched)), out: colours })
  const bare = about.map(share => (1 - share) * INWARD)
  const planes = [within, outside, bare].map(plane => placed(k, plane))
  const known = k.alloc(32)
  k.ints(known, 8).set([...planes, colours, flagged(touched), BLOCK, squares.columns, squares.rows])
  return known
}
