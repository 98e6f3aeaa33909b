// Every kind of picture that a plan can ask for: those that sources show, and those that are made of others.
import type { PlannedLayer, PlannedPiece } from '../plan/types'
import { SHAPES } from '../shape'
import { SOURCES, type SourcePicture } from '../source'
import { COLOUR, type ColourPicture } from './colour'
import { DERIVED, type DerivedPicture } from './derived'
import { GRADIENT, type GradientPicture } from './gradient'
import type { Need, Needs, PictureKind } from './kind'
import { MATTE, type MattePicture } from './matte'
import { MIX, type MixPicture } from './mix'
import { PINNED, type PinnedPicture } from './pinned'
import { UNMIXED, type UnmixedPicture } from './unmixed'

export type { DerivedNeed, Find, Found, FrameNeed, LettersNeed, Making, Need, PictureKind } from './kind'
export { asFilmed } from './unmixed'

export type PlannedPicture =
  | SourcePicture
  | MixPicture
  | ColourPicture
  | GradientPicture
  | MattePicture
  | DerivedPicture
  | UnmixedPicture
  | PinnedPicture

const MADE = {
  mix: MIX,
  colour: COLOUR,
  gradient: GRADIENT,
  matte: MATTE,
  derived: DERIVED,
  unmixed: UNMIXED,
  pinned: PINNED,
} as const

const isMade = (kind: string): kind is keyof typeof MADE => kind in MADE

/** How a planned picture is made. */
export function pictureKind({ kind }: PlannedPicture): PictureKind<PlannedPicture> {
  const made = isMade(kind) ? MADE[kind] : SOURCES[kind].picture!
  return made as unknown as PictureKind<PlannedPicture>
}

const NEEDS: Needs = { picture: needsOf, layer: layerNeeds }

/** What a picture is made of. */
export function needsOf(picture: PlannedPicture): Need[] {
  return pictureKind(picture).needs(picture, NEEDS)
}

/** What a layer's picture and its matte are made of. */
export function layerNeeds({ picture, matte }: PlannedLayer): Need[] {
  return [...needsOf(picture), ...matteNeeds(matte)]
}

/** What pieces are made of. */
export const matteNeeds = (matte: readonly PlannedPiece[]): Need[] =>
  matte.flatMap(({ shape }) => SHAPES[shape.kind].needs?.(shape, layerNeeds) ?? [])
