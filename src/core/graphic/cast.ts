// What letters and panels cast besides themselves: a line round them, and a shadow behind them.

/** A line from their border outwards. `opacity` 0..1. */
export interface Border {
  colour: string
  opacity: number
  /** px. */
  width: number
}

/** `soft` is how many px it fades over, half of them outwards. */
export interface Shadow {
  colour: string
  opacity: number
  x: number
  y: number
  soft: number
}

/** Casts as documents are validated, in the words of `SourceWords`. */
interface CastWords<S> {
  px: S
  extent: S
  share: S
  colour: S
  record(fields: Readonly<Record<string, S>>): S
  maybe(of: S): S
}

export const castSchema = <S>({ px, extent, share, colour, record, maybe }: CastWords<S>) => ({
  border: maybe(record({ colour, opacity: share, width: extent })),
  shadow: maybe(record({ colour, opacity: share, x: px, y: px, soft: extent })),
})
