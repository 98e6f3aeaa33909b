// What to draw for one frame, with every number settled. Equal plans are equal pictures.
import type { Blend, Join, Size } from '../shot'

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
  /** Two pictures of one size, the other with a share of 0..1. */
  | { kind: 'mix'; one: PlannedPicture; other: PlannedPicture; share: number }
  /** One sRGB colour over the whole picture. */
  | { kind: 'colour'; colour: string }

/** From px of the picture to px of the output: (u, v) -> (a u + c v + x, b u + d v + y). It turns, mirrors and scales evenly. */
export interface Matrix {
  a: number
  b: number
  c: number
  d: number
  x: number
  y: number
}

export const UNMOVED: Matrix = { a: 1, b: 0, c: 0, d: 1, x: 0, y: 0 }

export interface PlannedLayer {
  id: string
  picture: PlannedPicture
  place: Matrix
  opacity: number
  blend: Blend
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
