// Random numbers that come out the same every time.

/** mulberry32: uniform in 0..1 from a 32-bit seed. */
export function chance(seed: number): () => number {
  let state = seed | 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A table of unit Gaussian values (Box and Muller, 1958). */
export function gaussians(count: number, seed: number): Float32Array {
  const next = chance(seed)
  const out = new Float32Array(count)
  for (let i = 0; i < count; i += 2) {
    const r = Math.sqrt(-2 * Math.log(1 - next()))
    const a = 2 * Math.PI * next()
    out[i] = r * Math.cos(a)
    if (i + 1 < count) out[i + 1] = r * Math.sin(a)
  }
  return out
}
