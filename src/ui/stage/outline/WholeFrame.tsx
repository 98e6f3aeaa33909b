import { editIn, store, useSend } from '../../../app/store'
import { carry, carryBy, degrees, inverse, type Point } from '../../../core/affine'
import { sample } from '../../../core/keys'
import { middleOf, type OutlinePoint } from '../../../core/outline'
import { shapeAt } from '../../../core/shape'
import { LIMITS, type Motion } from '../../../core/shot'
import { within } from '../../../core/shot/limits'
import { pieceMap, round, unmovedMap } from '../piece-space'
import type { HandlesProps } from '../shape-views'
import { TurnFrame } from './TurnFrame'

/** Round an outline of which no point is chosen: moves it as a whole, by keys apart from those of its points. */
export function WholeFrame({ layer, piece, frame, camera, onActive }: HandlesProps) {
  const send = useSend()
  const own = shapeAt(piece.shape, frame) as OutlinePoint[]
  if (own.length < 2) return null
  const map = pieceMap(layer, piece, frame, camera)
  const outer = unmovedMap(layer, piece, frame, camera)
  const motion = sample(piece.motion, frame)
  const isUnmoved = piece.pivot.x === 0 && piece.pivot.y === 0
  const all = own.map((_, i) => i)
  const pivot = isUnmoved ? middleOf(own, all) : piece.pivot
  const middle = carry(map, pivot)
  const change = (next: Motion, gesture: string) => {
    const { frame: now, keying } = store.getState().view
    send(editIn(gesture, 'movePiece', layer.id, piece.id, now, next, keying, pivot))
  }
  const by = (movement: Point) => carryBy(inverse(outer), movement)
  // Mirrored layers turn the other way.
  const hand = outer.a * outer.d - outer.b * outer.c < 0 ? -1 : 1
  return (
    <TurnFrame<Motion>
      points={own.map(p => carry(map, p))}
      middle={middle}
      what="the outline"
      start={() => motion}
      turn={(from, _, { angle, scale }, gesture) =>
        change(
          {
            ...from,
            angle: round(from.angle + hand * degrees(angle)),
            scale: within(from.scale * scale, LIMITS.scale),
          },
          gesture,
        )
      }
      shift={(from, movement, gesture) => {
        const { x, y } = by(movement)
        change({ ...from, x: round(from.x + x), y: round(from.y + y) }, gesture)
      }}
      onActive={onActive}
    />
  )
}
