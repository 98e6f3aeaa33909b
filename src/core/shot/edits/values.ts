// Values that stand still or move by keys.
import { type Ease, removeKey, retimeKeys as retime, setAt, setEase, setKey, smoothKeys } from '../../keys'
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

/** Keys of one value, by their frames. */
export interface KeysAt {
  path: ValuePath
  frames: readonly number[]
}

/** A shift by frames, after a stretch about a frame. */
export interface Retiming {
  about: number
  factor: number
  by: number
}

/**
 * Moves and stretches keys of several values together. Told from how those were as a drag began, if that is given, so that keys which were only
 * passed on the way come back. With `copying` they stay where they were as well.
 */
export function retimeKeys(
  shot: Shot,
  layer: string,
  chosen: readonly (KeysAt & { began?: AnyValue })[],
  { about, factor, by }: Retiming,
  copying = false,
): void {
  const to = (frame: number) => about + (frame - about) * factor + by
  for (const { path, frames, began } of chosen)
    change(shot, layer, path, value => retime(began ?? value, frames, to, copying))
}

export function dropKeys(shot: Shot, layer: string, chosen: readonly KeysAt[]): void {
  for (const { path, frames } of chosen)
    change(shot, layer, path, value => frames.reduce((left, frame) => removeKey(left, frame), value))
}

/** Takes the jitter out of a value that moves by three keys and more. */
export function calmKeys(shot: Shot, layer: string, path: ValuePath): void {
  change(shot, layer, path, value => smoothKeys(value))
}

export function easeKey(shot: Shot, layer: string, path: ValuePath, frame: number, ease: Ease): void {
  change(shot, layer, path, value => setEase(value, frame, ease))
}
