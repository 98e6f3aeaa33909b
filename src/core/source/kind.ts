// What a kind of source tells about itself. A new one is a file beside this one, a line in `index.ts`, and one in the
// interface's own table of sources.
import type { PictureKind } from '../picture/kind'
import type { Plan } from '../plan/types'
import type { Shot, Size, Take } from '../shot/types'

/** The words that documents are validated in, so that no source needs the library that does it. */
export interface SourceWords<S> {
  digest: S
  shot: S
  oneOf(...words: readonly string[]): S
}

/** How a layer shows its source. */
export interface Showing {
  /** The frame of the shot, how many times its px those of the output are, and those of the source. */
  size: Size
  scale: number
  shown: number
}

/** `S` is the source as it lies in the document, `P` the picture that a plan asks for. */
export interface SourceKind<S, P> {
  /** What is said of a layer that has it. */
  name: string
  /** Its fields besides `kind`. */
  schema<X>(words: SourceWords<X>): Record<string, X>
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
  /** Its picture at a moment and a scale. */
  plan(source: S, seconds: number, scale: number, planFrame: (shot: Shot, frame: number, scale: number) => Plan): P
  picture: PictureKind<P>
}
