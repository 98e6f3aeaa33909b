// Shots inside shots: a path is the ids of the group layers from the outermost inwards.
import { isKeyed } from '../keys'
import { SHAPES, shapeValue } from '../shape'
import { insideOf, sourceKind, takeSeconds } from '../source'
import { makeLayer, newId } from './make'
import { framesOf } from './timing'
import type { Layer, Piece, Project, Shot, Take } from './types'

/** The shot that a path leads to, or null if it leads nowhere. */
export function innerShot(shot: Shot, path: readonly string[]): Shot | null {
  let here: Shot = shot
  for (const id of path) {
    const layer = here.layers.find(l => l.id === id)
    const inside = layer && insideOf(layer.source)
    if (!inside) return null
    here = inside
  }
  return here
}

/** The shot with only some of its layers on; with none named, as it is. */
export function aloneShot(shot: Shot, alone: readonly string[]): Shot {
  const heard = shot.layers.filter(l => alone.includes(l.id))
  if (heard.length === 0) return shot
  return { ...shot, layers: shot.layers.map(l => (alone.includes(l.id) ? l : { ...l, on: false })) }
}

/** What a shape is at each of its keys. */
function valuesOf({ shape }: Piece) {
  const value = shapeValue(shape)
  return isKeyed(value) ? value.keys.map(k => k.value) : [value]
}

/** Digests of the files that a piece cannot be made without, at any of its keys. */
export function filesOf(piece: Piece): string[] {
  const { files } = SHAPES[piece.shape.kind]
  return files ? valuesOf(piece).flatMap(v => [...files(v)]) : []
}

/** Whether pictures have to be made for a piece, at any of its keys. */
export const isMade = (piece: Piece): boolean =>
  valuesOf(piece).some(v => SHAPES[piece.shape.kind].isMade?.(v) ?? false)

/** Whether anything in a shot is made of takes by recipe, groups included. */
export const hasDerived = ({ layers }: Shot): boolean =>
  layers.some(({ source, matte }) => {
    const inside = insideOf(source)
    return matte.some(isMade) || (inside !== null && hasDerived(inside))
  })

/** Every digest that a shot's layers use, groups included. */
export function usedTakes(shot: Shot): Set<string> {
  const used = new Set<string>()
  for (const { source, matte } of shot.layers) {
    for (const digest of sourceKind(source).files(source)) used.add(digest)
    for (const piece of matte) for (const digest of filesOf(piece)) used.add(digest)
    const inside = insideOf(source)
    for (const digest of inside ? usedTakes(inside) : []) used.add(digest)
  }
  return used
}

/** Every layer of a project that uses a take, with the groups it lies in. */
export function takeUses(
  shot: Shot,
  digest: string,
  inside: readonly string[] = [],
): { layer: Layer; inside: readonly string[] }[] {
  return shot.layers.flatMap(layer => {
    const shot = insideOf(layer.source)
    const isOf = sourceKind(layer.source).files(layer.source).includes(digest)
    const own = isOf || layer.matte.some(p => filesOf(p).includes(digest)) ? [{ layer, inside }] : []
    return shot ? [...own, ...takeUses(shot, digest, [...inside, layer.name])] : own
  })
}

/** Takes every layer of a take away, and every piece that it is the plate of, in groups too. */
export function dropTakeLayers(shot: Shot, digest: string): void {
  shot.layers = shot.layers.filter(({ source }) => !sourceKind(source).files(source).includes(digest))
  for (const layer of shot.layers) {
    layer.matte = layer.matte.filter(p => !filesOf(p).includes(digest))
    const inside = insideOf(layer.source)
    if (inside) dropTakeLayers(inside, digest)
  }
}

/** A take alone, as a shot of its own size and rate. */
export function takeShot(take: Take, { shot }: Project): Shot {
  const size = take.picture?.size ?? shot.size
  const rate = take.picture?.kind === 'film' ? take.picture.rate : shot.rate
  return {
    id: newId(),
    name: take.name,
    size,
    rate,
    length: Number.isFinite(takeSeconds(take)) ? framesOf(take, rate) : 1,
    backdrop: '#000000',
    layers: [makeLayer(take, size, rate)],
    marks: [],
  }
}
