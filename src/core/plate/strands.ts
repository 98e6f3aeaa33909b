// Hair and fringes: parts of somebody that are thinner than the border of what they are taken for, and through which the set shows.
import type { Kernels } from '../render'
import { BLOCK, squaresOf } from './blocks'
import { area, boxMean, type Plane, placed, roomFor } from './plane'

/** By how much a line stands out from what lies at both its sides, how low a gap lies, what share of that is seen in the picture itself, not only in the set, and how many standard deviations of noise anything has to differ by. */
export const STRANDS = [1.6, 0.5, 0.3, 4] as const
/** Shares of cells: of lines beyond somebody, of nine squares, and of gaps within, of a square and of nine, from which on there are strands. Few are missed rather than any made of what is solid. */
const [LINES, GAPS] = [0.01, 0.12]
/** The share of cells beyond somebody that differ from the set, from which on they may be somebody's. */
const BEYOND = 0.1
/** How quickly what is known of strands counts for less farther in. */
const INWARD = 3
/** How many squares farther in than lines are seen gaps are looked for, each beside one that has them. */
const DEEP = 2
/** Less of a square than a cell of nine of them. */
const SLIGHT = 1 / (9 * BLOCK ** 2 + 1)

const isAny = (share: number): number => (share > SLIGHT ? 1 : 0)

/** What the kernels that look for strands are given, as that which solves for alpha is. */
type Asked = Omit<Parameters<Kernels['strandSquares']>[0], 'block' | 'wanted' | 'within' | 'out'>

/**
 * Looks for strands about the border of what is somebody (1 in `is`), and for what differs from the set beyond it, as motion makes it: where it is, alpha may be anything, and is told of the colours of somebody's round there that
 * are farthest from the set's, since one that is mixed with the set explains itself. Returns the address of what `softenCells` reads of it, which lasts until the present scope is left; 0 for nothing. Throws OutOfMemory.
 */
export function strandsOf(k: Kernels, asked: Asked, is: Plane): number {
  const { width, height } = asked
  const size = squaresOf(asked)
  const n = area(size)
  const [shares, counts, flags] = [k.alloc(n * 4), k.alloc(n * 8), k.alloc(n)]
  const inMemory = (plane: Plane) => k.floats(placed(k, plane), n)
  /** Of each square and those beside it. */
  const mean = (of: Plane) => {
    const out = roomFor(k, n)
    boxMean(k, size, inMemory(of), 1, out)
    return out
  }
  const spread = (of: Plane) => mean(of).map(isAny)
  const flagged = (of: Plane) => {
    k.bytes(flags, n).set(of.map(isAny))
    return flags
  }
  k.squareShares(is.byteOffset, width, height, BLOCK, shares)
  const about = mean(k.floats(shares, n))
  const isNear = about.map(share => (share > SLIGHT && share < 1 - SLIGHT ? 1 : 0))
  k.strandSquares({ ...asked, block: BLOCK, wanted: flagged(isNear), within: 0, out: counts })
  const beyond = k.floats(counts, n).map(share => (share > BEYOND ? 1 : 0))
  const lines = mean(k.floats(counts + n * 4, n)).map(share => (share > LINES ? 1 : 0))
  if (!beyond.includes(1) && !lines.includes(1)) return 0
  let asking = lines
  for (let i = 0; i < DEEP; i++) asking = spread(asking)
  k.strandSquares({ ...asked, block: BLOCK, wanted: flagged(asking), within: 1, out: counts })
  const gaps = k.floats(counts, n)
  const many = mean(gaps)
  const airy = (of: Plane) => of.map((is, at) => (is > 0 && Math.min(gaps[at]!, many[at]!) > GAPS ? 1 : 0))
  let found = airy(lines)
  for (let i = 0; i < DEEP; i++) found = airy(spread(found))
  const within = inMemory(found)
  const outside = inMemory(spread(within).map((share, at) => Math.max(share, beyond[at]!)))
  const touched = inMemory(spread(outside))
  const colours = k.alloc(n * 16)
  k.farthestColours({ ...asked, block: BLOCK, wanted: flagged(spread(touched)), out: colours })
  const bare = inMemory(about.map(share => (1 - share) * INWARD))
  const planes = [within, outside, bare].map(plane => plane.byteOffset)
  const known = k.alloc(32)
  k.ints(known, 8).set([...planes, colours, flagged(touched), BLOCK, size.width, size.height])
  return known
}
