// Layers that are pieces of other layers' mattes.
import { isKeyed, mapKeys } from '../keys'
import { SHAPES, shapeValue, shapeWith } from '../shape'
import { insideOf } from '../source'
import type { Layer, Piece, Shot } from './types'

/** Ids of the layers that a piece is made of, at any of its keys. */
export function shownIn({ shape }: Piece): string[] {
  const { shows } = SHAPES[shape.kind]
  if (!shows) return []
  const value = shapeValue(shape)
  return (isKeyed(value) ? value.keys.map(k => shows(k.value)) : [shows(value)]).filter(id => id !== '')
}

/** The layers that stay and whose mattes are made of some that go. */
export function shownElsewhere({ layers }: Shot, gone: readonly string[]): Layer[] {
  return layers.filter(l => !gone.includes(l.id) && l.matte.some(p => shownIn(p).some(id => gone.includes(id))))
}

/** Lets mattes of layers that have been given other ids be made of those of them that they were made of. Changes the layers. */
export function renameShown(layers: readonly Layer[], ids: ReadonlyMap<string, string>): void {
  for (const piece of layers.flatMap(l => l.matte)) {
    const { shows, shownAs } = SHAPES[piece.shape.kind]
    if (!shows || !shownAs) continue
    piece.shape = shapeWith(
      piece.shape.kind,
      mapKeys(shapeValue(piece.shape), value => shownAs(value, ids.get(shows(value)) ?? shows(value))),
    )
  }
}

/** The ids that a layer and whatever its matte is made of lead to. */
export function shownThrough(shot: Shot, layer: string, found = new Set<string>()): Set<string> {
  for (const piece of shot.layers.find(l => l.id === layer)?.matte ?? []) {
    for (const id of shownIn(piece)) {
      if (found.has(id)) continue
      found.add(id)
      shownThrough(shot, id, found)
    }
  }
  return found
}

/** The first layer of a shot, or of a group in it, whose matte would be made of itself in the end; null: none is. */
export function circleIn(shot: Shot): Layer | null {
  for (const layer of shot.layers) {
    const inside = insideOf(layer.source)
    const inner = inside && circleIn(inside)
    if (inner) return inner
    if (layer.matte.some(p => SHAPES[p.shape.kind].shows) && shownThrough(shot, layer.id).has(layer.id)) return layer
  }
  return null
}

/** The layers that a layer's matte can be made of: all but itself and those whose own lead back to it. */
export const layersFor = (shot: Shot, layer: string): Layer[] =>
  shot.layers.filter(l => l.id !== layer && !shownThrough(shot, l.id).has(layer))

/** The one of them that is nearest to it, rather before it than behind: the first to be thought of. */
export function besideLayer(shot: Shot, layer: string): string {
  const at = shot.layers.findIndex(l => l.id === layer)
  const can = layersFor(shot, layer)
  return (can.findLast(l => shot.layers.indexOf(l) < at) ?? can.find(l => shot.layers.indexOf(l) > at))?.id ?? ''
}
