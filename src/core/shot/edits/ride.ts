// Pieces and layers that ride on motion followed in a take: as keys that can be seen and changed.
import { type Affine, after, carry, degrees, inverse, scaleOf } from '../../affine'
import { isKeyed, type Key, keysOf, linearKeys, placesToKeep, sample, type Value } from '../../keys'
import { clone } from '../clone'
import { motionMap, pieceMap, placeMap } from '../place'
import type { Layer, Motion, Place, Shot } from '../types'
import { carriedPiece } from '../values'
import { editableLayer, findPiece } from './find'

/** How px of the shot moved from the frame at which the following began to each of some frames that come one after the other. */
export interface Ride<M = Affine> {
  /** Frame of the shot of the first map. */
  first: number
  /** Where it began; maps before it are left out where something rides already. */
  begin: number
  maps: readonly M[]
}

/** px, degrees and shares that the eye does not find. */
const WITHIN = [0.05, 0.05, 0.01, 0.0002] as const

const turnOf = ({ a, b }: Affine): number => degrees(Math.atan2(b, a))

/** Turns that go on from each other without jumping by a whole circle. */
function unwound(angles: readonly number[]): number[] {
  const out: number[] = []
  for (const angle of angles) {
    const last = out.at(-1) ?? angle
    out.push(angle - 360 * Math.round((angle - last) / 360))
  }
  return out
}

type Placed = { x: number; y: number; angle: number; scale: number }

/** Keys of a value that rides; what is keyed already stays as it is until the following begins. */
function ridden<T extends Placed>(before: Value<T>, all: readonly T[], { first, begin }: Ride): Value<T> {
  const from = isKeyed(before) ? Math.max(0, begin - first) : 0
  const angles = unwound(all.map(v => v.angle))
  const values = all.map((v, i) => ({ ...v, angle: angles[i]! })).slice(from)
  const curves = (['x', 'y', 'angle', 'scale'] as const).map(name => values.map(v => v[name]))
  const kept = placesToKeep(curves, WITHIN)
  if (kept.length === 0 || (kept.length === 1 && !isKeyed(before))) return before
  const keys: Key<T>[] = linearKeys(values, first + from, kept)
  return { keys: [...keysOf(before).filter(k => k.frame < first + from), ...keys] }
}

/** Maps of the shot as the layer sees them in its own px, at the frames of a ride. */
function inLayer(layer: Layer, { first, begin, maps }: Ride): Affine[] {
  const start = placeMap(layer, sample(layer.place, begin))
  return maps.map((map, i) => after(inverse(placeMap(layer, sample(layer.place, first + i))), after(map, start)))
}

/** Lets a piece ride. */
export function ridePiece(shot: Shot, layer: string, piece: string, ride: Ride): void {
  const found = editableLayer(shot, layer)
  const of = findPiece(found, piece)
  if (!found || !of || ride.maps.length === 0) return
  const maps = of.pinnedTo === 'shot' ? ride.maps : inLayer(found, ride)
  const start = sample(of.motion, ride.begin)
  const motions = maps.map((map): Motion => {
    const whole = after(map, motionMap(of.pivot, start))
    const { x, y } = carry(whole, of.pivot)
    return {
      ...start,
      x: x - of.pivot.x,
      y: y - of.pivot.y,
      angle: start.angle + turnOf(map),
      scale: start.scale * scaleOf(map),
    }
  })
  of.motion = ridden(of.motion, motions, ride)
}

/**
 * Lets a piece go with another one of its layer: it takes on that one's movement, keys and all, and looks at a frame as it
 * did; its own movement until now is given up. Nothing happens where the other one has no keys of movement.
 */
export function ridePieceWith(shot: Shot, layer: string, piece: string, other: string, frame: number): void {
  const found = editableLayer(shot, layer)
  const [of, leads] = [findPiece(found, piece), findPiece(found, other)]
  if (!found || !of || !leads || of === leads || !isKeyed(leads.motion)) return
  const carried = carriedPiece(of, after(inverse(pieceMap(found, leads, frame)), pieceMap(found, of, frame)))
  const { motion, pivot, pinnedTo } = clone(leads)
  Object.assign(of, carried, { motion, pivot, pinnedTo })
}

/** Lets a layer ride as a whole. */
export function rideLayer(shot: Shot, layer: string, ride: Ride): void {
  const found = editableLayer(shot, layer)
  if (!found || ride.maps.length === 0) return
  const start = sample(found.place, ride.begin)
  const places = ride.maps.map(
    (map): Place => ({
      ...start,
      ...carry(map, start),
      angle: start.angle + turnOf(map),
      scale: start.scale * scaleOf(map),
    }),
  )
  found.place = ridden(found.place, places, ride)
}
