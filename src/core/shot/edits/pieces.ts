// A layer's matte.

import { isKeyed, type Key, keysOf, mapKeys, setAt, setKey } from '../../keys'
import { type Beside, SHAPES, shapeValue, shapeWith } from '../../shape'
import { sourceKind } from '../../source'
import { besideOf } from '../beside'
import { clone } from '../clone'
import { LIMITS } from '../limits'
import { makePiece, makeShape } from '../make'
import { freeName, unnumbered } from '../names'
import type { Layer, Motion, Piece, Point, Shape, Shot, Size, Take } from '../types'
import { editableLayer, findLayer, findPiece } from './find'

/** The size that a layer's own pixels are counted in. */
export const layerSize = ({ source }: Layer, shot: Shot, takes: readonly Take[]): Size =>
  sourceKind(source).size(source, takes) ?? shot.size

export function addPiece(shot: Shot, layer: string, piece: Piece): void {
  const found = editableLayer(shot, layer)
  if (!found || found.matte.length >= LIMITS.pieces) return
  found.matte.push({ ...piece, name: freeName(piece.name, found.matte) })
  found.matteOn = true
}

export function removePiece(shot: Shot, layer: string, piece: string): void {
  const found = editableLayer(shot, layer)
  if (found) found.matte = found.matte.filter(p => p.id !== piece)
}

/** Gives a layer a piece that is another layer, which is hidden, just nearer than it, and nothing but a matte. */
export function addMatteLayer(shot: Shot, layer: string, matte: Layer, piece: Piece): void {
  const at = shot.layers.findIndex(l => l.id === layer)
  const found = editableLayer(shot, layer)
  if (!found || found.matte.length >= LIMITS.pieces || shot.layers.length >= LIMITS.layers) return
  addPiece(shot, layer, piece)
  shot.layers.splice(at, 0, { ...matte, on: false })
}

/** Brings a piece to another place in the order in which pieces are joined. */
export function reorderPiece(shot: Shot, layer: string, piece: string, to: number): void {
  const found = editableLayer(shot, layer)
  const moved = findPiece(found, piece)
  if (!found || !moved || !Number.isInteger(to)) return
  const rest = found.matte.filter(p => p !== moved)
  rest.splice(Math.max(0, Math.min(rest.length, to)), 0, moved)
  found.matte = rest
}

/** Copies a piece onto a layer, its own or another, as the last one there. `id` is that of the copy. */
export function copyPiece(shot: Shot, layer: string, piece: string, onto: string, id: string): void {
  const found = findPiece(findLayer(shot, layer), piece)
  const target = editableLayer(shot, onto)
  if (!found || !target || target.matte.length >= LIMITS.pieces || target.matte.some(p => p.id === id)) return
  target.matte.push({ ...clone(found), id, name: freeName(found.name, target.matte) })
  target.matteOn = true
}

export type PieceSwitches = Partial<Pick<Piece, 'name' | 'join' | 'inverted' | 'pinnedTo' | 'blur'>>

export function changePiece(shot: Shot, layer: string, piece: string, changes: PieceSwitches): void {
  const found = findPiece(editableLayer(shot, layer), piece)
  if (found) Object.assign(found, changes)
}

/** A shape as an outline of its own, in px of a picture of that size: itself where it is drawn, null where it has none. */
export function outlineOf(shape: Shape, size: Size): Shape | null {
  const { isDrawn, outlined } = SHAPES[shape.kind]
  if (isDrawn) return shape
  if (!outlined) return null
  return shapeWith(
    'outline',
    mapKeys(shapeValue(shape), value => outlined(value, size)),
  )
}

/** Gives a piece another shape, its feather and switches kept; what both shapes know, such as a frame, is handed over, keys and all. An outline is what the shape was. */
export function swapShape(
  shot: Shot,
  layer: string,
  piece: string,
  kind: Shape['kind'],
  size: Size,
  takes: readonly Take[],
): void {
  const of = editableLayer(shot, layer)
  const found = findPiece(of, piece)
  if (!of || !found || found.shape.kind === kind) return
  const { shape } = found
  const [from, to] = [SHAPES[shape.kind], SHAPES[kind]]
  if (unnumbered(found.name) === from.name) found.name = freeName(to.name, of.matte)
  const { taken = (value: unknown) => value } = to
  if (from.field === to.field)
    found.shape = shapeWith(
      kind,
      mapKeys(shapeValue(shape), value => taken(value)),
    )
  else
    found.shape =
      (kind === 'outline' ? outlineOf(shape, size) : null) ?? makeShape(kind, size, besideOf(shot, takes, layer))
}

/**
 * Moves a piece as a whole, as seen at a frame. What has not been moved yet turns and grows about `pivot` from now on.
 */
export function movePiece(
  shot: Shot,
  layer: string,
  piece: string,
  frame: number,
  motion: Motion,
  keying: boolean,
  pivot: Point,
): void {
  const found = findPiece(editableLayer(shot, layer), piece)
  if (!found) return
  const { motion: now } = found
  const isUnmoved = !isKeyed(now) && now.x === 0 && now.y === 0 && now.angle === 0 && now.scale === 1
  if (isUnmoved) found.pivot = { x: pivot.x, y: pivot.y }
  found.motion = keying ? setKey(now, frame, motion) : setAt(now, frame, motion)
}

/** Lets a piece be used from a frame on, or until a frame and no longer; whatever was said of the other side stays. */
export function limitPiece(shot: Shot, layer: string, piece: string, frame: number, end: 'from' | 'until'): void {
  const found = findPiece(editableLayer(shot, layer), piece)
  if (!found) return
  const keys = keysOf(found.on)
  const key = (at: number, value: boolean): Key<boolean> => ({ frame: at, value, ease: 'hold' })
  if (end === 'from') {
    const after = keys.filter(k => k.frame > frame)
    found.on = { keys: [key(frame - 1, false), key(frame, true), ...after] }
  } else {
    const before = keys.filter(k => k.frame <= frame)
    const first = before.length > 0 ? before : [key(frame, true)]
    found.on = { keys: [...first, key(frame + 1, false)] }
  }
}

export function switchMatte(shot: Shot, layer: string, on: boolean): void {
  const found = editableLayer(shot, layer)
  if (found) found.matteOn = on
}

/** Starts a matte with a shape in the middle of the layer. */
export const startPiece = (kind: Shape['kind'], size: Size, beside?: Beside): Piece =>
  makePiece(makeShape(kind, size, beside))
