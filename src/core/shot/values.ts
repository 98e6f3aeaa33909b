// Reaching a layer's values by path, so that one lane and one editor serve them all.
import { isKeyed, sample, shiftKeys, spreadKeys } from '../keys'
import type { AnyValue, Layer, ValuePath } from './types'

interface Slot {
  get(): AnyValue
  set(value: AnyValue): void
}

/** The place in a layer that a path names, or null if its piece is gone or has another shape. */
function slot(layer: Layer, path: ValuePath): Slot | null {
  const at = <O extends object>(owner: O, field: keyof O): Slot => ({
    get: () => owner[field] as AnyValue,
    set: value => {
      owner[field] = value as O[keyof O]
    },
  })
  if (!('piece' in path)) return path.of === 'gain' ? at(layer.sound, 'gain') : at(layer, path.of)
  const piece = layer.matte.find(p => p.id === path.piece)
  if (!piece) return null
  switch (path.of) {
    case 'inside':
    case 'outside':
      return at(piece.feather, path.of)
    case 'line':
      return piece.shape.kind === 'edge' ? at(piece.shape, 'line') : null
    case 'frame':
      return piece.shape.kind === 'edge' ? null : at(piece.shape, 'frame')
    default:
      return at(piece, path.of)
  }
}

export const getValue = (layer: Layer, path: ValuePath): AnyValue | null => slot(layer, path)?.get() ?? null

/** Replaces the value at a path in a draft. A path that leads nowhere changes nothing. */
export function changeValue(layer: Layer, path: ValuePath, change: (value: AnyValue) => AnyValue): void {
  const place = slot(layer, path)
  place?.set(change(place.get()))
}

/** Every path of a layer, in the order of its card. */
export function valuePaths(layer: Layer): ValuePath[] {
  const pieces = layer.matte.flatMap((piece): ValuePath[] => [
    { of: piece.shape.kind === 'edge' ? 'line' : 'frame', piece: piece.id },
    { of: 'inside', piece: piece.id },
    { of: 'outside', piece: piece.id },
    { of: 'grow', piece: piece.id },
    { of: 'strength', piece: piece.id },
  ])
  return [...pieces, { of: 'place' }, { of: 'opacity' }, { of: 'gain' }]
}

/** The paths that carry keys. */
export const keyedPaths = (layer: Layer): ValuePath[] =>
  valuePaths(layer).filter(path => isKeyed(getValue(layer, path) as AnyValue))

/** Whose keys are meant: the layer's own, which go with it; those of pieces that stay with its picture; or all. */
type Whose = 'own' | 'picture' | 'all'

/** Changes the values of a layer that have keys. Pieces pinned to the shot have none of the layer's own. */
export function changeKeyed(layer: Layer, whose: Whose, change: (value: AnyValue) => AnyValue): void {
  for (const path of keyedPaths(layer)) {
    const pinned = 'piece' in path ? layer.matte.find(p => p.id === path.piece)?.pinnedTo : null
    if (whose === 'own' && pinned === 'shot') continue
    if (whose === 'picture' && pinned !== 'layer') continue
    changeValue(layer, path, change)
  }
}

export const shiftLayerKeys = (layer: Layer, by: number, whose: Whose = 'own'): void =>
  changeKeyed(layer, whose, value => shiftKeys(value, by))

/** Spreads keys in time about a frame. */
export const spreadLayerKeys = (layer: Layer, about: number, factor: number, whose: Whose = 'own'): void =>
  changeKeyed(layer, whose, value => spreadKeys(value, about, factor))

/** Lets everything of a layer stand as it is at a frame, but for pieces pinned to the shot. */
export const stillLayer = (layer: Layer, frame: number): void =>
  changeKeyed(layer, 'own', value => sample(value, frame))
