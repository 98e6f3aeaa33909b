// How the clockmaker gets from pose to pose.
import type { Point, Pose } from './clockmaker'

type Beat = { at: number } & Partial<Pose>

export const smooth = (t: number): number => t * t * (3 - 2 * t)

function mix<T>(a: T, b: T, t: number): T {
  if (typeof a === 'number') return (a + ((b as number) - a) * t) as T
  if (a && typeof a === 'object') {
    const from = a as unknown as Point
    const to = b as unknown as Point
    // Hands travel in arcs, not in straight lines.
    const lift = Math.sin(t * Math.PI) * Math.hypot(to.x - from.x, to.y - from.y) * 0.08
    return { x: mix(from.x, to.x, t), y: mix(from.y, to.y, t) - lift } as T
  }
  return t < 0.5 ? a : b
}

/** Poses from beats: each field goes smoothly from one beat that names it to the next. */
export function perform(
  rest: Pose,
  beats: readonly Beat[],
  lines: readonly { at: number }[],
  sway: number,
): (s: number) => Pose {
  const fields = Object.keys(rest) as (keyof Pose)[]
  return s => {
    const pose = { ...rest } as Record<keyof Pose, unknown>
    for (const field of fields) {
      const named = [{ at: 0, [field]: rest[field] }, ...beats.filter(b => field in b)] as (Beat & Pose)[]
      const i = named.findLastIndex(b => b.at <= s)
      const a = named[Math.max(0, i)]!
      const b = named[i + 1]
      // A gesture takes three quarters of a second and then rests.
      const t = b ? Math.min(1, Math.max(0, (s - (b.at - 0.75)) / 0.75)) : 0
      pose[field] = b ? mix(a[field], b[field], smooth(t)) : a[field]
    }
    const done = pose as unknown as Pose
    done.x += Math.sin(s * 1.1 + sway) * 3
    done.lean += Math.sin(s * 0.8 + sway) * 0.012
    done.rise += Math.sin(s * 1.9 + sway) * 1.6
    const line = lines.find(l => s > l.at && s < l.at + 1.6)
    if (line) {
      done.mouth = Math.abs(Math.sin((s - line.at) * 11)) * (0.5 + 0.5 * Math.sin((s - line.at) * 4.3) ** 2)
      done.tilt += Math.sin((s - line.at) * 7) * 0.03
    }
    return done
  }
}

/** A pose with all of it so many px farther to the right. */
export const moved = (pose: Pose, by: number): Pose => ({
  ...pose,
  x: pose.x + by,
  left: { x: pose.left.x + by, y: pose.left.y },
  right: { x: pose.right.x + by, y: pose.right.y },
})

/** At ease, at the left of the counter. */
export const leftRest: Pose = {
  x: 408,
  lean: 0,
  tilt: 0,
  look: 0.35,
  rise: 0,
  left: { x: 342, y: 486 },
  right: { x: 478, y: 484 },
  mouth: 0,
  brows: 0,
  holds: 'right',
}
