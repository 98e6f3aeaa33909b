// Finding what an edit is about. A locked layer is not found by those that would change it.
import type { Layer, Piece, Shot } from '../types'

export const findLayer = (shot: Shot, layer: string): Layer | undefined => shot.layers.find(l => l.id === layer)

export function editableLayer(shot: Shot, layer: string): Layer | undefined {
  const found = findLayer(shot, layer)
  return found?.locked ? undefined : found
}

export const findPiece = (layer: Layer | undefined, piece: string): Piece | undefined =>
  layer?.matte.find(p => p.id === piece)

/** The layers of these ids that may change, in depth order. */
export function editableLayers(shot: Shot, layers: readonly string[]): Layer[] {
  const wanted = new Set(layers)
  return shot.layers.filter(l => wanted.has(l.id) && !l.locked)
}
