// How well an outline holds through time: what adding a point moves, what lies between two keys of a limb, and where keys are proposed.
import { curveFrom, insertPoint, mixOutlines, type OutlinePoint, pointOn } from '../src/core/outline'
import { evenKeys, limb, meanError, proposedKeys, reach } from '../src/testing/moving-outlines'
import { atMost, type Row } from './measure'

/** px by which a point that is added to an outline moves it at most. */
function moved(points: OutlinePoint[]): number {
  let most = 0
  for (const i of points.keys()) {
    for (const t of [0.1, 0.37, 0.5, 0.9]) {
      const now = insertPoint(points, i, t)
      for (let n = 0; n <= 20; n++) {
        const was = pointOn(curveFrom(points, i), n / 20)
        const at =
          n / 20 < t ? pointOn(curveFrom(now, i), n / 20 / t) : pointOn(curveFrom(now, i + 1), (n / 20 - t) / (1 - t))
        most = Math.max(most, Math.hypot(at.x - was.x, at.y - was.y))
      }
    }
  }
  return most
}

/** By how much the length of a limb that swings by 90° differs from what it is, at most, 0..1. */
function stretched(): number {
  const whole = reach(limb(0))
  const shares = Array.from({ length: 99 }, (_, i) => (i + 1) / 100)
  return Math.max(...shares.map(t => Math.abs(reach(mixOutlines(limb(0), limb(90), t)) / whole - 1)))
}

export function outlineKeyRows(points: OutlinePoint[]): Row[] {
  const [proposed, even] = [meanError(proposedKeys()), meanError(evenKeys())]
  return [
    atMost(
      'adding a point: how far any key’s outline moves',
      0.01,
      moved(points),
      'px',
      'anywhere on an outline of 60 points',
    ),
    atMost(
      'a limb of 200 px that swings by 90° between two keys: its length in between',
      1,
      stretched() * 100,
      '% off',
      'at 99 places',
    ),
    atMost(
      'ten keys where they are proposed / ten even ones, mean error over 100 frames',
      0.6,
      proposed / even,
      '×',
      `${proposed.toFixed(2)} px / ${even.toFixed(2)} px`,
    ),
  ]
}
