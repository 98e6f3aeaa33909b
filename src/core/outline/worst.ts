// Which frame between keys an outline is likely to fit worst.
import type { EdgesAlong, Pixels } from './lean'

/** What was found about an outline at a frame. */
export interface Looked {
  frame: number
  isKey: boolean
  edges: EdgesAlong
  /** How much the picture has changed since the frame that was looked at before (`changeOf`). */
  change: number
}

interface Bounds {
  left: number
  top: number
  right: number
  bottom: number
}

/** How much two pictures of one size differ within bounds: codes, added up over all pixels, of the mean of their colours. */
export function changeOf(one: Pixels, other: Pixels, { left, top, right, bottom }: Bounds): number {
  let sum = 0
  const [x0, x1] = [Math.max(0, Math.floor(left)), Math.min(one.width, Math.ceil(right))]
  for (let y = Math.max(0, Math.floor(top)); y < Math.min(one.height, Math.ceil(bottom)); y++) {
    for (let i = (y * one.width + x0) * 4; i < (y * one.width + x1) * 4; i += 4) {
      const by =
        one.data[i]! - other.data[i]! + one.data[i + 1]! - other.data[i + 1]! + one.data[i + 2]! - other.data[i + 2]!
      sum += Math.abs(by) / 3
    }
  }
  return sum
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

/**
 * How badly an outline fits at a frame between two keys, px: how much farther from it the edges lie than at the keys, whose outlines are as
 * somebody wants them. A place whose edge is lost counts as far as was looked.
 */
function misfit(now: EdgesAlong, before: EdgesAlong, after: EdgesAlong, t: number, reach: number): number {
  return mean(
    now.across.map((across, i) => {
      const meant = before.across[i]! * (1 - t) + after.across[i]! * t
      const strong = before.strength[i]! * (1 - t) + after.strength[i]! * t
      const lost = strong > 1 ? Math.max(0, 1 - now.strength[i]! / strong) : 0
      return Math.max(Math.abs(across - meant), reach * lost * lost)
    }),
  )
}

/** Of all changes this share is taken to be grain: no more than somebody who stands still makes. */
const STILL = 0.2

/** px that what is inside an outline has gone since the frame looked at before: what changes is about its border, as far as it went. */
function gone(looked: readonly Looked[]): number[] {
  const sorted = looked.map(l => l.change).sort((a, b) => a - b)
  const grain = sorted[Math.floor(STILL * sorted.length)] ?? 0
  const keys = looked.filter(l => l.isKey)
  const border = mean(keys.map(({ edges }) => edges.length * mean(edges.strength))) / Math.sqrt(3)
  return looked.map(l => (border > 1 ? Math.max(0, l.change - grain) / border : 0))
}

/** How much nearer to the middle between its keys a frame has to fit as badly as another to be put before it. */
const MIDDLE = 0.15

/**
 * The frame at which an outline likely fits worst, of those that were looked at, in order of frame, first and last a key: where edges lie
 * off it, or where what is in it has gone much farther, or less far, than evenly. Of frames that fit as badly, the one farthest from keys. null where
 * there is no frame between two keys.
 */
export function worstFrame(looked: readonly Looked[], reach: number): number | null {
  const steps = gone(looked)
  let sum = 0
  const way = steps.map(step => (sum += step))
  let worst: number | null = null
  let most = Number.NEGATIVE_INFINITY
  let from = -1
  looked.forEach(({ frame, isKey, edges }, i) => {
    if (isKey) {
      from = i
      return
    }
    const to = looked.findIndex((l, j) => j > i && l.isKey)
    if (from < 0 || to < 0) return
    const [before, after] = [looked[from]!, looked[to]!]
    const t = (frame - before.frame) / (after.frame - before.frame)
    const even = Math.abs(way[i]! - way[from]! - t * (way[to]! - way[from]!))
    const away = Math.min(frame - before.frame, after.frame - frame)
    const far = misfit(edges, before.edges, after.edges, t, reach) + even + MIDDLE * Math.sqrt(away)
    if (far <= most) return
    most = far
    worst = frame
  })
  return worst
}
