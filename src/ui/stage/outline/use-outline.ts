import { editIn, store, useSend } from '../../../app/store'
import { carryBy, inverse, type Point } from '../../../core/affine'
import { carryOutlinePoint, type OutlinePoint, roundOutlinePoint } from '../../../core/outline'
import { SHAPES, shapeAt } from '../../../core/shape'
import { pieceMap } from '../piece-space'
import type { HandlesProps } from '../shape-views'

/** An outline as it lies on the screen, and the way back from there. */
export function useOutline({
  layer,
  piece,
  frame,
  camera,
}: Pick<HandlesProps, 'layer' | 'piece' | 'frame' | 'camera'>) {
  const send = useSend()
  const map = pieceMap(layer, piece, frame, camera)
  const back = inverse(map)
  const points = shapeAt(piece.shape, frame) as OutlinePoint[]
  const isOpen = SHAPES[piece.shape.kind].isOpen === true
  const give = (name: 'reshapeOutline' | 'drawOutline', to: readonly OutlinePoint[], gesture: string) => {
    const rounded = to.map(p => roundOutlinePoint(carryOutlinePoint(back, p)))
    const { frame: now, keying } = store.getState().view
    send(editIn(gesture, name, layer.id, piece.id, now, rounded, keying))
  }
  return {
    isOpen,
    /** In px of the screen, as all that the hand does is told. */
    points: points.map(p => carryOutlinePoint(map, p)),
    /** Points of another key, on the screen. */
    onScreen: (others: readonly OutlinePoint[]) => others.map(p => carryOutlinePoint(map, p)),
    /** Gives it the points that the hand has made of it. */
    reshape: (to: readonly OutlinePoint[], gesture: string) => give('reshapeOutline', to, gesture),
    /** The same while it is being drawn: it may be another number of points. */
    draw: (to: readonly OutlinePoint[], gesture: string) => give('drawOutline', to, gesture),
    /** A movement of the screen in px of the outline. */
    by: (movement: Point): Point => carryBy(back, movement),
    add(index: number, t: number, gesture: string) {
      send(editIn(gesture, 'addOutlinePoint', layer.id, piece.id, index, t))
    },
  }
}

export type OutlineOnScreen = ReturnType<typeof useOutline>
