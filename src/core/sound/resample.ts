// Changing the sample rate by windowed sinc (Smith, Digital Audio Resampling, 2002).

/** Zero crossings on each side of the kernel. */
const WINGS = 16

/**
 * How to make output samples [from, from + count) at rate `to` from input at rate `at`: which input samples are needed,
 * and the function that makes them. The same output sample comes out the same whatever block it is asked in.
 */
export function resampler(at: number, to: number, from: number, count: number) {
  const step = at / to
  const cutoff = Math.min(1, to / at)
  const reach = Math.ceil(WINGS / cutoff)
  const first = Math.floor(from * step) - reach
  const needed = Math.ceil((from + count) * step) + reach + 1 - first
  const kernel = (x: number): number => {
    const t = x * cutoff
    if (Math.abs(t) >= WINGS) return 0
    const window = 0.5 + 0.5 * Math.cos((Math.PI * t) / WINGS)
    return t === 0 ? cutoff : (cutoff * Math.sin(Math.PI * t) * window) / (Math.PI * t)
  }
  const run = (input: Float32Array): Float32Array => {
    const out = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      const centre = (from + i) * step
      const base = Math.floor(centre)
      let sum = 0
      for (let k = base - reach + 1; k <= base + reach; k++) sum += (input[k - first] ?? 0) * kernel(centre - k)
      out[i] = sum
    }
    return out
  }
  return { from: first, count: needed, run }
}
