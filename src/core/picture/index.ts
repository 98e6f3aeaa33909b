// Every kind of picture that a plan can ask for: those that sources show, and those that are made of others.
import { SOURCES, type SourcePicture } from '../source'
import { COLOUR, type ColourPicture } from './colour'
import { GRADIENT, type GradientPicture } from './gradient'
import type { Need, PictureKind } from './kind'
import { MIX, type MixPicture } from './mix'

export type { Find, Found, FrameNeed, LettersNeed, Making, Need, PictureKind } from './kind'

export type PlannedPicture = SourcePicture | MixPicture | ColourPicture | GradientPicture

const MADE = { mix: MIX, colour: COLOUR, gradient: GRADIENT } as const

const isMade = (kind: string): kind is keyof typeof MADE => kind in MADE

/** How a planned picture is made. */
export function pictureKind({ kind }: PlannedPicture): PictureKind<PlannedPicture> {
  const made = isMade(kind) ? MADE[kind] : SOURCES[kind].picture!
  return made as unknown as PictureKind<PlannedPicture>
}

export const needsOf = (picture: PlannedPicture): Need[] => pictureKind(picture).needs(picture, needsOf)
