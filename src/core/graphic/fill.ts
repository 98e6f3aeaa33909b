// What panels and letters are filled with.
import { type Affine, carry, type Point } from '../affine'

/** A colour at a share of the way, 0..1; `opacity` 0..1. */
export interface Stop {
  at: number
  colour: string
  opacity: number
}

/** Colours that go over into each other, from one point on to another, or from one outwards as far as another; px. */
export interface Gradient {
  kind: 'gradient'
  form: 'straight' | 'round'
  from: Point
  to: Point
  stops: Stop[]
}

/** One sRGB colour, `#rrggbb`, or a gradient in px of the source. */
export type Fill = { kind: 'plain'; colour: string } | Gradient

/** Fills as documents are validated, in the words of `SourceWords`. */
interface FillWords<S> {
  px: S
  share: S
  colour: S
  oneOf(...words: readonly string[]): S
  record(fields: Readonly<Record<string, S>>): S
  list(of: S, least: number, most: number): S
  byKind(fields: Readonly<Record<string, Record<string, S>>>): S
}

/** Colours of a gradient at most. */
export const STOPS = 8

export function fillSchema<S>({ px, share, colour, oneOf, record, list, byKind }: FillWords<S>): S {
  const point = record({ x: px, y: px })
  const stops = list(record({ at: share, colour, opacity: share }), 2, STOPS)
  return byKind({
    gradient: { form: oneOf('straight', 'round'), from: point, to: point, stops },
    plain: { colour },
  })
}

/** A fill as a picture of the whole frame, brought to where a map carries its px. */
export const filled = (fill: Fill, map: Affine): { kind: 'colour'; colour: string } | Gradient =>
  fill.kind === 'plain'
    ? { kind: 'colour', colour: fill.colour }
    : { ...fill, from: carry(map, fill.from), to: carry(map, fill.to) }
