// Everything that can be done to a shot, each as a small change to a draft. A layer or piece that is not there is left alone.
import { type Ease, moveKey, type Numeric, removeKey, setAt, setEase, setKey } from '../keys'
import { LIMITS } from './limits'
import { makePiece, makeShape, SHAPE_NAMES } from './make'
import type { AnyValue, Layer, Piece, Shape, Shot, Size, Take, ValuePath } from './types'
import { changeValue, getValue, shiftLayerKeys } from './values'

export const findLayer = (shot: Shot, layer: string): Layer | undefined => shot.layers.find(l => l.id === layer)
export const findPiece = (layer: Layer | undefined, piece: string): Piece | undefined =>
  layer?.matte.find(p => p.id === piece)

export function renameShot(shot: Shot, name: string): void {
  shot.name = name.slice(0, LIMITS.name)
}

export function renameLayer(shot: Shot, layer: string, name: string): void {
  const found = findLayer(shot, layer)
  if (found) found.name = name.slice(0, LIMITS.name)
}

export function showLayer(shot: Shot, layer: string, on: boolean): void {
  const found = findLayer(shot, layer)
  if (found) found.on = on
}

export function soundLayer(shot: Shot, layer: string, on: boolean): void {
  const found = findLayer(shot, layer)
  if (found) found.sound.on = on
}

/** Adds a layer nearest the lens. */
export function addLayer(shot: Shot, layer: Layer): void {
  if (shot.layers.length < LIMITS.layers) shot.layers.unshift(layer)
}

export function removeLayer(shot: Shot, layer: string): void {
  shot.layers = shot.layers.filter(l => l.id !== layer)
}

/** Puts a layer at a place in the depth order, 0 nearest the lens. */
export function reorderLayer(shot: Shot, layer: string, to: number): void {
  const from = shot.layers.findIndex(l => l.id === layer)
  if (from < 0) return
  const [moved] = shot.layers.splice(from, 1)
  shot.layers.splice(Math.max(0, Math.min(to, shot.layers.length)), 0, moved!)
}

/** Slides a layer in time, its keys with it; at least one of its frames stays inside the shot. */
export function slideLayer(shot: Shot, layer: string, from: number): void {
  const found = findLayer(shot, layer)
  if (!found) return
  const length = found.span.to - found.span.from
  const start = Math.max(1 - length, Math.min(Math.round(from), shot.length - 1))
  shiftLayerKeys(found, start - found.span.from)
  found.span = { from: start, to: start + length }
}

/** The size that a layer's own pixels are counted in. */
export function layerSize(layer: Layer, shot: Shot, takes: readonly Take[]): Size {
  const { source } = layer
  if (source.kind === 'group') return source.shot.size
  return takes.find(t => t.digest === source.digest)?.size ?? shot.size
}

export function addPiece(shot: Shot, layer: string, piece: Piece): void {
  const found = findLayer(shot, layer)
  if (!found || found.matte.length >= LIMITS.pieces) return
  found.matte.push(piece)
  found.matteOn = true
}

export function removePiece(shot: Shot, layer: string, piece: string): void {
  const found = findLayer(shot, layer)
  if (found) found.matte = found.matte.filter(p => p.id !== piece)
}

export type PieceSwitches = Partial<Pick<Piece, 'name' | 'join' | 'inverted' | 'pinnedTo' | 'on'>>

export function changePiece(shot: Shot, layer: string, piece: string, changes: PieceSwitches): void {
  const found = findPiece(findLayer(shot, layer), piece)
  if (found) Object.assign(found, changes)
}

/** Gives a piece another shape, its feather and switches kept; box and oval hand over their frame, keys and all. */
export function swapShape(shot: Shot, layer: string, piece: string, kind: Shape['kind'], size: Size): void {
  const found = findPiece(findLayer(shot, layer), piece)
  if (!found || found.shape.kind === kind) return
  if (found.name === SHAPE_NAMES[found.shape.kind]) found.name = SHAPE_NAMES[kind]
  const { shape } = found
  found.shape = shape.kind !== 'edge' && kind !== 'edge' ? { kind, frame: shape.frame } : makeShape(kind, size)
}

export function switchMatte(shot: Shot, layer: string, on: boolean): void {
  const found = findLayer(shot, layer)
  if (found) found.matteOn = on
}

/** Starts a matte with a shape in the middle of the layer. */
export const startPiece = (kind: Shape['kind'], size: Size): Piece => makePiece(makeShape(kind, size))

/** Sets a value as seen at a frame. `keying`: make a key even where the value stands still so far. */
export function setValue(shot: Shot, layer: string, path: ValuePath, frame: number, to: Numeric, keying = false): void {
  edit(shot, layer, path, value => (keying ? setKey(value, frame, to) : setAt(value, frame, to)))
}

export function putKey(shot: Shot, layer: string, path: ValuePath, frame: number, value: Numeric): void {
  edit(shot, layer, path, old => setKey(old, frame, value))
}

export function dropKey(shot: Shot, layer: string, path: ValuePath, frame: number): void {
  edit(shot, layer, path, value => removeKey(value, frame))
}

/** Moves a key; given the value as it was when a drag began, keys that were only passed on the way come back. */
export function slideKey(shot: Shot, layer: string, path: ValuePath, from: number, to: number, began?: AnyValue): void {
  edit(shot, layer, path, value => moveKey(began ?? value, from, to))
}

export function easeKey(shot: Shot, layer: string, path: ValuePath, frame: number, ease: Ease): void {
  edit(shot, layer, path, value => setEase(value, frame, ease))
}

function edit(shot: Shot, layer: string, path: ValuePath, change: (value: AnyValue) => AnyValue): void {
  const found = findLayer(shot, layer)
  if (found && getValue(found, path) !== null) changeValue(found, path, change)
}
