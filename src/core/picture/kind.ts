// What a kind of planned picture tells about itself.
import type { Letters, Wording } from '../graphic'
import type { Plan, PlannedLayer } from '../plan/types'
import type { Recipe } from '../recipe'
import type { Kernels } from '../render/kernels'
import type { Picture } from '../render/picture'
import type { Rows } from '../render/rows'
import type { Shared } from '../render/tiles'
import type { Size } from '../shot/types'
import type { PlannedPicture } from '.'

/** The last frame of a take whose time is not after `seconds`; of a drawing, with how many px for each of its own. */
export interface FrameNeed {
  digest: string
  seconds: number
  scale?: number
}

/** A text as its fonts set it. */
export interface LettersNeed {
  letters: Wording
}

/** What a recipe makes of the moment of the take that it names first: a picture of that take's size. */
export interface DerivedNeed {
  recipe: Recipe
  /** Which of the pictures that the recipe makes. */
  part: string
  seconds: number
}

export type Need = FrameNeed | LettersNeed | DerivedNeed
export type Found = Picture | Letters

/** Finds what a picture is made of, or null where that is not to be had: then the layer shows nothing. */
export type Find = (needed: Need) => Found | null

/** Tells what pictures, and layers with their mattes, need. */
export interface Needs {
  picture(picture: PlannedPicture): Need[]
  layer(layer: PlannedLayer): Need[]
}

/** What pictures are made with. */
export interface Making {
  /** Of the frame that is made. */
  size: Size
  find: Find
  /** What several pictures of the frame are made from, made once. */
  shared: Shared
  /** All that a picture needs. */
  needs(picture: PlannedPicture): Need[]
  /** Another picture; null where there is none to be had. */
  rows(picture: PlannedPicture): Rows | null
  /** A plan by rows: row y at out, as many premultiplied linear pixels, or straight codes, as it is wide. */
  compose(plan: Plan, as?: 'linear' | 'codes'): (y: number, out: number) => void
}

export interface PictureKind<P> {
  /** What has to be there before it can be made; `of` tells the needs of what lies in it. */
  needs(picture: P, of: Needs): Need[]
  /** The size at which it shows the one picture that it needs, which is of a size; left out: it shows more than that. */
  shows?(picture: P, size: Size): Size
  rows(k: Kernels, picture: P, making: Making): Rows | null
}
