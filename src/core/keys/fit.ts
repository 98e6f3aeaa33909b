// As few linear keys as tell a curve that was measured frame by frame.
import type { Mixer } from './mix'
import type { Key } from './value'

/** The value of a line from one place of a list to another. */
const between = (of: readonly number[], from: number, to: number, at: number): number =>
  of[from]! + ((of[to]! - of[from]!) * (at - from)) / (to - from)

/** Where curves lie farthest from the lines between two places, and by how much of what each may. */
function farthest(curves: readonly (readonly number[])[], within: readonly number[], from: number, to: number) {
  let best = { at: from, far: 0 }
  for (let at = from + 1; at < to; at++) {
    curves.forEach((of, c) => {
      const far = Math.abs(of[at]! - between(of, from, to, at)) / within[c]!
      if (far > best.far) best = { at, far }
    })
  }
  return best
}

/**
 * The places of some curves of equal length at which keys are needed, so that lines between them lie within `within` of each: first and last, and between them
 * wherever it is farthest (Ramer 1972; Douglas and Peucker 1973). One place where a single one tells all.
 */
export function placesToKeep(curves: readonly (readonly number[])[], within: readonly number[]): number[] {
  const last = (curves[0]?.length ?? 0) - 1
  if (last < 0) return []
  const isStill = curves.every((of, c) => Math.max(...of) - Math.min(...of) <= within[c]!)
  return isStill ? [0] : divided(last, (from, to) => farthest(curves, within, from, to))
}

/** First and last, and between them wherever it is farther than one from what is told by the places at both sides. */
function divided(last: number, farthest: (from: number, to: number) => { at: number; far: number }): number[] {
  const kept = [0, last]
  const spans: [number, number][] = [[0, last]]
  while (spans.length > 0) {
    const [from, to] = spans.pop()!
    const { at, far } = farthest(from, to)
    if (far <= 1) continue
    kept.push(at)
    spans.push([from, at], [at, to])
  }
  return kept.sort((a, b) => a - b)
}

/** The same for values that are mixed in their own way, `apart` telling how far one is from another. */
export function mixesToKeep<T>(
  values: readonly T[],
  mix: Mixer<T>,
  apart: (a: T, b: T) => number,
  within: number,
): number[] {
  if (values.every(v => apart(v, values[0]!) <= within)) return values.length > 0 ? [0] : []
  return divided(values.length - 1, (from, to) => {
    let best = { at: from, far: 0 }
    for (let at = from + 1; at < to; at++) {
      const far = apart(mix(values[from]!, values[to]!, (at - from) / (to - from)), values[at]!) / within
      if (far > best.far) best = { at, far }
    }
    return best
  })
}

/** Linear keys for values at frames from `first` on, at the places that are needed. */
export const linearKeys = <T>(values: readonly T[], first: number, places: readonly number[]): Key<T>[] =>
  places.map(at => ({ frame: first + at, value: values[at]!, ease: 'linear' }))
