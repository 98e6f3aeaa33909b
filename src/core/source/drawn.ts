import type { SourceKind } from './kind'

/** What sources that are drawn where they lie have in common: they stand still, are as large as the shot, and are silent. */
export const DRAWN = {
  isPlaced: true,
  inside: () => null,
  seconds: () => Number.POSITIVE_INFINITY,
  size: () => null,
  hasPicture: () => true,
  hasSound: () => false,
  settle() {},
  scale: (_, { shown }) => shown,
} as const satisfies Partial<SourceKind<unknown, unknown>>
