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
  const scale = cutoff * STEPS
  const weights = new Float64Array(2 * reach)
  return {
    reach,
    /** Each input at a place between its samples, as sample `i` of the output beside it: what they are weighed by is told once. */
    sample(inputs: readonly Float32Array[], centre: number, outputs: readonly Float32Array[], i: number): void {
      const begin = Math.floor(centre) - reach + 1
      for (let k = 0; k < weights.length; k++) {
        const t = Math.abs(centre - begin - k) * scale
        const at = t | 0
        weights[k] = at < WINGS * STEPS ? TABLE[at]! + (TABLE[at + 1]! - TABLE[at]!) * (t - at) : 0
      }
      for (let side = 0; side < inputs.length; side++) {
        const input = inputs[side]!
        const first = Math.max(0, -begin)
        const last = Math.min(weights.length, input.length - begin)
        let sum = 0
        for (let k = first; k < last; k++) sum += input[begin + k]! * weights[k]!
        outputs[side]![i] = sum * cutoff
      }
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
  const run = (input: Float32Array): Float32Array => {
    const out = new Float32Array(count)
    const [inputs, outputs] = [[input], [out]]
    for (let i = 0; i < count; i++) kernel.sample(inputs, (from + i) * step - first, outputs, i)
    return out
  }
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
    for (let i = from; i < to; i++) kernel.sample(heard, start + i * speed - first, out, i)
  }
  return out
}
