// Every kind of source that a layer can have, a line each.
import { DRAWING, type DrawingPicture, type DrawingSource } from './drawing'
import { GROUP, type GroupPicture, type GroupSource } from './group'
import type { SourceKind } from './kind'
import { LETTERING, type LetteringPicture, type LetteringSource } from './lettering'
import { PANEL, type PanelSource } from './panel'
import { TAKE, type TakePicture, type TakeSource } from './take'

export type { SourceWords } from './kind'
export { type LetteringSource, layoutAt, letteringReach, wordingOf } from './lettering'
export type { PanelSource } from './panel'
export { takeSeconds } from './take'

export type Source = TakeSource | GroupSource | PanelSource | LetteringSource | DrawingSource
export type SourcePicture = TakePicture | GroupPicture | LetteringPicture | DrawingPicture

const TABLE = {
  take: TAKE,
  group: GROUP,
  panel: PANEL,
  lettering: LETTERING,
  drawing: DRAWING,
} as const satisfies Record<Source['kind'], unknown>

/** The kinds by name, for whoever does not care which one it is. */
export const SOURCES = TABLE as unknown as Readonly<Record<Source['kind'], SourceKind<Source, SourcePicture>>>

export const SOURCE_KINDS = Object.keys(TABLE) as Source['kind'][]

export const sourceKind = ({ kind }: Source): SourceKind<Source, SourcePicture> => SOURCES[kind]

/** The shot that lies in a source. */
export const insideOf = (source: Source) => sourceKind(source).inside(source)

/** A source that is a file. */
export const asTake = (source: Source): TakeSource | null => (source.kind === 'take' ? source : null)
