// What to draw for one frame, with every number settled. Equal plans are equal pictures.
import type { Affine } from '../affine'
import type { PlannedLook } from '../look'
import type { PlannedPicture } from '../picture'
import type { Feather, PlannedShape } from '../shape'
import type { Blend, Join, Size } from '../shot'

/** Lengths in px of the picture that is made. */
export interface PlannedPiece extends Feather {
  shape: PlannedShape
  /** Where it is while the shutter is open, a power of two of moments; none: it stands still. */
  sweep: PlannedShape[]
  join: Join
  inverted: boolean
  strength: number
}

export interface PlannedLayer {
  id: string
  picture: PlannedPicture
  /** From px of the picture to px of the output. */
  place: Affine
  opacity: number
  blend: Blend
  /** Empty: the whole picture shows. */
  matte: PlannedPiece[]
  /** What is done to the picture before it is placed. */
  looks: PlannedLook[]
}

export interface Plan {
  size: Size
  /** `#rrggbb`, or null for nothing at all. */
  backdrop: string | null
  /** Nearest the lens first. */
  layers: PlannedLayer[]
}
