// Layers as wholes: what they are called, where they lie in depth, whether they count.
import { clone } from '../clone'
import { LIMITS } from '../limits'
import { newId } from '../make'
import { freeName } from '../names'
import { renameShown } from '../shown'
import type { Blend, Layer, Shot, Tag } from '../types'
import { shiftLayerKeys } from '../values'
import { editableLayer, editableLayers, findLayer } from './find'

export function renameLayer(shot: Shot, layer: string, name: string): void {
  const found = editableLayer(shot, layer)
  if (found) found.name = name.slice(0, LIMITS.name)
}

export function showLayers(shot: Shot, layers: readonly string[], on: boolean): void {
  for (const layer of editableLayers(shot, layers)) layer.on = on
}

export function lockLayers(shot: Shot, layers: readonly string[], locked: boolean): void {
  for (const id of layers) {
    const layer = findLayer(shot, id)
    if (layer) layer.locked = locked
  }
}

export function tagLayers(shot: Shot, layers: readonly string[], tag: Tag): void {
  for (const layer of editableLayers(shot, layers)) layer.tag = tag
}

export function blendLayer(shot: Shot, layer: string, blend: Blend): void {
  const found = editableLayer(shot, layer)
  if (found) found.blend = blend
}

/** Adds layers nearest the lens, the first of them foremost. */
export function addLayers(shot: Shot, layers: readonly Layer[]): void {
  const room = Math.max(0, LIMITS.layers - shot.layers.length)
  const added: Layer[] = []
  for (const layer of layers.slice(0, room))
    added.push({ ...layer, name: freeName(layer.name, [...shot.layers, ...added]) })
  shot.layers.unshift(...added)
}

/** Puts a layer at a place in the depth order, 0 nearest the lens. */
export function reorderLayer(shot: Shot, layer: string, to: number): void {
  const from = shot.layers.findIndex(l => l.id === layer)
  if (from < 0) return
  const [moved] = shot.layers.splice(from, 1)
  shot.layers.splice(Math.max(0, Math.min(to, shot.layers.length)), 0, moved!)
}

/** Puts layers nearest or farthest of all, keeping their order. */
export function putDepth(shot: Shot, layers: readonly string[], where: 'nearest' | 'farthest'): void {
  const wanted = new Set(layers)
  const [put, rest] = [shot.layers.filter(l => wanted.has(l.id)), shot.layers.filter(l => !wanted.has(l.id))]
  shot.layers = where === 'nearest' ? [...put, ...rest] : [...rest, ...put]
}

/** Brings layers one step nearer (-1) or farther (1), keeping their order; those at the end of the stack stay there. */
export function stepDepth(shot: Shot, layers: readonly string[], by: 1 | -1): void {
  const wanted = new Set(layers)
  const order = shot.layers.map((_, i) => i)
  if (by > 0) order.reverse()
  for (const i of order) {
    const neighbour = shot.layers[i + by]
    const layer = shot.layers[i]!
    if (!neighbour || !wanted.has(layer.id) || wanted.has(neighbour.id)) continue
    shot.layers[i] = neighbour
    shot.layers[i + by] = layer
  }
}

/** Removes layers. Closing the gap brings all that begins after them forward by the time that was taken. */
export function removeLayers(shot: Shot, layers: readonly string[], closeGap = false): void {
  const gone = editableLayers(shot, layers)
  if (gone.length === 0) return
  shot.layers = shot.layers.filter(l => !gone.some(g => g.id === l.id))
  if (!closeGap) return
  const from = Math.min(...gone.map(l => l.span.from))
  const to = Math.max(...gone.map(l => l.span.to))
  for (const layer of shot.layers) {
    if (layer.locked || layer.span.from < to) continue
    shiftLayerKeys(layer, from - to)
    layer.span = { from: layer.span.from + from - to, to: layer.span.to + from - to }
  }
}

/** The same layer once more, with names of its own inside the document. */
export function copyOf(layer: Layer): Layer {
  const copy = clone(layer)
  return { ...copy, id: newId(), locked: false, matte: copy.matte.map(p => ({ ...p, id: newId() })) }
}

/** Copies of layers; what was the matte of another among them is so among the copies. */
function copiesOf(layers: readonly Layer[]): Layer[] {
  const copies = layers.map(copyOf)
  renameShown(copies, new Map(layers.map((l, i) => [l.id, copies[i]!.id])))
  return copies
}

/** Puts a copy of each layer just nearer than it. */
export function duplicateLayers(shot: Shot, layers: readonly Layer[]): void {
  for (const [i, copy] of copiesOf(layers).entries()) {
    const at = shot.layers.findIndex(l => l.id === layers[i]!.id)
    if (at >= 0 && shot.layers.length < LIMITS.layers)
      shot.layers.splice(at, 0, { ...copy, name: freeName(copy.name, shot.layers) })
  }
}

/** Adds copies of layers nearest the lens, the earliest beginning at a frame, the rest as far from it as they were. */
export function pasteLayers(shot: Shot, layers: readonly Layer[], at: number): void {
  const by = at - Math.min(...layers.map(l => l.span.from))
  const copies = copiesOf(layers)
  for (const copy of copies) {
    shiftLayerKeys(copy, by)
    copy.span = { from: copy.span.from + by, to: copy.span.to + by }
  }
  addLayers(shot, copies)
}
