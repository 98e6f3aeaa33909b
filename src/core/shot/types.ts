// The document: one project is one JSON document, plain data. docs/project-file.md describes it for other programs.
import type { Numeric, Value } from '../keys/value'
import type { Rate, Span } from '../time'

export const FORMAT = 'jolly-ghost-project'
export const VERSION = 1

export interface Size {
  width: number
  height: number
}

/** A file brought in, known by its content. */
export interface Take {
  /** SHA-256 of the file, hexadecimal. */
  digest: string
  name: string
  /** Media type, e.g. `video/mp4`. */
  type: string
  bytes: number
  /** As shown: after stored rotation and pixel aspect. */
  size: Size
  rate: Rate
  seconds: number
  sound: { channels: number; sampleRate: number; seconds: number } | null
}

/** A line through (x, y) in px, turned by angle degrees from upright; at 0 it keeps what is right of it. */
export type Line = { x: number; y: number; angle: number }
/** A rectangle round (x, y), in px, turned clockwise by angle degrees. */
export type Frame = { x: number; y: number; width: number; height: number; angle: number }
/** Where a layer's top left corner lies in the shot, in px, and how much it is enlarged. */
export type Place = { x: number; y: number; scale: number }

export type Shape =
  | { kind: 'edge'; line: Value<Line> }
  | { kind: 'box'; frame: Value<Frame> }
  | { kind: 'oval'; frame: Value<Frame> }

export type Join = 'add' | 'subtract' | 'intersect'

/** One part of a layer's matte. Lengths in px of what it is pinned to. */
export interface Piece {
  id: string
  name: string
  shape: Shape
  join: Join
  inverted: boolean
  pinnedTo: 'layer' | 'shot'
  on: boolean
  /** Moves the outline outwards (or inwards if negative) along itself. */
  grow: Value<number>
  feather: { inside: Value<number>; outside: Value<number> }
  /** 0..1 */
  strength: Value<number>
}

export type Source = { kind: 'take'; digest: string } | { kind: 'group'; shot: Shot }

/** from: the moment of the source, in seconds, that shows at the span's first frame. */
export interface Timing {
  kind: 'play'
  from: number
}

export interface Layer {
  id: string
  name: string
  span: Span
  source: Source
  timing: Timing
  place: Value<Place>
  /** 0..1 */
  opacity: Value<number>
  matte: Piece[]
  /** Whether the matte is used; taken away, its pieces are kept. */
  matteOn: boolean
  sound: { on: boolean; gain: Value<number> }
  on: boolean
}

export interface Shot {
  id: string
  name: string
  size: Size
  rate: Rate
  /** Frames. */
  length: number
  /** sRGB colour behind everything, `#rrggbb`. */
  backdrop: string
  /** Nearest the lens first. */
  layers: Layer[]
}

export interface Project {
  format: typeof FORMAT
  version: typeof VERSION
  id: string
  takes: Take[]
  shot: Shot
}

/** What a keyed value in a layer is called. `piece` values carry the piece's id. */
export type ValuePath =
  | { of: 'opacity' | 'place' | 'gain' }
  | { of: 'line' | 'frame' | 'grow' | 'inside' | 'outside' | 'strength'; piece: string }

export type AnyValue = Value<Numeric>
