import type { Composing } from '../core/shape'
import type { Size } from '../core/shot'

/** A frame in which no piece is made of layers. */
export const flat = (size: Size): Composing => ({
  size,
  rows: () => null,
  compose: () => {
    throw new Error('Nothing is composed here.')
  },
})
