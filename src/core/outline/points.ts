// Adding and taking away points without a change of shape.
import { curveFrom, split } from './curve'
import { mixBreadths, type OutlinePoint } from './point'
import { softAlong } from './width'

/**
 * A new point on the curve that leaves point i, t of the way along it, 0..1. The outline stays as it is (de Casteljau): done
 * with the same numbers to every key of an outline, none of them changes.
 */
export function insertPoint(points: readonly OutlinePoint[], i: number, t: number): OutlinePoint[] {
  const next = (i + 1) % points.length
  const [before, after] = split(curveFrom(points, i), t)
  const made: OutlinePoint = {
    ...before.d,
    ...mixBreadths(points[i]!, points[next]!, t),
    ...(points[i]!.soft || points[next]!.soft ? { soft: softAlong(points, i + t) } : {}),
    inX: before.c.x - before.d.x,
    inY: before.c.y - before.d.y,
    outX: after.b.x - after.a.x,
    outY: after.b.y - after.a.y,
  }
  const result = points.map((p, j) => {
    const shorter = { ...p }
    if (j === i) {
      shorter.outX = p.outX * t
      shorter.outY = p.outY * t
    }
    if (j === next) {
      shorter.inX = p.inX * (1 - t)
      shorter.inY = p.inY * (1 - t)
    }
    return shorter
  })
  result.splice(i + 1, 0, made)
  return result
}

/** How far along the curve that would be without it a point lies: as the handles on both sides of it say, else the ways to its neighbours. */
function parted(before: OutlinePoint, { x, y, inX, inY, outX, outY }: OutlinePoint, after: OutlinePoint): number {
  let [one, other] = [Math.hypot(inX, inY), Math.hypot(outX, outY)]
  if (one + other < 1e-6) [one, other] = [Math.hypot(x - before.x, y - before.y), Math.hypot(after.x - x, after.y - y)]
  const t = one / (one + other)
  return t > 0.02 && t < 0.98 ? t : 0.5
}

/**
 * Takes point i away; the handles of its neighbours are drawn out by as much as adding it there would have shortened them. So what
 * was added comes off without a trace.
 */
export function removePoint(points: readonly OutlinePoint[], i: number): OutlinePoint[] {
  const count = points.length
  const before = (i + count - 1) % count
  const after = (i + 1) % count
  const t = count > 2 ? parted(points[before]!, points[i]!, points[after]!) : 0.5
  const left = points.map((p, j) => {
    const longer = { ...p }
    if (j === before) {
      longer.outX = p.outX / t
      longer.outY = p.outY / t
    }
    if (j === after) {
      longer.inX = p.inX / (1 - t)
      longer.inY = p.inY / (1 - t)
    }
    return longer
  })
  left.splice(i, 1)
  return left
}
