// What a kind of planned picture tells about itself.
import type { Plan } from '../plan/types'
import type { Kernels } from '../render/kernels'
import type { Picture } from '../render/picture'
import type { Rows } from '../render/rows'
import type { Size } from '../shot/types'
import type { PlannedPicture } from '.'

/** The last frame of a take whose time is not after `seconds`. */
export interface Need {
  digest: string
  seconds: number
}

/** Finds the picture of a take at a moment, or null if there is none to be had: then the layer shows nothing. */
export type FindPicture = (needed: Need) => Picture | null

/** What pictures are made with. */
export interface Making {
  /** Of the frame that is made. */
  size: Size
  find: FindPicture
  /** All that a picture needs. */
  needs(picture: PlannedPicture): Need[]
  /** Another picture; null where there is none to be had. */
  rows(picture: PlannedPicture): Rows | null
  /** A plan by rows: row y, width premultiplied linear pixels, at out. */
  compose(plan: Plan): (y: number, out: number) => void
}

export interface PictureKind<P> {
  /** What has to be there before it can be made; `of` tells the needs of pictures in it. */
  needs(picture: P, of: (picture: PlannedPicture) => Need[]): Need[]
  /** Whether it shows the one picture that it needs, as that is. */
  isPlain?: true
  rows(k: Kernels, picture: P, making: Making): Rows | null
}
