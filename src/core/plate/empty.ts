// The set from a stretch in which nobody is: its mean; where somebody comes or goes in it, that of the longest part in which nothing does.
import { addCells, type Kept, keptCells, PLANES } from './background'
import type { Cells } from './cells'
import { roomFor } from './plane'
import { thingsIn } from './things'

/** Share of a stretch's frames, and how many, without which a part of it is no better than all of it: water stands still for two frames now and then. */
const LEAST = 0.4
const FEW = 4

export interface EmptyMean {
  /** The next frame of the stretch, in order. Throws OutOfMemory. */
  add(frame: Cells): void
  /** Once all are there: what they come to is in the cells that were given for it. */
  end(): void
}

/** Whether there is anything by which two frames of a set differ. */
const stirs = (frame: Cells, before: Kept): boolean =>
  frame.k.scope(() => {
    const n = frame.y.length
    return thingsIn(frame, before, roomFor(frame.k, n), roomFor(frame.k, n)).length > 0
  })

/** The mean of so many frames of a set in `out`, which is blank at first. */
export function emptyMean(out: Cells, count: number): EmptyMean {
  let first: Kept | null = null
  /** Shares of the frames since something stirred, and how many they are: of all of them as long as nothing did. */
  let part: Kept = out
  let length = 0
  let best: { part: Kept; length: number } | null = null

  function endPart(): void {
    if (length > (best?.length ?? 0)) best = { part: part === out ? keptCells(out) : part, length }
    part = { y: out.y.map(() => 0), u: out.u.map(() => 0), v: out.v.map(() => 0), luma: out.luma.map(() => 0) }
    length = 0
    first = null
  }

  return {
    add(frame) {
      if (first && stirs(frame, first)) endPart()
      first ??= keptCells(frame)
      addCells(out, frame, 1 / count)
      if (part !== out) addCells(part, frame, 1 / count)
      length++
    },
    end() {
      if (part === out) return
      endPart()
      if (!best || best.length < Math.max(FEW, count * LEAST)) return
      for (const name of PLANES) out[name].set(best.part[name].map(share => (share * count) / best!.length))
    },
  }
}
