// Something flat, followed from frame to frame as it turns away and comes nearer.
import { UNMOVED } from '../affine'
import { type Projective, project, projectAfter, projective, unproject } from '../projective'
import { type Aligned, align, looksOf } from './align'
import { planeMoveOf } from './plane'
import { followPoint } from './point'
import type { Pyramid } from './pyramid'
import { spotsIn } from './spots'

/** Points of it that are followed, and px about them that have to be of it. */
const POINTS = 60
const ROOM = 10
/** Points that are enough to tell where it went; the plane itself says it where there are fewer. */
const ENOUGH = 8
/** How alike it has to look, and how much of it has to be seen; and from where on nothing else is tried. */
const ALIKE = 0.6
const SEEN = 0.25
const SURE = 0.9

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
 * to. Throws OutOfMemory.
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

  /** Where its points say that it went; where too few are seen, it goes on as it went. */
  function rough(now: Pyramid): Projective {
    const found = points
      .map(({ start, follower }) => ({ start, at: follower.next(now) }))
      .filter(({ at }) => !at.isLost)
    const guess =
      found.length >= ENOUGH
        ? planeMoveOf(
            found.map(f => f.start),
            found.map(f => f.at),
          )
        : null
    return guess ?? projectAfter(move, last)
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

  return {
    next(now) {
      let best = settled(now, rough(now))
      // Where most points went astray, the plane is where it was, or goes on as it went.
      for (const start of [projectAfter(move, last), last]) {
        if (best && best.alike * best.seen > SURE) break
        const other = settled(now, start)
        if (other && (!best || other.alike * other.seen > best.alike * best.seen)) best = other
      }
      if (!best || best.alike < ALIKE || best.seen < SEEN) return { map: null, sure: 0 }
      move = projectAfter(best.map, unproject(last))
      last = best.map
      for (const { start, follower } of points) follower.put(now, project(last, start))
      return { map: last, sure: best.alike }
    },
  }
}
