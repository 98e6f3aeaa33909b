// A shot in the shot.
import { digestOf } from '../plan/digest'
import type { Plan } from '../plan/types'
import { stillRows } from '../render/still'
import type { Shot } from '../shot/types'
import { frameToSeconds, secondsToFrame } from '../time'
import type { SourceKind } from './kind'
import { madeAt } from './made-at'

export interface GroupSource {
  kind: 'group'
  shot: Shot
}

export interface GroupPicture {
  kind: 'group'
  plan: Plan
}

export const GROUP: SourceKind<GroupSource, GroupPicture> = {
  name: 'group',
  schema: ({ shot }) => ({ shot }),
  files: () => [],
  inside: ({ shot }) => shot,
  seconds: ({ shot }) => frameToSeconds(shot.length, shot.rate),
  size: ({ shot }) => shot.size,
  hasPicture: () => true,
  hasSound: () => true,
  settle() {},
  scale: ({ shot }, showing) => madeAt(shot.size, showing),
  plan({ shot }, { seconds, scale, planFrame }) {
    const frame = secondsToFrame(seconds, shot.rate)
    return { kind: 'group', plan: { ...planFrame(shot, frame, scale), backdrop: null } }
  },
  picture: {
    needs: ({ plan }, of) => plan.layers.flatMap(of.layer),
    rows(k, picture, { find, needs, compose }) {
      const { plan } = picture
      const isWhole = needs(picture).every(needed => find(needed) !== null)
      return stillRows(k, plan.size, isWhole ? digestOf(plan) : null, () => compose(plan))
    },
  },
}
