// A point of a picture, followed from frame to frame.
import type { Point } from '../affine'
import type { Grey, Pyramid } from './pyramid'

export interface Followed extends Point {
  /** 0..1: how alike the place looks to what was pointed at. */
  sure: number
  /** Whether it was found at all; where it was not, the place is the last one. */
  isLost: boolean
}

const ROUNDS = 20
const STILL = 0.003
/** The same in the smaller pictures, and of the picture before, by which what is pointed at is only found. */
const ROUGH = 0.05
const ROUGH_ROUNDS = 12
/** How alike it has to look to be it; and to be brought back onto what was pointed at first, so that nothing adds up. */
const ALIKE = 0.6
const SAME = 0.75
/** Slopes that are too slight to hold on to: the smaller eigenvalue of their square, codes² a px. */
const SLIGHT = 2
/** What a patch of 21×21 px takes in memory: values and both slopes in rows of 24, and nine numbers. */
const PATCH_BYTES = (3 * 21 * 24 + 9) * 4

export interface PointFollower {
  /** Where the point is in the next picture, px from its left top corner. */
  next(now: Pyramid): Followed
  /** Says where it lies in the picture that was looked at last, where others know better. */
  put(now: Pyramid, at: Point): void
}

/**
 * Follows the point at (x, y), px from the left top corner, of a first picture through those that come next, forward or backward (pyramidal Lucas–Kanade,
 * Bouguet 2000): from picture to picture, then brought back onto what was pointed at first. All pictures lie in the same memory, as what is known of the point does.
 * null where there is too little to hold on to. Throws OutOfMemory.
 */
export function followPoint({ k, levels }: Pyramid, { x, y }: Point): PointFollower | null {
  // Of what lies on whole px nothing is lost by looking between them; the middle of the first px is half a px from the corner.
  const start = { x: Math.round(x - 0.5), y: Math.round(y - 0.5) }
  const off = { x: x - start.x, y: y - start.y }
  const model = k.alloc(PATCH_BYTES)
  const take = ({ data, width, height }: Grey, px: number, py: number, patch: number): boolean =>
    Boolean(k.takePatch({ plane: data.byteOffset, width, height, x: px, y: py, slight: SLIGHT, patch }))
  if (!take(levels[0]!, start.x, start.y, model)) {
    k.free(model)
    return null
  }
  const patches = levels.map(() => ({ patch: k.alloc(PATCH_BYTES), isThere: false }))
  const room = k.alloc(16)
  const place = k.doubles(room, 2)
  const remember = (all: readonly Grey[], px: number, py: number) =>
    all.forEach((level, i) => {
      patches[i]!.isThere = take(level, px / 2 ** i, py / 2 ** i, patches[i]!.patch)
    })
  const settle = ({ data, width, height }: Grey, patch: number, rounds = ROUNDS, small = STILL) =>
    k.settlePatch({ plane: data.byteOffset, width, height, patch, rounds, small, place: room })
  const likeness = ({ data, width, height }: Grey) => k.likePatch(data.byteOffset, width, height, model, room)
  remember(levels, start.x, start.y)
  let at: Point = start
  let speed: Point = { x: 0, y: 0 }
  return {
    next({ levels: now }) {
      const picture = now[0]!
      const last = now.length - 1
      place[0] = (at.x + speed.x) / 2 ** last
      place[1] = (at.y + speed.y) / 2 ** last
      for (let level = last; level >= 0; level--) {
        if (patches[level]!.isThere) settle(now[level]!, patches[level]!.patch, ROUGH_ROUNDS, ROUGH)
        if (level === 0) break
        place[0] *= 2
        place[1] *= 2
      }
      if (likeness(picture) >= SAME) settle(picture, model)
      else if (patches[0]!.isThere) settle(picture, patches[0]!.patch)
      const sure = Math.max(0, likeness(picture))
      const guess = { x: place[0]!, y: place[1]! }
      const isIn = guess.x >= 0 && guess.y >= 0 && guess.x < picture.width && guess.y < picture.height
      const isLost = !isIn || !(sure >= ALIKE)
      if (!isLost) {
        speed = { x: guess.x - at.x, y: guess.y - at.y }
        at = guess
        remember(now, at.x, at.y)
      }
      return { x: at.x + off.x, y: at.y + off.y, sure, isLost }
    },
    put({ levels: now }, { x, y }) {
      const here = { x: x - off.x, y: y - off.y }
      speed = { x: 0, y: 0 }
      at = here
      place.set([at.x, at.y])
      // What hides it is not to be followed instead of it.
      if (likeness(now[0]!) >= ALIKE) remember(now, at.x, at.y)
      else for (const patch of patches) patch.isThere = false
    },
  }
}
