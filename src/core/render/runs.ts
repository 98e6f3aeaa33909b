// Which runs of a row show one layer alone, and in which several things mix.
import { keptRows } from './kept'
import type { Kernels } from './kernels'

/** Of a run: nothing covers it. Anything below `SOFT` is the number of the layer that alone shows there. */
export const OPEN = 255
/** Of a run: more than one thing shows. */
export const SOFT = 254

/** How a layer covers what is behind it. */
export interface Cover {
  /** Where the coverage of row y is, n f32, until another row is asked for; 0 where it covers everything. */
  coverage(y: number): number
  /** Whether nothing shows through where it covers fully. */
  opaque: boolean
  /** Equal ones cover alike; null where that is not known. */
  digest: string | null
}

/** The runs of one row at a time, from its first column to its last. */
export interface RowRuns {
  /** Finds those of row y. Returns how many there are. */
  open(y: number): number
  from(i: number): number
  to(i: number): number
  kind(i: number): number
}

/** Runs that a kept row has room for: mattes that stand still are drawn, and have few. */
const KEPT = 42
/** Of each run its start, its end and its kind; before them how many there are, or that there are too many. */
const RUN = 3
const STRIDE = (1 + KEPT * RUN + 1) * 4
const TOO_MANY = -1

/** Runs of rows of one width that some layers cover, nearest first. Belongs to the scope in which it was made. */
export function rowRuns(k: Kernels, width: number, height: number, covers: readonly Cover[]): RowRuns {
  const classes = k.alloc(width + 64)
  const classRow = k.bytes(classes, width + 32)
  const own = k.alloc(width * RUN * 4 + 12)
  const ownList = k.ints(own, width * RUN + 3)

  function found(y: number): number {
    classRow.fill(OPEN)
    // Nearest first, until nothing farther can show.
    for (const [i, { coverage, opaque }] of covers.entries()) {
      // A row of classes has room for so many; what lies beyond is composited.
      if (!k.classifyRow(classes, coverage(y), width, i, opaque && i < SOFT ? 1 : 0)) break
    }
    return k.findRuns(classes, width, own)
  }

  const isStill = covers.every(cover => cover.digest !== null)
  const digest = `runs ${width} ${covers.map(cover => `${cover.digest}${cover.opaque}`).join()}`
  const rows = () => (y: number, out: number) => {
    const count = found(y)
    const room = k.ints(out, STRIDE / 4)
    room[0] = count > KEPT ? TOO_MANY : count
    if (count <= KEPT) room.set(ownList.subarray(0, count * RUN), 1)
  }
  const kept = isStill ? keptRows(k, { digest, stride: STRIDE, height, rows }) : null
  const keptList = kept && k.ints(kept.ptr, (kept.stride / 4) * height)

  let list = ownList
  let first = 0
  return {
    open(y) {
      const at = kept ? (kept.stride / 4) * y : 0
      const count = keptList ? keptList[at]! : TOO_MANY
      list = keptList && count !== TOO_MANY ? keptList : ownList
      first = list === ownList ? 0 : at + 1
      return count === TOO_MANY ? found(y) : count
    },
    from: i => list[first + i * RUN]!,
    to: i => list[first + i * RUN + 1]!,
    kind: i => list[first + i * RUN + 2]!,
  }
}
