// Parts of plans for tests.
import { UNMOVED } from '../core/affine'
import type { Find } from '../core/picture'
import type { PlannedLayer, PlannedPiece } from '../core/plan'
import type { Picture } from '../core/render'

/** Finds the pictures of takes by their digests, at any moment. */
export const findIn =
  (pictures: Readonly<Record<string, Picture>>): Find =>
  needed =>
    'digest' in needed ? (pictures[needed.digest] ?? null) : null

/** A layer that shows the first frame of the take of its name, untouched. */
export const plannedLayer = (id: string, changes: Partial<PlannedLayer> = {}): PlannedLayer => ({
  id,
  picture: { kind: 'take', digest: id, seconds: 0 },
  place: UNMOVED,
  opacity: 1,
  blend: 'normal',
  matte: [],
  looks: [],
  ...changes,
})

/** An edge through (x, y) with the same feather on both sides; the angle is in radians, 0 keeps what is right of it. */
export const plannedEdge = (x: number, feather = 0, { y = 0, angle = 0 } = {}): PlannedPiece => ({
  shape: { kind: 'edge', x, y, nx: Math.cos(angle), ny: Math.sin(angle) },
  join: 'add',
  inverted: false,
  sweep: [],
  strength: 1,
  grow: 0,
  inside: feather,
  outside: feather,
})
