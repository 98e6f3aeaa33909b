// Points of a take followed through its frames, there and back.
import { carry, type Point, UNMOVED } from '../core/affine'
import {
  type Followed,
  followPoint,
  followSurface,
  moveOf,
  type Pyramid,
  pyramid,
  refill,
  spotsIn,
} from '../core/follow'
import { blankCells, type Cells } from '../core/plate'
import { between, type Projective, projective, type Quad } from '../core/projective'
import type { Kernels } from '../core/render'
import type { Span } from '../core/time'
import { type Counted, type Frames, framesInTurn, indicesFrom, readFrame } from './counted'
import { ownKernels } from './own-kernels'
import { MediaProblem } from './problem'

export interface Place extends Followed {
  frame: number
}

/** Whether to go on; told after each frame how many are done. */
type OnFrame = (done: number) => boolean | undefined | Promise<boolean | undefined>

const NOTHING = 'There is too little at this point to hold on to: choose a corner, or a spot.'

const nothingIn = (what: Inside): string => {
  if ('surface' in what) return 'There is too little inside of the corners to hold on to: it is too small or too plain.'
  if ('marks' in what)
    return 'There is too little under one of the corners to hold on to: put each on a corner, or a spot.'
  return NOTHING
}

/** A frame of a take as followers look at it, and those along the way from it: each takes the place of the one before. */
async function greyFrames(k: Kernels, frames: Frames, take: Counted, from: number) {
  const cells: Cells = blankCells(await ownKernels(k, take.size), take.size)
  await readFrame(k, frames, take, from, () => true, cells)
  const first = pyramid(cells.k, { ...take.size, data: cells.luma })
  async function* along(way: readonly number[]): AsyncGenerator<{ frame: number; now: Pyramid }> {
    for await (const frame of framesInTurn(
      k,
      frames,
      take,
      way,
      () => true,
      () => cells,
    )) {
      refill(first)
      yield { frame, now: first }
    }
  }
  return { first, along }
}

/** Frames of a span on both sides of one, each way from it on. */
const ways = (from: number, { from: first, to }: Span): readonly number[][] => [
  indicesFrom(from + 1, to),
  indicesFrom(from - 1, first - 1),
]

/**
 * Where a point of frame `from`, px from the left top corner, lies in every frame of a span around it, in order. Once it is lost it stays where it was last seen until it is
 * found again. Throws MediaProblem where there is too little to hold on to.
 */
export async function followThrough(
  k: Kernels,
  frames: Frames,
  take: Counted,
  from: number,
  at: Point,
  span: Span,
  onFrame: (done: number) => void = () => {},
): Promise<Place[]> {
  const { first, along } = await greyFrames(k, frames, take, from)
  const places: Place[] = [{ ...at, frame: from, sure: 1, isLost: false }]
  // Both begin where it was pointed at.
  const both = ways(from, span).map(way => ({ way, follower: followPoint(first, at) }))
  for (const { way, follower } of both) {
    if (!follower) throw new MediaProblem(NOTHING)
    for await (const { frame, now } of along(way)) {
      places.push({ ...follower.next(now), frame })
      onFrame(places.length)
    }
  }
  return places.sort((a, b) => a.frame - b.frame)
}

/** How something moved from one frame to another; `move` is null where it was lost. */
export interface Moved {
  frame: number
  move: Projective | null
  /** 0..1: how much what was followed looks like itself there. */
  sure: number
}

/**
 * What moves: a point; all that lies inside an outline of straight lines, as it turns, grows and shifts, or as something flat is seen; or four points that something flat hangs
 * on.
 */
export type Inside = { point: Point } | { corners: readonly Point[] } | { surface: readonly Point[] } | { marks: Quad }

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

/** Tells how something moved from the first picture to the next ones; null where there is too little to hold on to. */
type Mover = (now: Pyramid) => Pick<Moved, 'move' | 'sure'>

/** By points of it, of which so many have to be seen. */
function byPoints(
  first: Pyramid,
  starts: readonly Point[],
  needed: (of: number) => number,
  tell: (from: readonly Point[], to: readonly Point[]) => Projective | null,
): Mover | null {
  const all = starts.flatMap(start => {
    const follower = followPoint(first, start)
    return follower ? [{ start, follower }] : []
  })
  if (all.length === 0 || all.length < needed(starts.length)) return null
  return now => {
    const seen = all.map(({ start, follower }) => ({ start, at: follower.next(now) })).filter(({ at }) => !at.isLost)
    if (seen.length < needed(all.length)) return { move: null, sure: 0 }
    const move = tell(
      seen.map(s => s.start),
      seen.map(s => s.at),
    )
    return { move, sure: move ? seen.reduce((sum, { at }) => sum + at.sure, 0) / seen.length : 0 }
  }
}

/** Of four points that something hangs on, so many have to be seen: those that are not go with the others, evenly. */
const MARKS_SEEN = 2

/** By four points that something flat hangs on. */
function byMarks(first: Pyramid, marks: Quad): Mover | null {
  const followers = marks.map(at => followPoint(first, at))
  if (followers.some(f => f === null)) return null
  let at: readonly Point[] = marks
  return now => {
    const found = followers.map(follower => follower!.next(now))
    const seen = [0, 1, 2, 3].filter(i => !found[i]!.isLost)
    if (seen.length < MARKS_SEEN) return { move: null, sure: 0 }
    const since = moveOf(
      seen.map(i => at[i]!),
      seen.map(i => found[i]!),
    )!
    at = at.map((p, i) => (found[i]!.isLost ? carry(since, p) : { x: found[i]!.x, y: found[i]!.y }))
    found.forEach(({ isLost }, i) => {
      if (isLost) followers[i]!.put(now, at[i]!)
    })
    const sure = seen.reduce((sum, i) => sum + found[i]!.sure, 0) / 4
    return { move: between(marks, at as unknown as Quad), sure }
  }
}

/** As a turn, a scale and a shift. */
function evenMove(from: readonly Point[], to: readonly Point[]): Projective | null {
  const move = moveOf(from, to)
  return move && projective(move)
}

/** How far from where most go a point may be to go along with them: px, and shares of how far they lie apart. */
const ALONG = 2
const ALONG_SHARE = 0.03

/** The same of what has to keep together: null where too few go along with each other. */
function evenMoveOf(all: readonly Point[]): typeof evenMove {
  const [xs, ys] = [all.map(p => p.x), all.map(p => p.y)]
  const extent = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  const near = Math.max(ALONG, ALONG_SHARE * extent)
  return (from, to) => {
    const move = moveOf(from, to)
    if (!move) return null
    const along = from.filter((p, i) => {
      const { x, y } = carry(move, p)
      return Math.hypot(x - to[i]!.x, y - to[i]!.y) < near
    })
    return along.length < all.length * SEEN ? null : projective(move)
  }
}

function moverOf(first: Pyramid, what: Inside): Mover | null {
  if ('point' in what) return byPoints(first, [what.point], () => 1, evenMove)
  if ('marks' in what) return byMarks(first, what.marks)
  if ('corners' in what) {
    const spots = spotsIn(first.levels[0]!, isIn(what.corners), MOST)
    return byPoints(first, spots, of => Math.max(1, of * SEEN), evenMoveOf(spots))
  }
  const follower = followSurface(first, isIn(what.surface))
  if (!follower) return null
  return now => {
    const { map, sure } = follower.next(now)
    return { move: map, sure }
  }
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
  const { first, along } = await greyFrames(k, frames, take, from)
  const moved: Moved[] = [{ frame: from, move: projective(UNMOVED), sure: 1 }]
  const both = ways(from, span).map(way => ({ way, mover: moverOf(first, what) }))
  for (const { way, mover } of both) {
    if (!mover) throw new MediaProblem(nothingIn(what))
    for await (const { frame, now } of along(way)) {
      moved.push({ frame, ...mover(now) })
      if ((await onFrame(moved.length)) === false) return moved
    }
  }
  return moved.sort((a, b) => a.frame - b.frame)
}
