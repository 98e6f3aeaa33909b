// Looking along an outline through a stretch of time for the frame that it fits worst.

import { scaling } from '../core/affine'
import {
  carryOutlinePoint,
  changeOf,
  edgesAlong,
  type Looked,
  type OutlinePoint,
  type Pixels,
  worstFrame,
} from '../core/outline'
import { type Plan, planFrame, planView } from '../core/plan'
import type { Shot } from '../core/shot'

/** An outline as it is at a frame, in px of the shot. */
export interface OutlineAt {
  frame: number
  isKey: boolean
  points: OutlinePoint[]
}

/** px of the pictures that are looked at: edges and movement show as well in small ones. */
const WIDTH = 480

/** Of a layer alone, uncut, as it lies in the shot. */
export function aloneUncut(shot: Shot, frame: number, layer: string, scale = 1): Plan {
  const plan = planView(planFrame(shot, frame, scale), 'uncut', layer)
  return { ...plan, layers: plan.layers.filter(l => l.id === layer).slice(0, 1) }
}

/** px round the outlines within which what moves is taken to be in them. */
const ROUND = 24

function boundsOf(outlines: readonly OutlinePoint[][]) {
  const all = outlines.flat()
  return {
    left: Math.min(...all.map(p => p.x)) - ROUND,
    top: Math.min(...all.map(p => p.y)) - ROUND,
    right: Math.max(...all.map(p => p.x)) + ROUND,
    bottom: Math.max(...all.map(p => p.y)) + ROUND,
  }
}

/**
 * The frame, of those given in order, that an outline of a layer fits worst (`worstFrame`). `paint` makes a plan and hands its pixels on. Throws
 * whatever `onLooked` throws.
 */
export async function findWorst(
  shot: Shot,
  layer: string,
  outlines: readonly OutlineAt[],
  reach: number,
  paint: <T>(plan: Plan, use: (pixels: Pixels) => T) => Promise<T>,
  onLooked: (count: number) => void | Promise<void>,
): Promise<number | null> {
  const scale = Math.min(1, WIDTH / shot.size.width)
  const map = scaling(scale)
  const small = outlines.map(({ points }) => points.map(p => carryOutlinePoint(map, p)))
  const bounds = boundsOf(small)
  const looked: Looked[] = []
  let last: Pixels | null = null
  for (const [i, { frame, isKey }] of outlines.entries()) {
    const points = small[i]!
    const now: Pixels = await paint(aloneUncut(shot, frame, layer, scale), ({ width, height, data }) => ({
      width,
      height,
      data: data.slice(),
    }))
    const change = last ? changeOf(now, last, bounds) : 0
    looked.push({ frame, isKey, edges: edgesAlong(points, now, Math.max(2, reach * scale)), change })
    last = now
    await onLooked(i + 1)
  }
  return worstFrame(looked, Math.max(2, reach * scale))
}
