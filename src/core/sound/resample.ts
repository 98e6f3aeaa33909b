// Changing the sample rate by windowed sinc (Smith, Digital Audio Resampling, 2002).

/** Zero crossings on each side of the kernel. */
const WINGS = 16
/** Samples read at once, about. */
const MOST = 10 * 48_000

/** Steps of the table between two zero crossings; what lies between is taken on a straight line. */
const STEPS = 512

/** The windowed sinc itself, from its middle outwards. */
const TABLE = Float64Array.from({ length: WINGS * STEPS + 2 }, (_, i) => {
  const t = i / STEPS
  if (t >= WINGS) return 0
  const window = 0.5 + 0.5 * Math.cos((Math.PI * t) / WINGS)
  return t === 0 ? 1 : (Math.sin(Math.PI * t) * window) / (Math.PI * t)
})

/** A windowed sinc that lets pass what a rate of `ratio` times the input's can carry. */
function sincKernel(ratio: number) {
  const cutoff = Math.min(1, ratio)
  const reach = Math.ceil(WINGS / cutoff)
  return {
    reach,
    /** The input at a place between its samples. */
    at(input: Float32Array, centre: number): number {
      const base = Math.floor(centre)
      let sum = 0
      for (let k = base - reach + 1; k <= base + reach; k++) {
        const t = Math.abs(centre - k) * cutoff * STEPS
        if (t >= WINGS * STEPS) continue
        const i = Math.floor(t)
        const weight = TABLE[i]! + (TABLE[i + 1]! - TABLE[i]!) * (t - i)
        sum += (input[k] ?? 0) * weight
      }
      return sum * cutoff
    },
  }
}

/**
 * How to make output samples [from, from + count) at rate `to` from input at rate `at`: which input samples are needed,
 * and the function that makes them. The same output sample comes out the same whatever block it is asked in.
 */
export function resampler(at: number, to: number, from: number, count: number) {
  const step = at / to
  const kernel = sincKernel(to / at)
  const first = Math.floor(from * step) - kernel.reach
  const needed = Math.ceil((from + count) * step) + kernel.reach + 1 - first
  const run = (input: Float32Array): Float32Array =>
    Float32Array.from({ length: count }, (_, i) => kernel.at(input, (from + i) * step - first))
  return { from: first, count: needed, run }
}

type Stereo = [Float32Array, Float32Array]

/**
 * `count` samples of a recording from sample `start` on, `speed` of its samples for each: at its new pitch, backwards
 * where `speed` is negative. At speed 1 from a whole sample on they come out as they are. However fast, only some
 * seconds of the recording are read at once.
 */
export async function readAtSpeed(
  read: (from: number, count: number) => Promise<Stereo>,
  start: number,
  speed: number,
  count: number,
): Promise<Stereo> {
  if (speed === 1 && Number.isInteger(start)) return read(start, count)
  const kernel = sincKernel(1 / Math.abs(speed))
  const out: Stereo = [new Float32Array(count), new Float32Array(count)]
  const piece = Math.max(1, Math.floor(MOST / Math.abs(speed)))
  for (let from = 0; from < count; from += piece) {
    const to = Math.min(count, from + piece)
    const edges = [start + from * speed, start + (to - 1) * speed]
    const first = Math.floor(Math.min(...edges)) - kernel.reach
    const heard = await read(first, Math.ceil(Math.max(...edges)) + kernel.reach + 1 - first)
    for (const side of [0, 1] as const) {
      for (let i = from; i < to; i++) out[side][i] = kernel.at(heard[side], start + i * speed - first)
    }
  }
  return out
}
