// Drawing what is dragged to frames that matter.
import { keysOf } from '../../core/keys'
import { getValue, keyedPaths, type Shot } from '../../core/shot'

/** Px within which something snaps. */
const REACH = 8

/** The frames that things snap to: the shot's and the other layers' ends, marks, the playhead, keys of what is chosen. */
export function snapPoints(
  shot: Shot,
  moving: ReadonlySet<string>,
  playhead: number,
  keysToo: ReadonlySet<string>,
): number[] {
  const points = new Set([0, shot.length, playhead, ...shot.marks.map(m => m.frame)])
  for (const layer of shot.layers) {
    if (!moving.has(layer.id)) {
      points.add(layer.span.from)
      points.add(layer.span.to)
    }
    if (!keysToo.has(layer.id) || moving.has(layer.id)) continue
    for (const path of keyedPaths(layer)) for (const key of keysOf(getValue(layer, path)!)) points.add(key.frame)
  }
  return [...points]
}

export interface Snapped {
  /** How far everything moves, in frames. */
  by: number
  /** The frame that was met, or null. */
  at: number | null
}

/** Draws a movement to the nearest point that one of the moving edges comes close to. */
export function snap(by: number, edges: readonly number[], points: readonly number[], perFrame: number): Snapped {
  const reach = REACH / perFrame
  let best: Snapped & { off: number } = { by: Math.round(by), at: null, off: reach }
  for (const edge of edges) {
    for (const point of points) {
      const off = Math.abs(edge + by - point)
      if (off < best.off) best = { by: point - edge, at: point, off }
    }
  }
  return { by: best.by, at: best.at }
}
