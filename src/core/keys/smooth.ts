// Jitter taken out of a value that moves.
import { linearKeys, placesToKeep } from './fit'
import { isKeyed, sample, type Value } from './value'

/** Frames to either side through which a curve is laid. */
const REACH = 4
/** Share of what a number moves over, and what at least, within which fewer keys tell the same. */
const [SHARE, LEAST] = [0.002, 1e-4]
/** Frames beyond which nothing is sampled one by one. */
const MOST = 20_000

/** The numbers of a value, in order. */
function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value]
  return typeof value === 'object' && value !== null ? Object.values(value).flatMap(numbersIn) : []
}

/** A value of the same form with other numbers, taken in order. */
function withNumbers<T>(value: T, next: () => number): T {
  if (typeof value === 'number') return next() as T
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value)) return value.map(part => withNumbers(part, next)) as T
  return Object.fromEntries(Object.entries(value).map(([name, part]) => [name, withNumbers(part, next)])) as T
}

/** The parabola through the values about a place by least squares, at that place (Savitzky and Golay 1964); the first and last stay. */
function smoothedAt(values: readonly number[], at: number): number {
  const reach = Math.min(REACH, at, values.length - 1 - at)
  if (reach < 1) return values[at]!
  // About its middle, a parabola's value there is told by weights a − b·j² alone.
  let [s0, s2, s4] = [0, 0, 0]
  for (let j = -reach; j <= reach; j++) {
    s0++
    s2 += j * j
    s4 += j ** 4
  }
  let sum = 0
  const scale = s0 * s4 - s2 * s2
  // Three values lie on a parabola as they are: then the mean of the outer two counts half.
  if (reach === 1) return values[at]! / 2 + (values[at - 1]! + values[at + 1]!) / 4
  for (let j = -reach; j <= reach; j++) sum += ((s4 - s2 * j * j) / scale) * values[at + j]!
  return sum
}

/** Whether a value has jitter that can be taken out: outlines change their form in a way of their own. */
export const canCalm = <T>(value: Value<T>): value is Exclude<Value<T>, T> =>
  isKeyed(value) && value.keys.length > 2 && !Array.isArray(value.keys[0]!.value)

/**
 * A value that moves by keys without its jitter: what is slower than some nine frames stays as it was, and as few linear keys as tell the rest. One that stands still, or
 * has fewer than three keys, is returned as it is.
 */
export function smoothKeys<T>(value: Value<T>): Value<T> {
  if (!canCalm(value)) return value
  const [first, last] = [value.keys[0]!.frame, value.keys.at(-1)!.frame]
  if (last - first > MOST) return value
  const all = Array.from({ length: last - first + 1 }, (_, i) => sample(value, first + i))
  const rows = all.map(numbersIn)
  const count = rows[0]!.length
  if (count === 0 || rows.some(row => row.length !== count)) return value
  const curves = Array.from({ length: count }, (_, c) => {
    const curve = rows.map(row => row[c]!)
    return curve.map((_, i) => smoothedAt(curve, i))
  })
  const within = curves.map(curve => {
    const [low, high] = curve.reduce(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [curve[0]!, curve[0]!])
    return Math.max(LEAST, (high - low) * SHARE)
  })
  const values = all.map((one, i) => {
    let c = 0
    return withNumbers(one, () => curves[c++]![i]!)
  })
  return { keys: linearKeys(values, first, placesToKeep(curves, within)) }
}
