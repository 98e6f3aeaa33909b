// What happens in each clip: poses over time, exposure, words.
import { paintApprentice, type Stride } from './apprentice'
import { FLOOR } from './attic'
import { type Point, type Pose, paintClockmaker } from './clockmaker'
import { paintLegs, SOLE } from './legs'
import type { Actor, SCENES } from './scenes'
import { HEIGHT, WIDTH } from './shop'
import { paintTrolley, trolleyAt } from './trolley'
import { ROAD } from './yard'

export type ClipName =
  | 'empty-shop'
  | 'clockmaker-left'
  | 'clockmaker-right'
  | 'one-long-take'
  | 'counter-bell'
  | 'pendulum'
  | 'walk-across'
  | 'apprentice-late'
  | 'trolley-morning'
  | 'before-the-panels'
  | 'dusk-walk'
  | 'attic-steps'

export interface Clip {
  name: ClipName
  title: string
  frames: number
  /** Gain of red, green and blue in linear light: what the camera made of the same room. */
  exposure: readonly [number, number, number]
  /** Lines that are spoken: when, and how high. */
  lines: readonly { at: number; pitch: number }[]
  /** Seconds at which the counter bell is struck. */
  bell?: number
  /** Whether the tall clock's pendulum swings on the wall. */
  pendulum?: boolean
  /** Bits a second; longer clips are held smaller. */
  bitrate?: number
  scene: keyof typeof SCENES
  actor: Actor | null
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
function perform(
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

const LONG_LINES = [
  { at: 1.1, pitch: 112 },
  { at: 7.2, pitch: 108 },
] as const
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

/** The walk of the long take: when it begins and ends, in seconds. */
export const WALK = { from: 3.3, to: 6.3 } as const

const moved = (pose: Pose, by: number): Pose => ({
  ...pose,
  x: pose.x + by,
  left: { x: pose.left.x + by, y: pose.left.y },
  right: { x: pose.right.x + by, y: pose.right.y },
})

/** One act on the left, a walk behind the counter, another act on the right. */
function longTake(): (s: number) => Pose {
  const far = rightRest.x - leftRest.x
  const before = perform(
    leftRest,
    [
      { at: 1.0, right: { x: 536, y: 372 }, lean: 0.06, look: 0.9, brows: 0.6 },
      { at: 2.4, right: { x: 478, y: 484 }, lean: 0, look: 0.7, brows: 0 },
    ],
    [LONG_LINES[0]],
    1.3,
  )
  const after = perform(
    { ...moved(leftRest, far), holds: 'right', look: -0.3 },
    [
      { at: 7.4, left: { x: 768, y: 388 }, lean: -0.07, look: -0.9, brows: 0.8 },
      { at: 8.9, left: { x: 818, y: 486 }, lean: 0, look: -0.5, brows: 0 },
    ],
    [LONG_LINES[1]],
    1.3,
  )
  return s => {
    const t = smooth(Math.max(0, Math.min(1, (s - WALK.from) / (WALK.to - WALK.from))))
    if (t === 0) return before(s)
    if (t === 1) return after(s)
    const speed = 4 * t * (1 - t)
    const pose = moved(before(s), far * t)
    const step = Math.sin(s * 9)
    return {
      ...pose,
      lean: pose.lean + 0.05 * speed,
      look: 0.9 * speed + (t < 0.5 ? 0.7 : -0.3) * (1 - speed),
      rise: pose.rise + Math.abs(step) * 6 * speed,
      left: { x: pose.left.x + step * 22 * speed, y: pose.left.y - 8 * speed },
      right: { x: pose.right.x - step * 22 * speed, y: pose.right.y - 8 * speed },
    }
  }
}

/** Where the clockmaker of `walk-across` is at its first frame, and px a frame. */
export const CROSSING = { from: -110, each: 6 } as const

/** From one side of the picture to the other at an even pace. */
function walkAcross(): (s: number) => Pose {
  const still = perform({ ...leftRest, holds: null, look: 0.8 }, [], [], 0)
  return s => {
    const sway = still(s)
    const by = CROSSING.from + CROSSING.each * RATE * s - leftRest.x
    const step = Math.sin(s * 7.5)
    return {
      ...moved(leftRest, by),
      holds: null,
      look: 0.85,
      lean: 0.04 + sway.lean,
      rise: Math.abs(step) * 7,
      left: { x: leftRest.left.x + by - 2 + step * 9, y: 514 },
      right: { x: leftRest.right.x + by + 2 - step * 9, y: 514 },
    }
  }
}

/** The clockmaker, by his poses. */
function clockmaker(pose: (seconds: number) => Pose): Actor {
  const width = 560
  return {
    paint: (c, seconds) => paintClockmaker(c, pose(seconds)),
    frame: seconds => ({
      left: Math.max(0, Math.min(WIDTH - width, Math.round(pose(seconds).x) - width / 2)),
      top: 150,
      width,
      height: 420,
    }),
    x: seconds => pose(seconds).x,
  }
}

/** Px a second at which the apprentice walks, where she begins, and seconds of her stride. */
const PACE = { speed: 270, from: -170, stride: 1.16 } as const

/** Where the apprentice is in her walk. */
export const strideAt = (seconds: number): Stride => ({
  x: PACE.from + PACE.speed * seconds,
  turn: seconds / PACE.stride,
  seconds,
})

const APPRENTICE: Actor = {
  paint: (c, seconds) => paintApprentice(c, strideAt(seconds)),
  frame(seconds) {
    const { x } = strideAt(seconds)
    const left = Math.max(0, Math.min(WIDTH - 1, Math.round(x) - 230))
    return { left, top: 100, width: Math.max(1, Math.min(WIDTH, Math.round(x) + 230) - left), height: HEIGHT - 100 }
  },
  x: seconds => strideAt(seconds).x,
}

/** The apprentice from head to foot: px a second, where she begins, how large she is. */
export const DUSK = { speed: 226, from: -120, scale: 0.62, stride: 0.86 } as const

export const duskAt = (seconds: number): number => DUSK.from + DUSK.speed * seconds

const WALKER: Actor = {
  paint(c, seconds) {
    const stride = { x: 0, turn: seconds / DUSK.stride, seconds }
    c.save()
    c.translate(duskAt(seconds), ROAD + 8 - SOLE * DUSK.scale)
    c.scale(DUSK.scale, DUSK.scale)
    paintLegs(c, stride)
    paintApprentice(c, stride)
    c.restore()
  },
  frame(seconds) {
    const x = Math.round(duskAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 150))
    return { left, top: 140, width: Math.max(1, Math.min(WIDTH, x + 130) - left), height: 540 }
  },
  x: duskAt,
}

/** Seen so near that only her legs and the coat's hem are in the picture. */
const STEPS = { speed: 250, from: -330, scale: 1.18, stride: 1.34, begins: 0.2 } as const

const stepsAt = (seconds: number): number => STEPS.from + STEPS.speed * seconds
export const stepAt = (seconds: number): Stride => ({ x: 0, turn: STEPS.begins + seconds / STEPS.stride, seconds })
/** From px of her own to those of the picture. */
export const stepsMap = (seconds: number) => ({
  a: STEPS.scale,
  b: 0,
  c: 0,
  d: STEPS.scale,
  x: stepsAt(seconds),
  y: FLOOR - SOLE * STEPS.scale,
})

const STEPPER: Actor = {
  paint(c, seconds) {
    const { a, d, x, y } = stepsMap(seconds)
    c.save()
    c.translate(x, y)
    c.scale(a, d)
    paintLegs(c, stepAt(seconds))
    paintApprentice(c, stepAt(seconds))
    c.restore()
  },
  frame(seconds) {
    const x = Math.round(stepsAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 280))
    return { left, top: 0, width: Math.max(1, Math.min(WIDTH, x + 280) - left), height: HEIGHT }
  },
  x: stepsAt,
}

/** How much nearer the camera stands in the back room, and what that brings to the frame's upper border. */
const NEAR = { scale: 1.55, up: 118 } as const

/** He turns to the panelling, lays a hand on the air before it, and in the end walks off to the left. */
const beforePanels = (s: number): Pose => {
  const acts = perform(
    { ...leftRest, x: 640, left: { x: 574, y: 486 }, right: { x: 710, y: 484 }, holds: null },
    [
      { at: 1.0, look: 0.9, tilt: 0.04, brows: 0.4 },
      { at: 1.9, right: { x: 776, y: 330 }, left: { x: 566, y: 400 }, lean: 0.05, brows: 0.9 },
      { at: 3.6, right: { x: 712, y: 480 }, left: { x: 574, y: 484 }, lean: -0.03, look: -0.9, brows: 0.1 },
    ],
    [],
    0.7,
  )
  const walk = smooth(Math.min(1, Math.max(0, (s - 3.6) / 1.7)))
  const pose = moved(acts(s), -760 * walk)
  return { ...pose, rise: pose.rise + Math.abs(Math.sin(walk * 11)) * 7 }
}

const NEAR_CLOCKMAKER: Actor = {
  paint(c, seconds) {
    c.save()
    c.translate(WIDTH / 2, -NEAR.up)
    c.scale(NEAR.scale, NEAR.scale)
    c.translate(-WIDTH / 2, 0)
    paintClockmaker(c, beforePanels(seconds))
    c.restore()
  },
  frame(seconds) {
    const middle = Math.round(NEAR_CLOCKMAKER.x(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, middle - 380))
    return { left, top: 60, width: Math.max(1, Math.min(WIDTH, middle + 380) - left), height: HEIGHT - 60 }
  },
  x: seconds => WIDTH / 2 + (beforePanels(seconds).x - WIDTH / 2) * NEAR.scale,
}

/** It rolls past by itself. */
const TROLLEY: Actor = {
  paint: paintTrolley,
  frame(seconds) {
    const x = Math.round(trolleyAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 320))
    return { left, top: 80, width: Math.max(1, Math.min(WIDTH, x + 300) - left), height: HEIGHT - 80 }
  },
  x: trolleyAt,
}

export const CLIPS: Readonly<Record<ClipName, Clip>> = {
  'empty-shop': {
    name: 'empty-shop',
    title: 'Empty shop',
    frames: 180,
    exposure: [1, 1, 1],
    lines: [],
    scene: 'shop',
    actor: null,
    seed: 1,
  },
  'clockmaker-left': {
    name: 'clockmaker-left',
    title: 'Act A, left',
    frames: 184,
    exposure: [1, 1, 1],
    lines: [LEFT_LINE],
    scene: 'shop',
    actor: clockmaker(
      perform(
        leftRest,
        [
          { at: 1.0, right: { x: 536, y: 372 }, lean: 0.06, look: 0.9, brows: 0.4 },
          { at: 2.6, right: { x: 548, y: 356 }, lean: 0.09, tilt: 0.08 },
          { at: 3.3, left: { x: 330, y: 404 }, brows: 1 },
          { at: 4.3, right: { x: 486, y: 420 }, lean: 0, tilt: -0.05, look: 0.2, left: { x: 344, y: 486 }, brows: 0.2 },
          { at: 5.4, right: { x: 478, y: 482 }, look: 0.8, tilt: 0.06 },
        ],
        [LEFT_LINE],
        0.4,
      ),
    ),
    seed: 2,
  },
  'clockmaker-right': {
    name: 'clockmaker-right',
    title: 'Act B, right',
    frames: 184,
    exposure: [0.955, 0.925, 0.87],
    lines: [RIGHT_LINE],
    scene: 'shop',
    actor: clockmaker(
      perform(
        rightRest,
        [
          { at: 1.3, look: -0.9, tilt: -0.06, brows: 0.5 },
          { at: 2.2, left: { x: 768, y: 392 }, lean: -0.07 },
          { at: 3.2, left: { x: 800, y: 330 }, right: { x: 976, y: 388 }, lean: -0.02, brows: 1 },
          { at: 4.4, left: { x: 764, y: 404 }, right: { x: 986, y: 420 }, tilt: 0.09, look: -0.5 },
          { at: 5.5, left: { x: 816, y: 486 }, right: { x: 952, y: 486 }, tilt: 0, brows: 0, look: -0.8 },
        ],
        [RIGHT_LINE],
        2.1,
      ),
    ),
    seed: 3,
  },
  'one-long-take': {
    name: 'one-long-take',
    title: 'One long take',
    frames: 300,
    exposure: [1, 1, 1],
    lines: LONG_LINES,
    scene: 'shop',
    actor: clockmaker(longTake()),
    seed: 4,
    bitrate: 2_900_000,
  },
  'counter-bell': {
    name: 'counter-bell',
    title: 'The bell is struck',
    frames: 120,
    exposure: [1, 1, 1],
    lines: [],
    bell: 1.5,
    scene: 'shop',
    actor: clockmaker(
      perform(
        moved({ ...leftRest, holds: null, look: -0.4 }, -24),
        [
          { at: 1.2, left: { x: 262, y: 410 }, lean: -0.05, look: -0.9, brows: 0.3 },
          { at: 1.55, left: { x: 252, y: 474 }, lean: -0.09 },
          { at: 2.2, left: { x: 268, y: 424 }, brows: 1 },
          { at: 3.4, left: { x: 318, y: 486 }, lean: 0, look: 0.2, brows: 0.2 },
        ],
        [],
        0.9,
      ),
    ),
    seed: 5,
  },
  pendulum: {
    name: 'pendulum',
    title: 'The pendulum',
    frames: 150,
    exposure: [1, 1, 1],
    lines: [],
    pendulum: true,
    scene: 'shop',
    actor: clockmaker(
      perform(
        leftRest,
        [
          { at: 1.2, right: { x: 540, y: 380 }, lean: 0.05, look: 0.9 },
          { at: 2.4, right: { x: 556, y: 350 }, tilt: 0.08, brows: 0.9 },
          { at: 4.2, right: { x: 480, y: 482 }, lean: 0, tilt: 0, brows: 0.1 },
        ],
        [],
        2.9,
      ),
    ),
    seed: 6,
  },
  'walk-across': {
    name: 'walk-across',
    title: 'Behind the counter',
    frames: 240,
    exposure: [1, 1, 1],
    lines: [],
    scene: 'shop',
    actor: clockmaker(walkAcross()),
    seed: 7,
    bitrate: 3_400_000,
  },
  'apprentice-late': {
    name: 'apprentice-late',
    title: 'She walks past',
    frames: 174,
    exposure: [1, 1, 1],
    lines: [],
    scene: 'street',
    actor: APPRENTICE,
    seed: 8,
    bitrate: 4_600_000,
  },
  'trolley-morning': {
    name: 'trolley-morning',
    title: 'The trolley rolls past',
    frames: 186,
    exposure: [0.86, 0.86, 0.86],
    lines: [],
    scene: 'yard',
    actor: TROLLEY,
    seed: 9,
    bitrate: 4_600_000,
  },
  'before-the-panels': {
    name: 'before-the-panels',
    title: 'Before the panelling',
    frames: 180,
    exposure: [1, 1, 1],
    lines: [],
    scene: 'parlour',
    actor: NEAR_CLOCKMAKER,
    seed: 10,
    bitrate: 4_300_000,
  },
  'dusk-walk': {
    name: 'dusk-walk',
    title: 'She crosses the yard',
    frames: 192,
    exposure: [1, 1, 1],
    lines: [],
    scene: 'dusk',
    actor: WALKER,
    seed: 11,
    bitrate: 4_200_000,
  },
  'attic-steps': {
    name: 'attic-steps',
    title: 'She steps through the attic',
    frames: 192,
    exposure: [0.92, 0.92, 0.92],
    lines: [],
    scene: 'attic',
    actor: STEPPER,
    seed: 12,
    bitrate: 4_200_000,
  },
}
