// A picture whose corners are pinned to four points of the output.
import type { Box } from '../affine'
import { digestOf } from '../plan/digest'
import type { Quad } from '../projective'
import { pinnedRows } from '../render/pin'
import type { PlannedPicture } from '.'
import type { PictureKind } from './kind'

export interface PinnedPicture {
  kind: 'pinned'
  picture: PlannedPicture
  /** What of it is pinned, in px of it. */
  box: Box
  /** In px of the output. */
  corners: Quad
}

export const PINNED: PictureKind<PinnedPicture> = {
  needs: ({ picture }, of) => of.picture(picture),
  rows(k, { picture, box, corners }, { rows, size, shared }) {
    const flat = rows(picture)
    return flat && pinnedRows(k, flat, box, corners, size, () => digestOf(picture), shared)
  },
}
