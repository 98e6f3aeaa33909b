// A file: what it shows, what it sounds like, or both.
import { halfOf, halvedRows } from '../render/halve'
import { pictureRows } from '../render/rows'
import type { Take, Use } from '../shot/types'
import type { SourceKind } from './kind'

export interface TakeSource {
  kind: 'take'
  digest: string
  use: Use
}

/** The last frame of a take whose time is not after `seconds`. */
export interface TakePicture {
  kind: 'take'
  digest: string
  seconds: number
  /** At half its size, for looking at. */
  half?: true
}

const HALF = 0.5

/** Seconds of a take's picture, or of its sound where it has none or only that is meant. A still lasts for ever. */
export function takeSeconds(take: Take, use: Use = 'both'): number {
  if (use !== 'sound' && take.picture?.kind === 'film') return take.picture.seconds
  if (use !== 'sound' && take.picture) return Number.POSITIVE_INFINITY
  return take.sound?.seconds ?? 0
}

const found = ({ digest }: TakeSource, takes: readonly Take[]): Take | undefined => takes.find(t => t.digest === digest)

export const TAKE: SourceKind<TakeSource, TakePicture> = {
  name: 'take',
  schema: ({ digest, oneOf }) => ({ digest, use: oneOf('both', 'picture', 'sound') }),
  files: ({ digest }) => [digest],
  inside: () => null,
  seconds(source, takes) {
    const take = found(source, takes)
    return take ? takeSeconds(take, source.use) : Number.POSITIVE_INFINITY
  },
  size: (source, takes) => found(source, takes)?.picture?.size ?? null,
  hasPicture: ({ use }) => use !== 'sound',
  hasSound: (source, takes) => source.use !== 'picture' && (!takes || found(source, takes)?.sound !== null),
  settle(source, takes) {
    // Of a take without a picture only the sound can be meant.
    if (found(source, takes)?.picture === null) source.use = 'sound'
  },
  scale: (_, { shown, quick }) => (quick && shown <= HALF ? HALF : 1),
  plan: ({ digest }, { seconds, scale }) => ({ kind: 'take', digest, seconds, ...(scale === HALF && { half: true }) }),
  picture: {
    needs: ({ digest, seconds }) => [{ digest, seconds }],
    shows: ({ half }, size) => (half ? halfOf(size) : size),
    rows(k, { digest, seconds, half }, { find }) {
      const picture = find({ digest, seconds })
      if (!picture || picture.kind === 'letters') return null
      return half ? halvedRows(k, picture) : pictureRows(k, picture)
    },
  },
}
