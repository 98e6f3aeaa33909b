// A brass hoop with marks on its rim, held up by both hands, and the clockmaker who holds it.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { type Point, type Pose, paintClockmaker } from './clockmaker'
import { perform } from './poses'
import type { Actor } from './scenes'

/** px from the hoop's middle to the middle of its rim, and how wide that is. */
export const HOOP_RADIUS = 104
export const RIM = 32
const MARKS = 24

/** Both hands on the rim of a hoop about a place, turned by radians. */
const held = (x: number, y: number, turn = 0): { left: Point; right: Point } => {
  const [dx, dy] = [HOOP_RADIUS * Math.cos(turn), HOOP_RADIUS * Math.sin(turn)]
  return { left: { x: x - dx, y: y - dy }, right: { x: x + dx, y: y + dy } }
}

const HOLDING: Pose = {
  x: 640,
  lean: 0,
  tilt: 0,
  look: 0.2,
  rise: 0,
  ...held(640, 408),
  mouth: 0,
  brows: 0.2,
  holds: null,
}

const pose = perform(
  HOLDING,
  [
    { at: 1.3, ...held(640, 372), brows: 0.7 },
    { at: 2.2, x: 604, ...held(574, 366, -0.16), lean: -0.05, look: -0.7 },
    { at: 3.2, x: 672, ...held(704, 360, 0.18), lean: 0.05, look: 0.8 },
    { at: 4.1, x: 642, ...held(646, 384, 0.02), lean: 0, look: 0, brows: 1 },
  ],
  [{ at: 2.4 }],
  0.7,
)

/** Where the hoop is at a moment: its middle, and radians by which it is turned. */
export function hoopAt(seconds: number): Point & { turn: number } {
  const { left, right } = pose(seconds)
  const turn = Math.atan2(right.y - left.y, right.x - left.x)
  return { x: (left.x + right.x) / 2, y: (left.y + right.y) / 2, turn }
}

function paintHoop(c: SKRSContext2D, seconds: number): void {
  const { x, y, turn } = hoopAt(seconds)
  c.save()
  c.translate(x, y)
  c.rotate(turn)
  const brass = c.createLinearGradient(-HOOP_RADIUS, -HOOP_RADIUS, HOOP_RADIUS, HOOP_RADIUS)
  brass.addColorStop(0, '#f3d58a')
  brass.addColorStop(0.45, '#b98a35')
  brass.addColorStop(0.6, '#e2bd66')
  brass.addColorStop(1, '#7c5720')
  for (const [style, width] of [
    ['#4b3312', RIM],
    [brass, RIM - 4],
  ] as const) {
    c.strokeStyle = style
    c.lineWidth = width
    c.beginPath()
    c.arc(0, 0, HOOP_RADIUS, 0, 7)
    c.stroke()
  }
  // Hours and halves along the rim, engraved: bars and dots.
  for (let i = 0; i < MARKS; i++) {
    c.save()
    c.rotate((i / MARKS) * 2 * Math.PI)
    c.translate(0, -HOOP_RADIUS)
    c.fillStyle = '#2a1a06'
    if (i % 2 === 0) c.fillRect(-3, -11, i % 6 === 0 ? 9 : 5, i % 4 === 0 ? 22 : 13)
    else {
      c.beginPath()
      c.arc(2, i % 3 === 0 ? -4 : 3, 5, 0, 7)
      c.fill()
    }
    c.restore()
  }
  // Thumbs lie over it.
  for (const side of [-1, 1]) {
    c.fillStyle = '#c9936c'
    c.beginPath()
    c.ellipse(side * (HOOP_RADIUS + 6), 0, 15, 8, side * 0.2, 0, 7)
    c.fill()
  }
  c.restore()
}

export const HOLDER: Actor = {
  paint(c, seconds) {
    paintClockmaker(c, pose(seconds))
    paintHoop(c, seconds)
  },
  frame: () => ({ left: 330, top: 150, width: 620, height: 420 }),
  x: seconds => pose(seconds).x,
}
