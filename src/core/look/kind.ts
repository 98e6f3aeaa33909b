// What a kind of look tells about itself. A new one is a file beside this one and a line in `index.ts`.
import type { NumberKind } from '../keys'
import type { Kernels } from '../render/kernels'
import type { Rows } from '../render/rows'

/** `P` is the look as it is planned; it says its own kind. */
export interface LookKind<P> {
  name: string
  /** What it is for, in a line. */
  use: string
  /** By the name that they have in documents. */
  values: Readonly<Record<string, NumberKind>>
  /** Its numbers settled at a frame, lengths in px of the picture at `scale`; null where it would change nothing. */
  plan(at: Readonly<Record<string, number>>, scale: number, frame: number): P | null
  /** The picture with the look, in px of the source. What it reserves belongs to the present scope. Throws OutOfMemory. */
  rows(k: Kernels, planned: P, source: Rows): Rows
}
