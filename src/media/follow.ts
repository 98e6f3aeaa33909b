// Points of a take followed through its frames, there and back.
import type { Affine, Point } from '../core/affine'
import {
  type Followed,
  followPoint,
  moveOf,
  type PointFollower,
  type Pyramid,
  pyramid,
  refill,
  spotsIn,
} from '../core/follow'
import { blankCells, type Cells } from '../core/plate'
import type { Kernels } from '../core/render'
import type { Span } from '../core/time'
import { type Counted, type Frames, ownKernels, readFrame } from './cutout'
import { MediaProblem } from './problem'

export interface Place extends Followed {
  frame: number
}

/** Whether to go on; told after each frame how many are done. */
type OnFrame = (done: number) => boolean | undefined | Promise<boolean | undefined>

const NOTHING = 'There is too little at this point to hold on to: choose a corner, or a spot.'

/** Reads frames of a take as followers look at them: each takes the place of the one before. */
async function greyFrames(k: Kernels, frames: Frames, take: Counted) {
  const cells: Cells = blankCells(await ownKernels(k, take.size), take.size)
  const now = pyramid(cells.k, { ...take.size, data: cells.luma })
  return async (index: number): Promise<Pyramid> => {
    await readFrame(k, frames, take, index, () => true, cells)
    refill(now)
    return now
  }
}

/** Frames of a span on both sides of one, each way from it on. */
const ways = (from: number, { from: first, to }: Span) =>
  [
    [1, to],
    [-1, first - 1],
  ].map(([step, end]) => ({ step: step!, end: end!, start: from + step! }))

/**
 * Where a point of frame `from`, px from the left top corner, lies in every frame of a take, in order. Once it is lost it stays where it was last seen until it is found
 * again. Throws MediaProblem where there is too little to hold on to.
 */
export async function followThrough(
  k: Kernels,
  frames: Frames,
  take: Counted,
  from: number,
  at: Point,
  onFrame: (done: number) => void = () => {},
): Promise<Place[]> {
  const grey = await greyFrames(k, frames, take)
  const first = await grey(from)
  const places: Place[] = [{ ...at, frame: from, sure: 1, isLost: false }]
  // Both begin where it was pointed at.
  const both = ways(from, { from: 0, to: take.count }).map(way => ({ ...way, follower: followPoint(first, at) }))
  for (const { step, end, start, follower } of both) {
    if (!follower) throw new MediaProblem(NOTHING)
    for (let frame = start; frame !== end; frame += step) {
      places.push({ ...follower.next(await grey(frame)), frame })
      onFrame(places.length)
    }
  }
  return places.sort((a, b) => a.frame - b.frame)
}

/** How something moved from one frame to another; `move` is null where it was lost. */
export interface Moved {
  frame: number
  move: Affine | null
  /** 0..1: how much what was followed looks like itself there. */
  sure: number
}

/** What moves: a point, or all that lies inside an outline of straight lines. */
export type Inside = { point: Point } | { corners: readonly Point[] }

/** Points inside of something that are followed. */
const MOST = 24
/** Shares of them that have to be there for it not to be lost. */
const SEEN = 0.34

/** Whether a place lies inside (even–odd). */
const isIn =
  (corners: readonly Point[]) =>
  (x: number, y: number): boolean => {
    let inside = false
    corners.forEach((p, i) => {
      const q = corners[(i + 1) % corners.length]!
      if (p.y > y !== q.y > y && x < p.x + ((y - p.y) * (q.x - p.x)) / (q.y - p.y)) inside = !inside
    })
    return inside
  }

interface Watched {
  start: Point
  follower: PointFollower
}

function watched(first: Pyramid, what: Inside): Watched[] {
  const points = 'point' in what ? [what.point] : spotsIn(first.levels[0]!, isIn(what.corners), MOST)
  return points.flatMap(start => {
    const follower = followPoint(first, start)
    return follower ? [{ start, follower }] : []
  })
}

function moveAt(all: readonly Watched[], now: Pyramid): Pick<Moved, 'move' | 'sure'> {
  const seen = all.map(({ start, follower }) => ({ start, at: follower.next(now) })).filter(({ at }) => !at.isLost)
  if (seen.length < Math.max(1, all.length * SEEN)) return { move: null, sure: 0 }
  const move = moveOf(
    seen.map(s => s.start),
    seen.map(s => s.at),
  )
  return { move, sure: seen.reduce((sum, { at }) => sum + at.sure, 0) / seen.length }
}

/**
 * How something in frame `from` moved to the other frames of a span that lie to the sides of it, in order. Throws MediaProblem where there is too little to hold on
 * to; ends early where `onFrame` says no.
 */
export async function followMoves(
  k: Kernels,
  frames: Frames,
  take: Counted,
  from: number,
  what: Inside,
  span: Span,
  onFrame: OnFrame = () => true,
): Promise<Moved[]> {
  const grey = await greyFrames(k, frames, take)
  const first = await grey(from)
  const moved: Moved[] = [{ frame: from, move: { a: 1, b: 0, c: 0, d: 1, x: 0, y: 0 }, sure: 1 }]
  const both = ways(from, span).map(way => ({ ...way, all: watched(first, what) }))
  for (const { step, end, start, all } of both) {
    if (all.length === 0) throw new MediaProblem(NOTHING)
    for (let frame = start; frame !== end; frame += step) {
      moved.push({ frame, ...moveAt(all, await grey(frame)) })
      if ((await onFrame(moved.length)) === false) return moved
    }
  }
  return moved.sort((a, b) => a.frame - b.frame)
}
