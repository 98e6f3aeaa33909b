// Who may use which part of the kernels' memory, and for how long.

export class OutOfMemory extends Error {
  override name = 'OutOfMemory'
}

const SLACK = 64
/** No reservation is larger: what is added to a length must not overflow. */
const MOST = 2 ** 31 - 4096

export interface Arena {
  /** Reserves bytes (16-aligned, 64 bytes of slack behind them for whole-register reads). Throws OutOfMemory. */
  alloc(length: number): number
  free(ptr: number): void
  /** Bytes that could still be reserved in one piece. */
  largestFree(): number
  /** Bytes in all, reserved or not. */
  readonly total: number
  /**
   * Runs work that does not wait, and frees whatever it reserved when it is left, however it is left. What `keep` was
   * called for stays reserved.
   */
  scope<T>(work: () => T): T
  /** Takes a reservation out of the scope in which it was made. */
  keep(ptr: number): number
  /** Something to be done as the present scope is left. */
  atEnd(done: () => void): void
}

/** First-fit reservation in a fixed stretch of memory; neighbours that are free are one piece. */
export function arena(start: number, end: number): Arena {
  const used = new Map<number, number>()
  let gaps: { at: number; size: number }[] = [{ at: start, size: end - start }]
  let scope: Set<number> | null = null
  let endings: (() => void)[] = []

  function free(ptr: number): void {
    const size = used.get(ptr)
    if (size === undefined) throw new Error(`Nothing is reserved at ${ptr}.`)
    used.delete(ptr)
    scope?.delete(ptr)
    gaps.push({ at: ptr, size })
    gaps.sort((a, b) => a.at - b.at)
    const joined: typeof gaps = []
    for (const gap of gaps) {
      const last = joined.at(-1)
      if (last && last.at + last.size === gap.at) last.size += gap.size
      else joined.push({ ...gap })
    }
    gaps = joined
  }

  return {
    alloc(length) {
      const size = (Math.min(length, MOST) + SLACK + 15) & ~15
      const i = length > MOST ? -1 : gaps.findIndex(g => g.size >= size)
      const gap = gaps[i]
      if (!gap) throw new OutOfMemory(`No room for ${length} more bytes of pictures.`)
      const { at } = gap
      used.set(at, size)
      scope?.add(at)
      if (gap.size === size) gaps.splice(i, 1)
      else gaps[i] = { at: at + size, size: gap.size - size }
      return at
    },
    free,
    total: end - start,
    largestFree: () => gaps.reduce((most, g) => Math.max(most, g.size), 0) - SLACK - 16,
    scope(work) {
      const outer = { scope, endings }
      const own = new Set<number>()
      scope = own
      endings = []
      try {
        return work()
      } finally {
        for (const done of endings) done()
        for (const ptr of own) free(ptr)
        scope = outer.scope
        endings = outer.endings
      }
    },
    keep(ptr) {
      scope?.delete(ptr)
      return ptr
    },
    atEnd(done) {
      endings.push(done)
    },
  }
}
