// Outlines worked out the slow way, and random ones to work out.
import fc from 'fast-check'
import { corner, flatten, type OutlinePoint } from '../core/outline'
import type { Feather } from '../core/shape'

type Chord = readonly [ax: number, ay: number, bx: number, by: number]

const chordsOf = (ends: Float64Array): Chord[] =>
  Array.from({ length: ends.length / 2 }, (_, i) => {
    const j = i * 2 + 2 < ends.length ? i * 2 + 2 : 0
    return [ends[i * 2]!, ends[i * 2 + 1]!, ends[j]!, ends[j + 1]!]
  })

/** How far (x, y) lies inside what chords wind round, either way; negative outside. Only those of `near` are near enough to count. */
function depthIn(crossing: readonly Chord[], near: readonly Chord[], x: number, y: number): number {
  let winding = 0
  for (const [ax, ay, bx, by] of crossing) {
    if (ay <= y !== by <= y && ax + ((y - ay) / (by - ay)) * (bx - ax) < x) winding += ay < by ? 1 : -1
  }
  let nearest = Number.POSITIVE_INFINITY
  for (const [ax, ay, bx, by] of near) {
    const length = (bx - ax) ** 2 + (by - ay) ** 2
    const t = length > 0 ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length)) : 0
    nearest = Math.min(nearest, (ax + t * (bx - ax) - x) ** 2 + (ay + t * (by - ay) - y) ** 2)
  }
  return winding !== 0 ? Math.sqrt(nearest) : -Math.sqrt(nearest)
}

/** The feather at some depth inside an outline, 0..1. */
export const ramp = (d: number, { grow, inside, outside }: Feather): number => {
  const e = d + grow
  if (e >= inside) return 1
  if (e <= -outside) return 0
  const t = (e + outside) / (inside + outside)
  return t * t * (3 - 2 * t)
}

/** The coverage of pixel (x, y) by an outline, from samples x samples of it. */
export function sampledCoverage(ends: Float64Array, x: number, y: number, feather: Feather, samples: number): number {
  const reach = Math.abs(feather.grow) + feather.inside + feather.outside + 1.5
  const chords = chordsOf(ends)
  const crossing = chords.filter(([, ay, , by]) => Math.min(ay, by) <= y + 1 && Math.max(ay, by) >= y)
  const near = chords.filter(
    ([ax, ay, bx, by]) =>
      Math.min(ax, bx) < x + reach &&
      Math.max(ax, bx) > x - reach &&
      Math.min(ay, by) < y + reach &&
      Math.max(ay, by) > y - reach,
  )
  // Nothing of the border is near: all of the pixel is as its middle is.
  const fine = near.length === 0 ? 1 : samples
  let sum = 0
  for (let j = 0; j < fine; j++) {
    for (let i = 0; i < fine; i++)
      sum += ramp(depthIn(crossing, near, x + (i + 0.5) / fine, y + (j + 0.5) / fine), feather)
  }
  return sum / fine ** 2
}

export const fineChords = (points: readonly OutlinePoint[]): Float64Array => flatten(points, 0.003)

const number = (min: number, max: number) =>
  fc.integer({ min: 0, max: 100_000 }).map(v => min + ((max - min) * v) / 100_000)

/** A point that lies within a picture of some side, or beyond it, with handles of up to `reach` px. */
export const anyPoint = (side: number, reach: number): fc.Arbitrary<OutlinePoint> =>
  fc.record({
    x: number(-side * 0.25, side * 1.25),
    y: number(-side * 0.25, side * 1.25),
    inX: number(-reach, reach),
    inY: number(-reach, reach),
    outX: number(-reach, reach),
    outY: number(-reach, reach),
  })

/** A star-shaped outline that does not cross itself: corners and smooth points at some angle after the other about the middle. */
export const roundOutline = (side: number): fc.Arbitrary<OutlinePoint[]> =>
  fc.array(fc.record({ far: number(0.2, 0.6), soft: number(0, 1) }), { minLength: 3, maxLength: 9 }).map(parts =>
    parts.map(({ far, soft }, i) => {
      const angle = (i / parts.length) * 2 * Math.PI
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
      const handle = soft > 0.4 ? (far * side * soft * 0.9) / parts.length : 0
      const at = corner({ x: side * (0.5 + far * cos), y: side * (0.5 + far * sin) })
      return { ...at, inX: sin * handle, inY: -cos * handle, outX: -sin * handle, outY: cos * handle }
    }),
  )
