// What a kind of shape tells about itself. A new one is a file beside this one, a line in `index.ts`, and one in the
// interface's own table of shapes.
import type { Affine } from '../affine'
import type { Mixer } from '../keys'
import type { OutlinePoint } from '../outline'
import type { PlannedPicture } from '../picture'
import type { Making, Need } from '../picture/kind'
import type { PlannedLayer } from '../plan/types'
import type { Kernels } from '../render/kernels'

interface Size {
  width: number
  height: number
}

/** The words that documents are validated in, so that no shape needs the library that does it. */
export interface SchemaWords<S> {
  px: S
  /** px of nought and more. */
  extent: S
  /** px of a feather. */
  feather: S
  degrees: S
  /** Of a layer; none: '' */
  id: S
  /** Of a file; none: '' */
  digest: S
  /** From nothing to so many hundredths. */
  percent(most: number): S
  oneOf(...words: readonly string[]): S
  flag: S
  /** What may be left out. */
  maybe(of: S): S
  /** As many as an outline may have points. */
  list(of: S): S
  record(fields: Readonly<Record<string, S>>): S
}

export interface Feather {
  grow: number
  inside: number
  outside: number
}

/** The coverage of a frame until the scope in which it was opened is left. */
export interface Coverage {
  /** The rows [top, bottom) outside of which nothing is covered; they may reach beyond the frame. */
  top: number
  bottom: number
  /** Row y, as many f32 in 0..1 as the frame has columns, at out. */
  row(y: number, out: number): void
}

/** The size of the frame, and how what it is made of is made. */
export type Composing = Pick<Making, 'size' | 'rows' | 'compose'>

export const NOTHING: Coverage = { top: 0, bottom: 0, row() {} }

/** What a new piece may be made of. */
export interface Beside {
  /** The id of the layer next to its own; none: '' */
  layer: string
  /** What may show the set empty, with the seconds in which it does. */
  plate: { plate: string; from: number; to: number } | null
}

/** The layer that a piece cuts, where it is planned. */
export interface Own {
  /** Of its file; null where it shows none. */
  digest: string | null
  /** Seconds of its source that show. */
  moment: number
  /** From px of its source to those of the output. */
  map: Affine
}

/** What a shape is planned with. */
export interface Planning {
  /** What a layer of the shot shows there. */
  layersOf(id: string): PlannedLayer[]
  own: Own
}

/**
 * `V` is what of the shape can carry keys; it lies in the document under `field`. `P` is the shape as it is planned, in px of
 * the picture that is made.
 */
export interface ShapeKind<V, P> {
  /** What pieces of this shape are called, and the letter that a keyboard calls them by. */
  name: string
  letter: string
  field: string
  /** What its keys are called in the lanes. */
  word: string
  /** Whether a new one is drawn by hand, and is nothing before. */
  isDrawn?: true
  /** px of feather that a new piece has on both sides; left out: none. */
  soft?: number
  /** Whether what is drawn does not close. */
  isOpen?: true
  /** In the middle of a picture of some size. */
  make(size: Size, beside: Beside): V
  schema<S>(words: SchemaWords<S>): S
  /** What lies between two keys, where that is more than the numbers of it mixed. */
  mix?: Mixer<V>
  /** What it makes of the value of another kind that lies under the same name. */
  taken?(value: V): V
  /** The outline that it is, in a picture of some size; left out: it is one already. */
  outlined?(value: V, size: Size): OutlinePoint[]
  /** The layer of the shot that it is made of; left out: it is made of nothing else. */
  shows?(value: V): string
  /** The same made of another layer. */
  shownAs?(value: V, layer: string): V
  /** Digests of the files that it cannot be made without; left out: none. */
  files?(value: V): readonly string[]
  /** What shows the set empty by what somebody chose for it; left out: nothing does. */
  plate?(value: V): Beside['plate']
  /** Whether pictures have to be made for it by recipe; left out: never. */
  isMade?(value: V): boolean
  /** What it becomes where the px that it is told in come to lie elsewhere. */
  carried(value: V, map: Affine): V
  /** `to` carries px that the piece is told in to px of the output. */
  plan(value: V, to: Affine, planning: Planning): P
  /** What it darkens of all that lies behind its layer, and by how much of that (1: as it is told); left out: nothing. */
  shade?(value: V, own: Own): { shape: P; strength: number } | null
  /** What the colours of its layer become where it alone is what shows of that, clear elsewhere; left out: they stay. */
  colours?(value: V, own: Own): PlannedPicture | null
  /** What has to be there before it can be opened; left out: nothing. `of` tells the needs of a layer. */
  needs?(planned: P, of: (layer: PlannedLayer) => Need[]): Need[]
  /** How far from its middle it reaches once it has grown, in px of the output. */
  extent(planned: P, grow: number): number
  /** What it may cost for each pixel, in pixels that are composited; left out: next to nothing. */
  cost?(value: V): number
  /** How far the farthest place of its outline moves from one to another, px of the output; left out: it does not blur by itself. */
  travel?(from: P, to: P): number
  /**
   * Opens its own coverage of a frame, before inversion and strength. What it reserves belongs to the present scope, so it
   * may hold a distance transform or a stored matte. Throws OutOfMemory.
   */
  open(k: Kernels, planned: P, feather: Feather, making: Composing): Coverage
}
