// The document: one project is one JSON document, plain data. docs/project-file.md describes it for other programs.

import type { Box, Point } from '../affine'
import type { Value } from '../keys/value'
import type { Look } from '../look'
import type { Corners } from '../projective'
import type { Shape } from '../shape'
import type { Source } from '../source'
import type { Rate, Span } from '../time'

export type { Point } from '../affine'
export type { Frame, Line, Shape } from '../shape'
export type { Source } from '../source'

export const FORMAT = 'jolly-ghost-project'
export const VERSION = 5

export interface Size {
  width: number
  height: number
}

/** A moving picture, as shown: after stored rotation and pixel aspect. */
export interface Film {
  kind: 'film'
  size: Size
  rate: Rate
  seconds: number
  /** Whether its frames stand for different lengths of time; `rate` is then their mean. */
  varies: boolean
}

export interface Still {
  kind: 'still'
  size: Size
}

/** Lines and areas, made into a picture at any size. */
export interface Drawing {
  kind: 'drawing'
  /** As it says itself. */
  size: Size
}

/** How far a variable font can be varied in one respect, by its four-letter tag. */
export interface FontAxis {
  tag: string
  least: number
  initial: number
  most: number
}

/** What letters can be set in. */
export interface FontFace {
  family: string
  axes: FontAxis[]
}

/** A stretch of a take, in seconds of it. */
export interface Stretch {
  from: number
  to: number
}

/** A part of a take that is worth a layer of its own. */
export interface Act extends Stretch {
  id: string
  name: string
}

/** A file brought in, known by its content. It has a picture, sound, or both; or it is a font. */
export interface Take {
  /** SHA-256 of the file, hexadecimal. */
  digest: string
  name: string
  /** Media type, e.g. `video/mp4`. */
  type: string
  bytes: number
  picture: Film | Still | Drawing | null
  sound: { channels: number; sampleRate: number; seconds: number } | null
  /** Only of fonts. */
  font?: FontFace
  /** In and out, where they are marked. */
  marked: Stretch | null
  acts: Act[]
}

/** Where a layer's anchor lies in the shot, in px, how much it is enlarged and turned (degrees, clockwise). */
export type Place = { x: number; y: number; scale: number; angle: number }
/** How far something is moved, in px, and how much it is enlarged and turned (degrees, clockwise) about a point of its own. */
export type Motion = { x: number; y: number; scale: number; angle: number }
/** How long the shutter is open for what moves, and how much later it opens, in degrees of a frame; 0: it does not blur. */
export interface Blur {
  shutter: number
  phase: number
}
export type Join = 'add' | 'subtract' | 'intersect'

/** One part of a layer's matte. Lengths in px of what it is pinned to. */
export interface Piece {
  id: string
  name: string
  shape: Shape
  join: Join
  inverted: boolean
  pinnedTo: 'layer' | 'shot'
  /** Where it is off it costs nothing. */
  on: Value<boolean>
  /** Moves it as a whole, apart from its shape; `pivot` is what it turns and grows about, in px before that. */
  motion: Value<Motion>
  pivot: Point
  blur: Blur
  /** Moves the outline outwards (or inwards if negative) along itself. */
  grow: Value<number>
  feather: { inside: Value<number>; outside: Value<number> }
  /** 0..1 */
  strength: Value<number>
}

/** What a layer takes of a take. */
export type Use = 'both' | 'picture' | 'sound'

export type LoopStyle = 'cut' | 'swing' | 'dissolve'

/** Which moment of the source shows when. Moments are seconds of the source. */
export type Timing =
  | {
      kind: 'play'
      /** What shows at the span's first frame. */
      from: number
      /** 1 as recorded; negative backwards. */
      speed: number
      /** Seconds of one source frame, where neighbouring frames are mixed; null: one shows at a time. */
      mixed: number | null
    }
  | { kind: 'freeze'; at: number }
  | {
      kind: 'loop'
      /** `to` is not shown any more. */
      from: number
      to: number
      style: LoopStyle
      /** Frames over which the end of a pass dissolves into the next one's beginning. */
      over: number
      speed: number
      /** Frames of the shot that are over at the span's first frame. */
      begun: number
    }

export type Blend = 'normal' | 'add' | 'screen' | 'multiply' | 'lighten' | 'darken' | 'difference'

/** Frames from nothing to all at the beginning of a span, and back at its end. */
export interface Fade {
  in: number
  out: number
}

/** A layer repeated: each copy later by frames, shifted by px, weaker by a factor, and farther from the lens. */
export interface Copies {
  /** Besides the layer itself. */
  count: number
  later: number
  x: number
  y: number
  /** Opacity of a copy against the one before it, 0..1. */
  keep: number
}

export const TAGS = ['none', 'amber', 'brick', 'rose', 'violet', 'slate', 'fern'] as const
export type Tag = (typeof TAGS)[number]

/** What of a layer's picture lies in a box, brought to four points; both in px of the source. */
export interface Pin {
  box: Box
  corners: Value<Corners>
}

export interface Layer {
  id: string
  name: string
  span: Span
  source: Source
  timing: Timing
  place: Value<Place>
  /** The point that `place` puts somewhere and that the picture turns about, in px of the source. */
  anchor: Point
  flip: { across: boolean; down: boolean }
  /** Its picture seen in perspective, before it is placed and cut; left out: as it lies. */
  pin?: Pin
  /** 0..1 */
  opacity: Value<number>
  fade: Fade
  blend: Blend
  copies: Copies | null
  matte: Piece[]
  /** Whether the matte is used; taken away, its pieces are kept. */
  matteOn: boolean
  /** What is done to its picture, in order, before it is placed and cut. */
  looks: Look[]
  sound: { on: boolean; gain: Value<number>; fade: Fade }
  on: boolean
  /** Nothing about it changes until it is unlocked. */
  locked: boolean
  tag: Tag
}

/** A frame of the shot with a word about it. */
export interface Mark {
  frame: number
  text: string
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
  /** In order, one a frame. */
  marks: Mark[]
}

export interface Project {
  format: typeof FORMAT
  version: typeof VERSION
  id: string
  takes: Take[]
  shot: Shot
}

export type AnyValue = Value<unknown>
