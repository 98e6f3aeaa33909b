// Values that stand still or move by keys.
import { type Ease, moveKey, removeKey, setAt, setEase, setKey } from '../../keys'
import type { AnyValue, Shot } from '../types'
import { changeValue, getValue, type ValuePath } from '../values'
import { editableLayer } from './find'

function change(shot: Shot, layer: string, path: ValuePath, to: (value: AnyValue) => AnyValue): void {
  const found = editableLayer(shot, layer)
  if (found && getValue(found, path) !== null) changeValue(found, path, to)
}

/** Sets a value as seen at a frame. `keying`: make a key even where the value stands still so far. */
export function setValue(shot: Shot, layer: string, path: ValuePath, frame: number, to: unknown, keying = false): void {
  change(shot, layer, path, value => (keying ? setKey(value, frame, to) : setAt(value, frame, to)))
}

export function putKey(shot: Shot, layer: string, path: ValuePath, frame: number, value: unknown): void {
  change(shot, layer, path, old => setKey(old, frame, value))
}

export function dropKey(shot: Shot, layer: string, path: ValuePath, frame: number): void {
  change(shot, layer, path, value => removeKey(value, frame))
}

/** Moves a key; given the value as it was when a drag began, keys that were only passed on the way come back. */
export function slideKey(shot: Shot, layer: string, path: ValuePath, from: number, to: number, began?: AnyValue): void {
  change(shot, layer, path, value => moveKey(began ?? value, from, to))
}

export function easeKey(shot: Shot, layer: string, path: ValuePath, frame: number, ease: Ease): void {
  change(shot, layer, path, value => setEase(value, frame, ease))
}
