// Outlines that ride on something flat as it turns away: their points go each its own way, by keys of the outline itself.
import { inverse } from '../../affine'
import { isKeyed, keysOf, linearKeys, mixesToKeep } from '../../keys'
import { carryOutlinePoint, mixOutlines, type OutlinePoint, roundOutlinePoint } from '../../outline'
import { affineAt, type Projective, projectAfter, projective } from '../../projective'
import { shapeAt, shapeValue, shapeWith } from '../../shape'
import { pieceMap } from '../place'
import type { Shot } from '../types'
import { editableLayer, findPiece } from './find'
import { outlineOf, swapShape } from './pieces'
import type { Ride } from './ride'

/** px that the eye does not find, and that following is not surer than. */
const WITHIN = 0.3

/** How far the farthest point of an outline, or end of its handles, lies from that of another one. */
const apart = (a: readonly OutlinePoint[], b: readonly OutlinePoint[]): number =>
  a.reduce((most, p, i) => {
    const q = b[i]!
    const [x, y] = [p.x - q.x, p.y - q.y]
    const inward = Math.hypot(x + p.inX - q.inX, y + p.inY - q.inY)
    const outward = Math.hypot(x + p.outX - q.outX, y + p.outY - q.outY)
    return Math.max(most, Math.hypot(x, y), inward, outward)
  }, 0)

/**
 * Lets an outline ride, each point as the flat thing under it is seen; another shape does so as its outline. What is keyed already stays as
 * it is until the following begins. Nothing happens to shapes that have no outline, where nothing moves, nor where the ride leads out of sight.
 */
export function rideOutline(shot: Shot, layer: string, piece: string, ride: Ride<Projective>): void {
  const found = editableLayer(shot, layer)
  const of = findPiece(found, piece)
  const drawn = of && outlineOf(of.shape, shot.size)
  if (!found || !of || !drawn) return
  const { first, begin, maps } = ride
  const before = shapeValue(drawn)
  const from = isKeyed(before) ? Math.max(0, begin - first) : 0
  const start = shapeAt(drawn, begin) as OutlinePoint[]
  const there = projective(pieceMap(found, of, begin))
  const outlines = maps.slice(from).map((map, i) => {
    const back = projective(inverse(pieceMap(found, of, first + from + i)))
    const whole = projectAfter(back, projectAfter(map, there))
    return start.map(p => roundOutlinePoint(carryOutlinePoint(affineAt(whole, p), p)))
  })
  const numbers = outlines.flat().flatMap(p => Object.values(p))
  if (numbers.length === 0 || !numbers.every(Number.isFinite)) return
  const kept = mixesToKeep(outlines, mixOutlines, apart, WITHIN)
  if (kept.length === 1 && !isKeyed(before)) return
  // By its name, too, it is an outline then.
  if (drawn !== of.shape) swapShape(shot, layer, piece, 'outline', shot.size, [])
  of.shape = shapeWith(drawn.kind, {
    keys: [...keysOf(before).filter(k => k.frame < first + from), ...linearKeys(outlines, first + from, kept)],
  })
}
