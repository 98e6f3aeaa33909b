// A layer whose corners are pinned: its picture made flat first, then seen in perspective.
import { type Affine, type Box, carry, scaling, UNMOVED } from '../affine'
import { sample } from '../keys'
import type { PlannedLook } from '../look'
import type { PlannedPicture } from '../picture'
import { type Quad, quadAt, quadOf } from '../projective'
import type { Layer, Pin, Size } from '../shot'
import { sourceKind } from '../source'
import type { Showing } from '../source/kind'
import { madeAt } from '../source/made-at'

/** A pin where it is planned: corners in px of the output. */
export interface PinnedAt {
  box: Box
  corners: Quad
  /** px of the flat picture for each of the source's. */
  scale: number
}

const sideOf = (quad: Quad, i: number): number => {
  const [p, q] = [quad[i]!, quad[(i + 1) % 4]!]
  return Math.hypot(q.x - p.x, q.y - p.y)
}

const sizeOf = ({ left, top, right, bottom }: Box): Size => ({ width: right - left, height: bottom - top })

/** A layer's pin at a frame of its own; `map` leads from px of its source to those of the output. */
export function pinnedAt(
  layer: Layer,
  pin: Pin,
  frame: number,
  map: Affine,
  showing: Omit<Showing, 'shown'>,
): PinnedAt {
  const corners = quadAt(sample(pin.corners, frame)).map(p => carry(map, p)) as unknown as Quad
  const flat = quadOf(pin.box)
  const shown = Math.max(...corners.map((_, i) => sideOf(corners, i) / sideOf(flat, i)))
  const kind = sourceKind(layer.source)
  const scale = kind.scale(layer.source, { ...showing, shown })
  return { box: pin.box, corners, scale: kind.isPlaced ? madeAt(sizeOf(pin.box), { ...showing, shown }) : scale }
}

/** How a source that is drawn where it lies is drawn flat. */
export const flatMap = ({ box, scale }: PinnedAt): Affine => scaling(scale, -box.left * scale, -box.top * scale)

/** A layer's flat picture in perspective; looks are seen in perspective, too. */
export function inPerspective(layer: Layer, flat: PlannedPicture, looks: PlannedLook[], at: PinnedAt): PlannedPicture {
  const { box, corners, scale } = at
  const { isPlaced } = sourceKind(layer.source)
  if (!isPlaced && looks.length === 0) {
    const [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom].map(v => v * scale) as [
      number,
      number,
      number,
      number,
    ]
    return { kind: 'pinned', picture: flat, box: { left, top, right, bottom }, corners }
  }
  const { width, height } = sizeOf(box)
  const right = width * scale
  const bottom = height * scale
  const size: Size = { width: Math.max(1, Math.ceil(right)), height: Math.max(1, Math.ceil(bottom)) }
  const place = isPlaced ? UNMOVED : scaling(1, -box.left * scale, -box.top * scale)
  const whole = { id: layer.id, picture: flat, place, opacity: 1, blend: 'normal' as const, looks, matte: [] }
  const group: PlannedPicture = { kind: 'group', plan: { size, backdrop: null, layers: [whole] } }
  return { kind: 'pinned', picture: group, box: { left: 0, top: 0, right, bottom }, corners }
}
