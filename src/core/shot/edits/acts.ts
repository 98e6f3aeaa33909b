// One layer parted into acts that are played at once.
import type { Span } from '../../time'
import { clone } from '../clone'
import { LIMITS } from '../limits'
import type { Layer, Shot } from '../types'
import { shiftLayerKeys } from '../values'
import { editableLayer } from './find'
import { copyOf } from './layers'
import { reformShot } from './shot'
import { advanced, fitFades } from './time'

/** Frames of the shot in which an act is played. */
export interface ActSpan extends Span {
  name: string
}

/** What a layer is that shows one part of its span only, and from where the span began; its keys go with it. */
function partOf(layer: Layer, { name, from, to }: ActSpan, shot: Shot): Layer {
  const begun = layer.span.from
  const part: Layer = {
    ...layer,
    name: name.slice(0, LIMITS.name),
    timing: advanced(layer.timing, from - begun, shot.rate),
    span: { from: begun, to: begun + to - from },
  }
  if (from > begun) {
    part.fade.in = 0
    part.sound.fade.in = 0
  }
  if (to < layer.span.to) {
    part.fade.out = 0
    part.sound.fade.out = 0
  }
  fitFades(part)
  shiftLayerKeys(part, begun - from)
  return part
}

/**
 * Parts a layer into acts, in order, all of which begin where it began, the first nearest the lens; what lies between them goes. Acts keep what was done to the layer. Where there is nothing else in
 * the shot it ends with the longest of them.
 */
export function cutIntoActs(shot: Shot, layer: string, acts: readonly ActSpan[]): void {
  const found = editableLayer(shot, layer)
  if (!found) return
  const { span } = found
  const inside = acts
    .map(({ name, from, to }) => ({ name, from: Math.max(span.from, from), to: Math.min(span.to, to) }))
    .filter(({ from, to }) => Number.isInteger(from) && Number.isInteger(to) && from < to)
  if (inside.length === 0 || shot.layers.length - 1 + inside.length > LIMITS.layers) return
  const parts = inside.map((act, i) => partOf(i === 0 ? clone(found) : copyOf(found), act, shot))
  const at = shot.layers.indexOf(found)
  shot.layers.splice(at, 1, ...parts)
  const end = Math.max(...parts.map(p => p.span.to))
  if (parts.length === shot.layers.length && end > 0 && end < shot.length)
    reformShot(shot, { ...shot, length: end, grow: false })
}
