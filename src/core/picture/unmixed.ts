// A picture with somebody's own colours where their border is soft: the set that shows through there is taken out of them.
import type { Rows } from '../render/rows'
import type { PlannedPicture } from '.'
import type { PictureKind } from './kind'

export interface UnmixedPicture {
  kind: 'unmixed'
  /** As it was filmed. */
  picture: PlannedPicture
  /** Of the same size, clear where nothing is changed. */
  colours: PlannedPicture
}

/** As it was filmed, where that is all that is wanted. */
export const asFilmed = (picture: PlannedPicture): PlannedPicture =>
  picture.kind === 'unmixed' ? picture.picture : picture

export const UNMIXED: PictureKind<UnmixedPicture> = {
  needs: ({ picture, colours }, of) => [...of.picture(picture), ...of.picture(colours)],
  rows(k, { picture, colours }, making): Rows | null {
    const filmed = making.rows(picture)
    const own = filmed && making.rows(colours)
    // What was made of another size than its take has no place in it.
    if (!own || own.width !== filmed.width || own.height !== filmed.height) return filmed
    const over = k.alloc(filmed.width * 4)
    const codes: Rows['codes'] = (x, n, dst) => {
      filmed.codes(x, n, dst)
      own.codes(x, n, over)
      k.overlayRow(dst, over, n)
    }
    return {
      // Where a px shows alone it is wholly somebody's, so that the planes of the decoder say it.
      ...filmed,
      open(y) {
        filmed.open(y)
        own.open(y)
      },
      codes,
      linear(x, n, dst, spare) {
        codes(x, n, spare)
        k.toLinear(spare, dst, n)
      },
    }
  },
}
