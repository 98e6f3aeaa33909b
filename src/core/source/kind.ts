// What a kind of source tells about itself. A new one is a file beside this one, a line in `index.ts`, and one in the
// interface's own table of sources.
import type { Affine } from '../affine'
import type { NumberKind } from '../keys'
import type { PictureKind, PlannedPicture } from '../picture'
import type { Plan, PlannedPiece } from '../plan/types'
import type { Shot, Size, Take } from '../shot/types'

/** The words that documents are validated in, so that no source needs the library that does it. */
export interface SourceWords<S> {
  digest: S
  shot: S
  /** Of a picture. */
  size: S
  px: S
  /** px of nought and more. */
  extent: S
  /** 0..1 */
  share: S
  /** `#rrggbb` */
  colour: S
  /** A text of up to so many letters, maybe none. */
  text(most: number): S
  oneOf(...words: readonly string[]): S
  record(fields: Readonly<Record<string, S>>): S
  list(of: S, least: number, most: number): S
  /** Numbers by names of four letters. */
  axes: S
  maybe(of: S): S
  byKind(fields: Readonly<Record<string, Record<string, S>>>): S
}

/** How a layer shows its source. */
export interface Showing {
  /** The frame of the shot, how many times its px those of the output are, and those of the source. */
  size: Size
  scale: number
  shown: number
  /** Whether it may be less than exact where that is quicker. */
  quick: boolean
}

/** What a layer's picture is planned for. */
export interface Moment {
  /** Of the source. */
  seconds: number
  /** Of the shot that the layer lies in, for values that carry keys. */
  frame: number
  /** px that are made for each of the source's. */
  scale: number
  /** From px of the source to those of the output. */
  to: Affine
  planFrame(shot: Shot, frame: number, scale: number): Plan
}

/** A layer's matte: as it is, or grown, shifted and softened, in px of the output. */
export type MatteWith = (grow: number, by: { x: number; y: number }, soft: number) => PlannedPiece[]

/** Colours that lie behind a layer's own picture, each cut by a matte, the nearest first. */
export interface Behind {
  picture: PlannedPicture
  opacity: number
  matte: PlannedPiece[]
}

/** `S` is the source as it lies in the document, `P` the picture that a plan asks for. */
export interface SourceKind<S, P> {
  /** What is said of a layer that has it. */
  name: string
  /** Its fields besides `kind` and `values`. */
  schema<X>(words: SourceWords<X>): Record<string, X>
  /** Numbers that can carry keys, by the name that they have in its `values`; left out: it has none. */
  values?: Readonly<Record<string, NumberKind>>
  /** Whether its picture is made where it lies, in px of the output, instead of in its own. */
  isPlaced?: true
  /** Digests of the files that it cannot be shown without. */
  files(source: S): readonly string[]
  /** The shot that lies in it. */
  inside(source: S): Shot | null
  /** How long it lasts; a source whose file is not known, and one that stands still, has any number. */
  seconds(source: S, takes: readonly Take[]): number
  /** Of its picture, in px of its own; null: like the shot. */
  size(source: S, takes: readonly Take[]): Size | null
  hasPicture(source: S): boolean
  /** As far as is known: without takes, as far as the source itself tells. */
  hasSound(source: S, takes?: readonly Take[]): boolean
  /** Brings what was read from elsewhere into line with the takes. Changes it. */
  settle(source: S, takes: readonly Take[]): void
  /** How many px its picture is made with for each of its own. */
  scale(source: S, showing: Showing): number
  plan(source: S, moment: Moment): P
  /** What is seen of a layer behind its own picture, where it has a matte. */
  behind?(source: S, matte: MatteWith, to: Affine): Behind[]
  /** How its picture is made; left out: what it plans is one of the kinds in `picture`. */
  picture?: PictureKind<P>
}
