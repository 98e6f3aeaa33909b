// Something flat, followed from frame to frame as it turns away and comes nearer.
import { type Point, UNMOVED } from '../affine'
import { type Projective, project, projectAfter, projective, unproject } from '../projective'
import { type Aligned, align, type Looks, looksOf } from './align'
import { moveOf } from './move'
import { followPoint } from './point'
import type { Grey, Pyramid } from './pyramid'
import { spotsIn } from './spots'

/** Points of it that are followed, and px about them that have to be of it. */
const POINTS = 60
const ROOM = 10
/** Points that are enough to tell where it went. */
const ENOUGH = 3
/** How alike it has to look, and how much of it has to be seen; and from where on nothing else is tried. */
const ALIKE = 0.6
const SEEN = 0.35
const SURE = 0.9
const CLEAR = 0.6

/** How much of it has to lie within the picture to be looked for; and how sure it is where that is less. */
const LEFT = 0.5
const OUTSIDE = 0.8
/** Pictures by which its pace is told. */
const PACE = 9

const placeOf = ({ places }: Looks, i: number): Point => ({ x: places[i * 2]!, y: places[i * 2 + 1]! })

/** How much of what is looked at lies within a picture. */
function shareIn({ width, height }: Grey, looks: Looks, map: Projective): number {
  let count = 0
  for (let i = 0; i < looks.count; i++) {
    const { x, y } = project(map, placeOf(looks, i))
    if (x > 0 && y > 0 && x < width && y < height) count++
  }
  return count / looks.count
}

/** Where the middle of what is looked at comes to lie. */
function middleOf(looks: Looks, map: Projective): Point {
  let [x, y] = [0, 0]
  for (let i = 0; i < looks.count; i++) {
    const at = placeOf(looks, i)
    x += at.x / looks.count
    y += at.y / looks.count
  }
  return project(map, { x, y })
}

export interface SeenPlane {
  /** From the first picture to this one, px; null where it is lost. */
  map: Projective | null
  /** 0..1 */
  sure: number
}

export interface SurfaceFollower {
  next(now: Pyramid): SeenPlane
}

/**
 * Follows what is flat inside of something, px of a first picture, through those that come next, forward or backward: points tell roughly where it went, then all of its px
 * are laid onto how they looked at first, so that nothing adds up, and what hides it is let go of. All pictures lie in the same memory. null where there is too little to hold on
 * to. Where most of it lies beyond the picture's border it goes on at the pace that it had. Throws OutOfMemory.
 */
export function followSurface(first: Pyramid, isInside: (x: number, y: number) => boolean): SurfaceFollower | null {
  const isWithin = (x: number, y: number) =>
    [-ROOM, ROOM].every(dx => [-ROOM, ROOM].every(dy => isInside(x + dx, y + dy)))
  const points = spotsIn(first.levels[0]!, isWithin, POINTS).flatMap(start => {
    const follower = followPoint(first, start)
    return follower ? [{ start, follower }] : []
  })
  // Small pictures first: they forgive more.
  const levels = [1, 0].flatMap(level => {
    const picture = first.levels[level]
    const looks = picture && looksOf(picture, 2 ** level, isInside)
    return looks ? [{ level, looks }] : []
  })
  if (levels.at(-1)?.level !== 0) return null
  let last = projective(UNMOVED)
  let move = last

  /** Where its points say that it went since the last picture; where too few are seen, it goes on as it went. */
  function rough(now: Pyramid): Projective {
    const found = points
      .map(({ start, follower }) => ({ start, at: follower.next(now) }))
      .filter(({ at }) => !at.isLost)
    if (found.length < ENOUGH) return projectAfter(move, last)
    const since = moveOf(
      found.map(f => project(last, f.start)),
      found.map(f => f.at),
    )!
    return projectAfter(projective(since), last)
  }

  function settled(now: Pyramid, start: Projective): Aligned | null {
    let map = start
    let best: Aligned | null = null
    for (const { level, looks } of levels) {
      best = align(now.levels[level]!, looks, map)
      if (best) map = best.map
      else if (level === 0) return null
    }
    return best
  }

  const { looks } = levels.at(-1)!
  const whole = first.levels[0]!
  /** Where its middle lay in the pictures in which it was found, the last ones. */
  const path: Point[] = [middleOf(looks, last)]

  /** Beyond the picture's border nothing is seen of it: it goes on at the pace that it had. */
  function goneOn(): SeenPlane {
    const [from, to] = [path[0]!, path.at(-1)!]
    const steps = Math.max(1, path.length - 1)
    last = projectAfter(projective({ ...UNMOVED, x: (to.x - from.x) / steps, y: (to.y - from.y) / steps }), last)
    return { map: last, sure: OUTSIDE }
  }

  return {
    next(now) {
      const guess = rough(now)
      if (shareIn(whole, looks, guess) < LEFT) return goneOn()
      let best = settled(now, guess)
      // Where most points went astray, the plane is where it was, or goes on as it went.
      for (const start of [projectAfter(move, last), last]) {
        if (best && best.alike > SURE && best.seen > CLEAR) break
        const other = settled(now, start)
        if (other && (!best || other.alike * other.seen > best.alike * best.seen)) best = other
      }
      if (!best || best.alike < ALIKE || best.seen < SEEN) return { map: null, sure: 0 }
      move = projectAfter(best.map, unproject(last))
      last = best.map
      path.push(middleOf(looks, last))
      if (path.length > PACE) path.shift()
      for (const { start, follower } of points) follower.put(now, project(last, start))
      return { map: last, sure: best.alike }
    },
  }
}
