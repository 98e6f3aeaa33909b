// A shot in the shot.
import { digestOf } from '../plan/digest'
import type { Plan } from '../plan/types'
import { keptRows } from '../render/kept'
import { floatReads, floatRows } from '../render/rows'
import { LIMITS } from '../shot/limits'
import type { Shot, Size } from '../shot/types'
import { frameToSeconds, secondsToFrame } from '../time'
import type { Showing, SourceKind } from './kind'

export interface GroupSource {
  kind: 'group'
  shot: Shot
}

export interface GroupPicture {
  kind: 'group'
  plan: Plan
}

/** How many times as large as the output a group is made at most, in px: what is enlarged further is seen in part only. */
const FINEST = 4

/** The scale that a group is made at, so that its edges stay as fine as any other. */
function madeAt(own: Size, { size, scale, shown }: Showing): number {
  const most = Math.sqrt((FINEST * size.width * size.height) / (own.width * own.height)) * scale
  return Math.min(shown, Math.max(most, scale), LIMITS.side / Math.max(own.width, own.height))
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
  plan({ shot }, seconds, scale, planFrame) {
    const frame = secondsToFrame(seconds, shot.rate)
    return { kind: 'group', plan: { ...planFrame(shot, frame, scale), backdrop: null } }
  },
  picture: {
    needs: ({ plan }, of) => plan.layers.flatMap(l => of(l.picture)),
    /** Kept rows if it stands still, else each composited as it is asked for. */
    rows(k, { plan }, { find, needs, compose }) {
      const { width, height } = plan.size
      const stride = width * 16
      const rows = () => compose(plan)
      const isWhole = needs({ kind: 'group', plan }).every(needed => find(needed) !== null)
      const still = isWhole ? keptRows(k, { digest: digestOf(plan), stride, height, rows }) : null
      if (still) return floatRows(k, plan.size, still.ptr, stride, false)
      const row = k.alloc(stride)
      const make = rows()
      let opened = -1
      return {
        width,
        height,
        opaque: false,
        open(y) {
          if (opened === y) return
          opened = y
          make(y, row)
        },
        ...floatReads(k, () => row),
      }
    },
  },
}
