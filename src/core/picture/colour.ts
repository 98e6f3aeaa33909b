import { colourRows } from '../render/rows'
import type { PictureKind } from './kind'

/** One sRGB colour over the whole frame, `#rrggbb`. */
export interface ColourPicture {
  kind: 'colour'
  colour: string
}

export const COLOUR: PictureKind<ColourPicture> = {
  needs: () => [],
  rows: (k, { colour }, { size }) => colourRows(k, colour, size),
}
