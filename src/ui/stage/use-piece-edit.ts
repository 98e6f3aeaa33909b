import { editIn, store, useSend } from '../../app/store'
import type { Layer, Piece, PieceValue } from '../../core/shot'

/** Changes a piece's value as seen at the playhead, within a gesture. */
export function usePieceEdit(layer: Layer, piece: Piece) {
  const send = useSend()
  return (of: PieceValue, value: unknown, gesture: string) => {
    const { frame, keying } = store.getState().view
    send(editIn(gesture, 'setValue', layer.id, { of, piece: piece.id }, frame, value, keying))
  }
}
