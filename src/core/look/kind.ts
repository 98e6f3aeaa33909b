// What a kind of look tells about itself. A new one is a file beside this one and a line in `index.ts`.
import type { Kernels } from '../render/kernels'
import type { Rows } from '../render/rows'

/** A number of a look that can carry keys. */
export interface LookValue {
  name: string
  unit?: string
  least: number
  most: number
  /** What it is before anybody changes it. */
  initial: number
  /** How far an arrow key moves it, and decimals that are shown. */
  step?: number
  digits?: number
  /** Whether it is counted in px of the shot. */
  isLength?: true
}

/** `P` is the look as it is planned; it says its own kind. */
export interface LookKind<P> {
  name: string
  /** What it is for, in a line. */
  use: string
  /** By the name that they have in documents. */
  values: Readonly<Record<string, LookValue>>
  /** Its numbers settled, lengths in px of the picture at `scale`; null where it would change nothing. */
  plan(at: Readonly<Record<string, number>>, scale: number): P | null
  /** The picture with the look, in px of the source. What it reserves belongs to the present scope. Throws OutOfMemory. */
  rows(k: Kernels, planned: P, source: Rows): Rows
}
