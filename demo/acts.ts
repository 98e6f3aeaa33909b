// What happens in each clip: poses over time, exposure, words.
import type { Point, Pose } from './clockmaker'

export type ClipName = 'empty-shop' | 'clockmaker-left' | 'clockmaker-right'

export interface Clip {
  name: ClipName
  title: string
  frames: number
  /** Gain of red, green and blue in linear light: what the camera made of the same room. */
  exposure: readonly [number, number, number]
  /** Seconds at which the line is spoken, or null. */
  line: { at: number; pitch: number } | null
  pose: ((seconds: number) => Pose) | null
  seed: number
}

export const RATE = 30

type Beat = { at: number } & Partial<Pose>

const smooth = (t: number): number => t * t * (3 - 2 * t)

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
function perform(rest: Pose, beats: readonly Beat[], line: { at: number } | null, sway: number): (s: number) => Pose {
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
    if (line && s > line.at && s < line.at + 1.6) {
      done.mouth = Math.abs(Math.sin((s - line.at) * 11)) * (0.5 + 0.5 * Math.sin((s - line.at) * 4.3) ** 2)
      done.tilt += Math.sin((s - line.at) * 7) * 0.03
    }
    return done
  }
}

const LEFT_LINE = { at: 1.2, pitch: 118 }
const RIGHT_LINE = { at: 3.1, pitch: 104 }

const leftRest: Pose = {
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

const rightRest: Pose = {
  x: 884,
  lean: 0,
  tilt: 0,
  look: -0.3,
  rise: 0,
  left: { x: 816, y: 486 },
  right: { x: 952, y: 486 },
  mouth: 0,
  brows: 0,
  holds: null,
}

export const CLIPS: Readonly<Record<ClipName, Clip>> = {
  'empty-shop': {
    name: 'empty-shop',
    title: 'Empty shop',
    frames: 180,
    exposure: [1, 1, 1],
    line: null,
    pose: null,
    seed: 1,
  },
  'clockmaker-left': {
    name: 'clockmaker-left',
    title: 'Act A, left',
    frames: 184,
    exposure: [1, 1, 1],
    line: LEFT_LINE,
    pose: perform(
      leftRest,
      [
        { at: 1.0, right: { x: 536, y: 372 }, lean: 0.06, look: 0.9, brows: 0.4 },
        { at: 2.6, right: { x: 548, y: 356 }, lean: 0.09, tilt: 0.08 },
        { at: 3.3, left: { x: 330, y: 404 }, brows: 1 },
        { at: 4.3, right: { x: 486, y: 420 }, lean: 0, tilt: -0.05, look: 0.2, left: { x: 344, y: 486 }, brows: 0.2 },
        { at: 5.4, right: { x: 478, y: 482 }, look: 0.8, tilt: 0.06 },
      ],
      LEFT_LINE,
      0.4,
    ),
    seed: 2,
  },
  'clockmaker-right': {
    name: 'clockmaker-right',
    title: 'Act B, right',
    frames: 184,
    exposure: [0.955, 0.925, 0.87],
    line: RIGHT_LINE,
    pose: perform(
      rightRest,
      [
        { at: 1.3, look: -0.9, tilt: -0.06, brows: 0.5 },
        { at: 2.2, left: { x: 768, y: 392 }, lean: -0.07 },
        { at: 3.2, left: { x: 800, y: 330 }, right: { x: 976, y: 388 }, lean: -0.02, brows: 1 },
        { at: 4.4, left: { x: 764, y: 404 }, right: { x: 986, y: 420 }, tilt: 0.09, look: -0.5 },
        { at: 5.5, left: { x: 816, y: 486 }, right: { x: 952, y: 486 }, tilt: 0, brows: 0, look: -0.8 },
      ],
      RIGHT_LINE,
      2.1,
    ),
    seed: 3,
  },
}
