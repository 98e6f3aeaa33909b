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

/** Moves a layer's keys with it; pieces pinned to the shot keep theirs. */
export function shiftLayerKeys(layer: Layer, by: number): void {
  for (const path of keyedPaths(layer)) {
    const piece = 'piece' in path ? layer.matte.find(p => p.id === path.piece) : null
    if (piece?.pinnedTo !== 'shot') changeValue(layer, path, value => shiftKeys(value, by))
  }
}

/** Moves the keys of the pieces that stay with the layer's own picture. */
export function shiftMatteKeys(layer: Layer, by: number): void {
  for (const path of keyedPaths(layer)) {
    const piece = 'piece' in path ? layer.matte.find(p => p.id === path.piece) : null
    if (piece?.pinnedTo === 'layer') changeValue(layer, path, value => shiftKeys(value, by))
  }
}

/** Spreads a layer's keys in time about a frame; pieces pinned to the shot keep theirs. */
export function spreadLayerKeys(layer: Layer, about: number, factor: number): void {
  for (const path of keyedPaths(layer)) {
    const piece = 'piece' in path ? layer.matte.find(p => p.id === path.piece) : null
    if (piece?.pinnedTo !== 'shot') changeValue(layer, path, value => spreadKeys(value, about, factor))
  }
}

/** Lets everything of a layer stand as it is at a frame, but for pieces pinned to the shot. */
export function stillLayer(layer: Layer, frame: number): void {
  for (const path of keyedPaths(layer)) {
    const piece = 'piece' in path ? layer.matte.find(p => p.id === path.piece) : null
    if (piece?.pinnedTo !== 'shot') changeValue(layer, path, value => sample(value, frame))
  }
}

/** Moves every key of a layer, pinned wherever. */
export function shiftEveryKey(layer: Layer, by: number): void {
  for (const path of keyedPaths(layer)) changeValue(layer, path, value => shiftKeys(value, by))
}

/** Spreads every key of a layer in time from the shot's first frame on. */
export function spreadEveryKey(layer: Layer, factor: number): void {
  for (const path of keyedPaths(layer)) changeValue(layer, path, value => spreadKeys(value, 0, factor))
}
