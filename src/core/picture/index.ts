// Every kind of picture that a plan can ask for: those that sources show, and those that are made of others.
import { SOURCES, type SourcePicture } from '../source'
import { COLOUR, type ColourPicture } from './colour'
import type { Need, PictureKind } from './kind'
import { MIX, type MixPicture } from './mix'

export type { FindPicture, Making, Need } from './kind'

export type PlannedPicture = SourcePicture | MixPicture | ColourPicture

/** How a planned picture is made. */
export function pictureKind({ kind }: PlannedPicture): PictureKind<PlannedPicture> {
  const made = kind === 'mix' ? MIX : kind === 'colour' ? COLOUR : SOURCES[kind].picture
  return made as unknown as PictureKind<PlannedPicture>
}

export const needsOf = (picture: PlannedPicture): Need[] => pictureKind(picture).needs(picture, needsOf)
