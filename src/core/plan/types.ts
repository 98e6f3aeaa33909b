// What to draw for one frame, with every number settled. Equal plans are equal pictures.
import type { Join, Size } from '../shot'

export interface Feather {
  grow: number
  inside: number
  outside: number
}

/** In px of the picture that is made. Normals are of unit length and point to what is kept. */
export type PlannedShape =
  | { kind: 'edge'; x: number; y: number; nx: number; ny: number }
  | { kind: 'box' | 'oval'; x: number; y: number; halfWidth: number; halfHeight: number; cos: number; sin: number }

export interface PlannedPiece extends Feather {
  shape: PlannedShape
  join: Join
  inverted: boolean
  strength: number
}

export type PlannedPicture =
  /** The last frame of a take whose time is not after `seconds`. */
  | { kind: 'take'; digest: string; seconds: number }
  | { kind: 'group'; plan: Plan }
  /** One sRGB colour over the whole picture. */
  | { kind: 'colour'; colour: string }

export interface PlannedLayer {
  id: string
  picture: PlannedPicture
  /** Corner and enlargement against the source's own pixels. */
  place: { x: number; y: number; scale: number }
  opacity: number
  /** Empty: the whole picture shows. */
  matte: PlannedPiece[]
}

export interface Plan {
  size: Size
  /** `#rrggbb`, or null for nothing at all. */
  backdrop: string | null
  /** Nearest the lens first. */
  layers: PlannedLayer[]
}
