import { mixedRows } from '../render/rows'
import type { PlannedPicture } from '.'
import type { PictureKind } from './kind'

/** Two pictures of one size, the other with a share of 0..1. */
export interface MixPicture {
  kind: 'mix'
  one: PlannedPicture
  other: PlannedPicture
  share: number
}

export const MIX: PictureKind<MixPicture> = {
  needs: ({ one, other }, of) => [...of.picture(one), ...of.picture(other)],
  rows(k, picture, making) {
    const one = making.rows(picture.one)
    const other = making.rows(picture.other)
    // A take's last frame has no neighbour; nor have frames of another size, as some files hold.
    if (!one || !other) return one ?? other
    const alike = one.width === other.width && one.height === other.height
    return alike ? mixedRows(k, one, other, picture.share) : one
  },
}
