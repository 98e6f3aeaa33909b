import { useEffect, useRef } from 'react'
import { cameraMoved, projectOf, shotOf, store, useSend } from '../../app/store'
import { carry, type Point } from '../../core/affine'
import { middleOf, type OutlinePoint } from '../../core/outline'
import { SHAPES, shapeAt } from '../../core/shape'
import { edits, type Layer, type Piece, pieceMap } from '../../core/shot'

/** Where the middle of a piece's outline lies at a frame, in px of the shot; null where it has none. */
function middleAt(layer: Layer, piece: Piece, frame: number): Point | null {
  const shot = shotOf(store.getState())
  const takes = projectOf(store.getState())?.takes
  if (!shot || !takes) return null
  const { isDrawn, outlined } = SHAPES[piece.shape.kind]
  const value = shapeAt(piece.shape, frame)
  const size = piece.pinnedTo === 'shot' ? shot.size : edits.layerSize(layer, shot, takes)
  const points = isDrawn ? (value as OutlinePoint[]) : outlined?.(value, size)
  if (!points?.length) return null
  const all = points.map((_, i) => i)
  return carry(pieceMap(layer, piece, frame), middleOf(points, all))
}

/** Moves the picture in its well as it comes to another frame, so that the chosen piece stays where it is under the hand. */
export function useGoingAlong(canvas: HTMLCanvasElement, layer: Layer | null, piece: Piece | undefined): void {
  const send = useSend()
  const now = useRef({ layer, piece })
  now.current = { layer, piece }
  useEffect(() => {
    let before = Number(canvas.dataset.frame)
    // Not before the other frame is to be seen: the picture that is still there must not jump.
    const observer = new MutationObserver(() => {
      const { goesAlong, camera, playing } = store.getState().view
      const shown = Number(canvas.dataset.frame)
      if (playing) return
      const { layer, piece } = now.current
      const from = goesAlong && camera && layer && piece && middleAt(layer, piece, before)
      const to = from && middleAt(layer, piece, shown)
      before = shown
      if (!from || !to) return
      const { zoom, x, y } = camera
      send(cameraMoved({ zoom, x: x - (to.x - from.x) * zoom, y: y - (to.y - from.y) * zoom }))
    })
    observer.observe(canvas, { attributeFilter: ['data-frame'] })
    return () => observer.disconnect()
  }, [canvas, send])
}
