// A drawing of lines and areas, made at the size at which it is seen.
import { pictureRows } from '../render/rows'
import type { Size } from '../shot/types'
import type { SourceKind } from './kind'
import { madeAt } from './made-at'

export interface DrawingSource {
  kind: 'drawing'
  digest: string
  /** As it says itself, px. */
  size: Size
}

/** A drawing with so many px for each of its own. */
export interface DrawingPicture {
  kind: 'drawing'
  digest: string
  scale: number
}

export const DRAWING: SourceKind<DrawingSource, DrawingPicture> = {
  name: 'drawing',
  schema: ({ digest, size }) => ({ digest, size }),
  files: ({ digest }) => [digest],
  inside: () => null,
  seconds: () => Number.POSITIVE_INFINITY,
  size: ({ size }) => size,
  hasPicture: () => true,
  hasSound: () => false,
  settle(source, takes) {
    const known = takes.find(t => t.digest === source.digest)?.picture
    if (known) source.size = { ...known.size }
  },
  scale: ({ size }, showing) => madeAt(size, showing),
  plan: ({ digest }, { scale }) => ({ kind: 'drawing', digest, scale }),
  picture: {
    needs: ({ digest, scale }) => [{ digest, seconds: 0, scale }],
    rows(k, picture, { find, needs }) {
      const drawn = find(needs(picture)[0]!)
      return drawn && drawn.kind !== 'letters' ? pictureRows(k, drawn) : null
    },
  },
}
