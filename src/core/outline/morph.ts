// What lies between two keys of an outline.
import { inverse } from '../affine'
import { type Breadth, carryOutlinePoint, mixBreadths, type OutlinePoint } from './point'
import { bestSimilarity, shareOf } from './similarity'

const ends = (points: readonly OutlinePoint[]) =>
  points.flatMap(p => [
    { x: p.x, y: p.y },
    { x: p.x + p.inX, y: p.y + p.inY },
    { x: p.x + p.outX, y: p.y + p.outY },
  ])

/**
 * The outline a share t of the way from one to another of as many points. The similarity that fits best goes its own way, by turn and growth; what
 * it leaves over is mixed evenly: so a limb that swings keeps its length. Of another number of points the first is kept.
 */
export function mixOutlines(a: OutlinePoint[], b: OutlinePoint[], t: number): OutlinePoint[] {
  if (a.length !== b.length || t === 0) return a
  const whole = bestSimilarity(ends(a), ends(b))
  const back = inverse(whole)
  const part = shareOf(whole, t)
  return a.map((p, i) => {
    const q = carryOutlinePoint(back, b[i]!)
    const mid = (of: Exclude<keyof OutlinePoint, Breadth>) => p[of] + (q[of] - p[of]) * t
    return carryOutlinePoint(part, {
      x: mid('x'),
      y: mid('y'),
      inX: mid('inX'),
      inY: mid('inY'),
      outX: mid('outX'),
      outY: mid('outY'),
      ...mixBreadths(p, q, t),
    })
  })
}
