// What happens in each clip: poses over time, exposure, words.

import { NEAR_CLOCKMAKER } from './before-the-panels'
import { type Pose, paintClockmaker } from './clockmaker'
import { HOLDER } from './hoop'
import { leftRest, moved, perform, smooth } from './poses'
import type { Actor, SCENES } from './scenes'
import { WIDTH } from './shop'
import { APPRENTICE, STEPPER, TROLLEY, WALKER } from './walks'

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
  | 'hoop'

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

const LONG_LINES = [
  { at: 1.1, pitch: 112 },
  { at: 7.2, pitch: 108 },
] as const
const LEFT_LINE = { at: 1.2, pitch: 118 }
const RIGHT_LINE = { at: 3.1, pitch: 104 }

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
    scene: 'shop in the morning',
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
    scene: 'shop at night',
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
    scene: 'shop in the snow',
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
    scene: 'shop at sunset',
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
  hoop: {
    name: 'hoop',
    title: 'He holds up a hoop',
    frames: 150,
    exposure: [1, 1, 1],
    lines: [{ at: 2.4, pitch: 112 }],
    scene: 'shop',
    actor: HOLDER,
    seed: 13,
  },
}
