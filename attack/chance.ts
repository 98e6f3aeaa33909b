// Chance that comes out the same for the same seed (mulberry32).

export interface Chance {
  /** 0 <= n < below, whole. */
  below(n: number): number
  one<T>(of: readonly T[]): T
  bytes(count: number): Uint8Array<ArrayBuffer>
}

export function chance(seed: number): Chance {
  let state = seed >>> 0
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
  const below = (n: number) => Math.floor(next() * n)
  return {
    below,
    one: of => of[below(of.length)]!,
    bytes: count => Uint8Array.from({ length: count }, () => below(256)),
  }
}
