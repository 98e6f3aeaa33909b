// A made-up clip in which somebody's outline is known at every frame, and a limb that swings.
import {
  carryOutlinePoint,
  changeOf,
  corner,
  edgesAlong,
  type Looked,
  mixOutlines,
  type OutlinePoint,
  type Pixels,
  worstFrame,
} from '../core/outline'

const [WIDTH, HEIGHT] = [240, 140]
/** Frames of the clip. */
export const LENGTH = 100
/** px within which edges of its pictures are looked for. */
export const REACH = 16

/** Somebody who stands, starts, stops short and turns: most happens in a few frames. */
function middleAt(frame: number): { x: number; y: number; r: number } {
  const f = frame / (LENGTH - 1)
  const dash = f < 0.35 ? 0 : f < 0.5 ? (f - 0.35) / 0.15 : 1
  const back = f < 0.72 ? 0 : f < 0.8 ? (f - 0.72) / 0.08 : 1
  return { x: 60 + 110 * dash - 50 * back, y: 70 + 25 * Math.sin(dash * Math.PI) * (1 - back), r: 28 + 5 * back }
}

/** The outline as it is. */
function truth(frame: number): OutlinePoint[] {
  const { x, y, r } = middleAt(frame)
  const handle = (4 / 3) * Math.tan(Math.PI / 12) * r
  return Array.from({ length: 6 }, (_, i) => {
    const a = (i / 6) * 2 * Math.PI
    const [dx, dy] = [-Math.sin(a) * handle, Math.cos(a) * handle]
    return { x: x + r * Math.cos(a), y: y + r * Math.sin(a), inX: -dx, inY: -dy, outX: dx, outY: dy }
  })
}

function pictureAt(frame: number): Pixels {
  const { x: cx, y: cy, r } = middleAt(frame)
  const data = new Uint8Array(WIDTH * HEIGHT * 4)
  let seed = frame + 1
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      seed = (seed * 1103515245 + 12345) % 2147483648
      // A wall with boards, so that there are edges besides.
      const wall = 70 + (x % 40 < 2 ? 25 : 0)
      const inside = Math.max(0, Math.min(1, r - Math.hypot(x + 0.5 - cx, y + 0.5 - cy) + 0.5))
      data.fill(wall + inside * (190 - wall) + (seed / 2147483648) * 8, (y * WIDTH + x) * 4, (y * WIDTH + x) * 4 + 3)
    }
  }
  return { width: WIDTH, height: HEIGHT, data }
}

const ALL = { left: 0, top: 0, right: WIDTH, bottom: HEIGHT }
let shown: Pixels[] | null = null
const pictures = (): Pixels[] => {
  shown ??= Array.from({ length: LENGTH }, (_, f) => pictureAt(f))
  return shown
}

/** The outline at a frame, as keys at some frames make it. */
function between(keys: readonly number[], frame: number): OutlinePoint[] {
  const before = keys.filter(k => k <= frame).at(-1)!
  const after = keys.find(k => k >= frame)!
  return before === after
    ? truth(before)
    : mixOutlines(truth(before), truth(after), (frame - before) / (after - before))
}

/** px by which the points of what keys at some frames make are off, in the mean of all frames. */
export function meanError(keys: readonly number[]): number {
  let sum = 0
  for (let f = 0; f < LENGTH; f++) {
    const now = between(keys, f)
    sum += truth(f).reduce((far, p, i) => far + Math.hypot(p.x - now[i]!.x, p.y - now[i]!.y), 0) / now.length
  }
  return sum / LENGTH
}

/** The frame that is proposed for the next key; null where none pays. */
export function propose(keys: readonly number[]): number | null {
  const looked = pictures().map(
    (picture, frame): Looked => ({
      frame,
      isKey: keys.includes(frame),
      edges: edgesAlong(between(keys, frame), picture, REACH),
      change: frame > 0 ? changeOf(picture, pictures()[frame - 1]!, ALL) : 0,
    }),
  )
  return worstFrame(looked, REACH)
}

/** Ten keys: the first and the last frame, and wherever one is proposed. Fewer where none pays any more. */
export function proposedKeys(): number[] {
  let keys = [0, LENGTH - 1]
  for (let worst = propose(keys); worst !== null && keys.length < 10; worst = propose(keys))
    keys = [...keys, worst].sort((a, b) => a - b)
  return keys
}

export const evenKeys = (): number[] => Array.from({ length: 10 }, (_, i) => Math.round((i * (LENGTH - 1)) / 9))

/** A limb of 200 px about its shoulder, swung by some degrees. */
export function limb(angle: number, shoulder = { x: 300, y: 200 }): OutlinePoint[] {
  const points = [
    [0, -20],
    [200, -12],
    [200, 12],
    [0, 20],
  ].map(([x, y]) => ({ ...corner({ x: x!, y: y! }), outX: 10, inY: 4 }))
  const a = (angle * Math.PI) / 180
  const map = { a: Math.cos(a), b: Math.sin(a), c: -Math.sin(a), d: Math.cos(a), ...shoulder }
  return points.map(p => carryOutlinePoint(map, p))
}

/** How long a limb is. */
export const reach = ([a, b]: readonly OutlinePoint[]): number => Math.hypot(a!.x - b!.x, a!.y - b!.y)
