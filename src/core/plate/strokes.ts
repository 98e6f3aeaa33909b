// Strokes that say of a place what it is, there and nearby in time until the next ones.
import type { Point } from '../affine'
import type { Cells } from './cells'
import type { Plane } from './plane'

/** Painted on a frame of the take: somebody is kept under it, or lost. */
export interface Stroke {
  /** Seconds of the take. */
  at: number
  does: 'keep' | 'lose'
  /** px of the take from its middle to its border. */
  size: number
  /** px of the take. */
  points: readonly Point[]
}

/** Seconds over which a stroke bears on what comes before it and after. */
export const REACH = 1.5
/** Seconds within which strokes are on the same frame. */
const SAME = 0.004

/** Whether a stroke is on the frame that begins at a moment. */
export const isOn = ({ at }: Stroke, moment: number): boolean => Math.abs(at - moment) <= SAME

/** Log odds under a stroke on its own frame, and of what looks alike beside it, which fade over so many frames. */
export const CERTAIN = 60
const LIKELY = 14
const FADE = 25
/** Cells by which what was painted may have moved: a frame, and at most; of the set, which stays. */
const MOVES = 1.5
const FAR = 14
const STAYS = 1
/** Colours of a stroke that are remembered, and codes² by which others may be off from the nearest and still be alike. */
const COLOURS = 48
const ALIKE = 90

/** The strokes that bear on a moment: those on the nearest painted frames before and after it. */
export function bearing(strokes: readonly Stroke[], seconds: number): Stroke[] {
  const near = strokes.filter(s => Math.abs(s.at - seconds) <= REACH)
  const before = Math.max(...near.filter(s => s.at <= seconds + SAME).map(s => s.at))
  const after = Math.min(...near.filter(s => s.at > seconds + SAME).map(s => s.at))
  // On a painted frame nothing else is needed.
  const isThere = seconds - before <= SAME
  return near.filter(s => Math.abs(s.at - before) <= SAME || (!isThere && Math.abs(s.at - after) <= SAME))
}

/** The strokes on the nearest painted frames before a moment and after it, however far: without a plate nothing else tells of it. */
export function between(strokes: readonly Stroke[], seconds: number): Stroke[] {
  const before = Math.max(...strokes.filter(s => s.at <= seconds + SAME).map(s => s.at))
  const after = Math.min(...strokes.filter(s => s.at > seconds + SAME).map(s => s.at))
  const isThere = seconds - before <= SAME
  return strokes.filter(s => Math.abs(s.at - before) <= SAME || (!isThere && Math.abs(s.at - after) <= SAME))
}

/** What a stroke covers and what it covered on its own frame. */
export interface Hint {
  does: Stroke['does']
  /** Cells from each cell of its surroundings to the stroke; those farther than FAR are left out. */
  near: readonly { cell: number; far: number }[]
  /** y, u, v of what is under it, one after the other. */
  colours: Float32Array
}

/** How far a place lies from the line between two. */
function farFrom(p: Point, q: Point, x: number, y: number): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y]
  const along = Math.max(0, Math.min(1, ((x - p.x) * dx + (y - p.y) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(x - p.x - along * dx, y - p.y - along * dy)
}

/** Takes a stroke down, with the frame that it was painted on. */
export function hintOf({ does, size, points }: Stroke, frame: Cells): Hint {
  const { width, height, y, u, v } = frame
  const line = points.map(p => ({ x: p.x / 2, y: p.y / 2 }))
  const reach = size / 2 + FAR
  const least = new Map<number, number>()
  // Part by part: a stroke round somebody is long, and most of what it goes round is far from all of it.
  line.forEach((p, i) => {
    const q = line[i + 1] ?? p
    const [left, top] = [Math.min(p.x, q.x) - reach, Math.min(p.y, q.y) - reach]
    const [right, bottom] = [Math.max(p.x, q.x) + reach, Math.max(p.y, q.y) + reach]
    for (let cy = Math.max(0, Math.floor(top)); cy < Math.min(height, bottom); cy++) {
      for (let cx = Math.max(0, Math.floor(left)); cx < Math.min(width, right); cx++) {
        const far = Math.max(0, farFrom(p, q, cx + 0.5, cy + 0.5) - size / 2)
        const cell = cy * width + cx
        if (far <= FAR && far < (least.get(cell) ?? Number.POSITIVE_INFINITY)) least.set(cell, far)
      }
    }
  })
  const near = [...least].sort(([a], [b]) => a - b).map(([cell, far]) => ({ cell, far }))
  const under = near.filter(n => n.far === 0).map(n => n.cell)
  const step = Math.max(1, Math.floor(under.length / COLOURS))
  const colours = under.filter((_, i) => i % step === 0).flatMap(i => [y[i]!, u[i]!, v[i]!])
  return { does, near, colours: Float32Array.from(colours) }
}

/** The cells that it covers. */
export const underHint = ({ near }: Hint): number[] => near.flatMap(({ cell, far }) => (far === 0 ? [cell] : []))

function isAlike({ y, u, v }: Cells, i: number, colours: Float32Array): boolean {
  for (let c = 0; c < colours.length; c += 3) {
    const [dy, du, dv] = [y[i]! - colours[c]!, u[i]! - colours[c + 1]!, v[i]! - colours[c + 2]!]
    // Light changes sooner than colour.
    if (dy * dy + 4 * (du * du + dv * dv) < ALIKE) return true
  }
  return false
}

/** Makes px of a frame what was painted on it: what looks like the set cannot be told from it by its colour. */
export function paintAlpha(
  { does, near }: Hint,
  { width }: Cells,
  full: { width: number; height: number },
  alpha: Uint8Array,
): void {
  const value = does === 'keep' ? 255 : 0
  for (const { cell, far } of near) {
    if (far > 0) continue
    const [x, y] = [(cell % width) * 2, Math.floor(cell / width) * 2]
    for (let py = y; py < Math.min(y + 2, full.height); py++) {
      for (let px = x; px < Math.min(x + 2, full.width); px++) alpha[py * full.width + px] = value
    }
  }
}

/** Adds to the log odds of a frame what a stroke says that was painted so many frames away. */
export function addHint({ does, near, colours }: Hint, frame: Cells, apart: number, odds: Plane): void {
  const sign = does === 'keep' ? 1 : -1
  if (apart === 0) {
    for (const { cell, far } of near) if (far === 0) odds[cell]! += sign * CERTAIN
    return
  }
  const reach = does === 'keep' ? Math.min(FAR, apart * MOVES) : STAYS
  const worth = sign * LIKELY * Math.exp(-apart / FADE)
  for (const { cell, far } of near) if (far <= reach && isAlike(frame, cell, colours)) odds[cell]! += worth
}
