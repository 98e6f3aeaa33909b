// The clockmaker before the panelling of the back room, seen from near by.
import { type Pose, paintClockmaker } from './clockmaker'
import { leftRest, moved, perform, smooth } from './poses'
import type { Actor } from './scenes'
import { HEIGHT, WIDTH } from './shop'

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

export const NEAR_CLOCKMAKER: Actor = {
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
