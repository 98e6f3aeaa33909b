// A layer's matte.
import { LIMITS } from '../limits'
import { makePiece, makeShape, SHAPE_NAMES } from '../make'
import type { Layer, Piece, Shape, Shot, Size, Take } from '../types'
import { editableLayer, findPiece } from './find'

/** The size that a layer's own pixels are counted in. */
export function layerSize(layer: Layer, shot: Shot, takes: readonly Take[]): Size {
  const { source } = layer
  if (source.kind === 'group') return source.shot.size
  return takes.find(t => t.digest === source.digest)?.picture?.size ?? shot.size
}

export function addPiece(shot: Shot, layer: string, piece: Piece): void {
  const found = editableLayer(shot, layer)
  if (!found || found.matte.length >= LIMITS.pieces) return
  found.matte.push(piece)
  found.matteOn = true
}

export function removePiece(shot: Shot, layer: string, piece: string): void {
  const found = editableLayer(shot, layer)
  if (found) found.matte = found.matte.filter(p => p.id !== piece)
}

export type PieceSwitches = Partial<Pick<Piece, 'name' | 'join' | 'inverted' | 'pinnedTo' | 'on'>>

export function changePiece(shot: Shot, layer: string, piece: string, changes: PieceSwitches): void {
  const found = findPiece(editableLayer(shot, layer), piece)
  if (found) Object.assign(found, changes)
}

/** Gives a piece another shape, its feather and switches kept; box and oval hand over their frame, keys and all. */
export function swapShape(shot: Shot, layer: string, piece: string, kind: Shape['kind'], size: Size): void {
  const found = findPiece(editableLayer(shot, layer), piece)
  if (!found || found.shape.kind === kind) return
  if (found.name === SHAPE_NAMES[found.shape.kind]) found.name = SHAPE_NAMES[kind]
  const { shape } = found
  found.shape = shape.kind !== 'edge' && kind !== 'edge' ? { kind, frame: shape.frame } : makeShape(kind, size)
}

export function switchMatte(shot: Shot, layer: string, on: boolean): void {
  const found = editableLayer(shot, layer)
  if (found) found.matteOn = on
}

/** Starts a matte with a shape in the middle of the layer. */
export const startPiece = (kind: Shape['kind'], size: Size): Piece => makePiece(makeShape(kind, size))
