// What is heard of a layer, and how it and the picture come and go.
import { asTake } from '../../source'
import { LIMITS } from '../limits'
import { named } from '../names'
import type { Fade, Layer, Shot } from '../types'
import { editableLayer, editableLayers } from './find'
import { copyOf } from './layers'
import { fitFades } from './time'

export function soundLayers(shot: Shot, layers: readonly string[], on: boolean): void {
  for (const layer of editableLayers(shot, layers)) layer.sound.on = on
}

/** Sets the frames over which the picture or the sound comes in or goes; it leaves room for the other end's. */
export function setFade(shot: Shot, layer: string, of: 'picture' | 'sound', changes: Partial<Fade>): void {
  const found = editableLayer(shot, layer)
  if (!found) return
  const length = found.span.to - found.span.from
  const fade = { ...(of === 'picture' ? found.fade : found.sound.fade) }
  const whole = (v: number, other: number) => Math.max(0, Math.min(Math.round(v) || 0, length - other))
  if (changes.in !== undefined) fade.in = whole(changes.in, fade.out)
  if (changes.out !== undefined) fade.out = whole(changes.out, fade.in)
  if (of === 'picture') found.fade = fade
  else found.sound.fade = fade
}

/** Frames that two layers share. */
export function overlap(a: Layer, b: Layer): number {
  return Math.max(0, Math.min(a.span.to, b.span.to) - Math.max(a.span.from, b.span.from))
}

/** Lets one layer dissolve into another over the frames that they share: the nearer one fades, and both sounds do. */
export function dissolveLayers(shot: Shot, one: string, other: string): void {
  const x = editableLayer(shot, one)
  const y = editableLayer(shot, other)
  if (!x || !y) return
  const frames = overlap(x, y)
  if (frames === 0) return
  const [earlier, later] = x.span.from <= y.span.from ? [x, y] : [y, x]
  const nearer = shot.layers.indexOf(x) < shot.layers.indexOf(y) ? x : y
  if (nearer === later) later.fade = { ...later.fade, in: frames }
  else earlier.fade = { ...earlier.fade, out: frames }
  earlier.sound.fade = { ...earlier.sound.fade, out: frames }
  later.sound.fade = { ...later.sound.fade, in: frames }
  fitFades(earlier)
  fitFades(later)
}

/** Makes the sound of a layer a layer of its own, farthest from the lens, that can be slid apart from the picture. */
export function detachSound(shot: Shot, layer: string): void {
  const found = editableLayer(shot, layer)
  const source = found && asTake(found.source)
  if (!found || source?.use !== 'both' || shot.layers.length >= LIMITS.layers) return
  const heard = copyOf(found)
  heard.source = { ...source, use: 'sound' }
  heard.name = named(found.name, 'sound')
  heard.matte = []
  heard.copies = null
  heard.fade = { in: 0, out: 0 }
  found.source = { ...source, use: 'picture' }
  shot.layers.push(heard)
}

/** Leaves the sound of a layer out for good. */
export function dropSound(shot: Shot, layer: string): void {
  const found = editableLayer(shot, layer)
  const source = found && asTake(found.source)
  if (found && source?.use === 'both') found.source = { ...source, use: 'picture' }
}
