// Several layers as one that holds a shot of its own, and back.
import { isKeyed } from '../../keys'
import { insideOf } from '../../source'
import { frameToSeconds, type Span } from '../../time'
import { clone } from '../clone'
import { LIMITS } from '../limits'
import { blankLayer, newId } from '../make'
import { renameShown } from '../shown'
import type { Layer, Shot } from '../types'
import { shiftLayerKeys } from '../values'
import { editableLayer, editableLayers } from './find'
import { advanced, fitFades } from './time'

/** How many groups lie in each other in a shot. */
export const groupDepth = (shot: Shot): number => {
  const insides = shot.layers.flatMap(l => insideOf(l.source) ?? [])
  return Math.max(0, ...insides.map(inside => 1 + groupDepth(inside)))
}

/** The frames at which a layer or any of its copies shows. */
function shownSpan({ span, copies }: Layer): Span {
  const last = copies ? copies.count * copies.later : 0
  return { from: span.from + Math.min(0, last), to: span.to + Math.max(0, last) }
}

function slid(layer: Layer, by: number): Layer {
  const moved = clone(layer)
  shiftLayerKeys(moved, by, 'all')
  moved.span = { from: moved.span.from + by, to: moved.span.to + by }
  return moved
}

/** Makes one layer of several, where the nearest of them lies. The picture stays, unless others lie between them in depth. */
export function groupLayers(shot: Shot, layers: readonly string[], name: string, id = newId()): void {
  const members = editableLayers(shot, layers)
  const first = members[0]
  if (!first || groupDepth({ ...shot, layers: members }) + 1 > LIMITS.depth) return
  const shown = members.map(shownSpan)
  const from = Math.max(0, Math.min(...shown.map(span => span.from)))
  const to = Math.min(shot.length, Math.max(...shown.map(span => span.to)))
  if (to <= from) return
  const inner: Shot = {
    id: newId(),
    name,
    size: { ...shot.size },
    rate: { ...shot.rate },
    length: to - from,
    backdrop: shot.backdrop,
    layers: members.map(l => slid(l, -from)),
    marks: [],
  }
  const group: Layer = {
    ...blankLayer({ kind: 'group', shot: inner }, shot.size, shot.size),
    id,
    name,
    span: { from, to },
  }
  const at = shot.layers.findIndex(l => l.id === first.id)
  shot.layers[at] = group
  const gone = new Set(members.map(l => l.id))
  shot.layers = shot.layers.filter(l => !gone.has(l.id))
}

const OWN = 'would be lost, and the picture would change'

/** Why a group cannot be taken apart with the picture unchanged, or null if it can. */
export function whyNotUngrouped(layer: Layer, shot: Shot): string | null {
  const inside = insideOf(layer.source)
  if (!inside) return 'This layer is no group.'
  const { size } = inside
  const still = !isKeyed(layer.place) && layer.place.scale === 1 && layer.place.angle === 0
  if (!still || layer.flip.across || layer.flip.down) return `The group has a place of its own, which ${OWN}.`
  if (size.width !== shot.size.width || size.height !== shot.size.height)
    return 'The group has another size than the shot.'
  if (layer.pin) return `The group has its corners pinned, which ${OWN}.`
  const { x, y } = layer.place as { x: number; y: number }
  if (x !== layer.anchor.x || y !== layer.anchor.y) return `The group has a place of its own, which ${OWN}.`
  if (layer.opacity !== 1 || layer.fade.in + layer.fade.out > 0)
    return `The group has an opacity of its own, which ${OWN}.`
  if (layer.matteOn && layer.matte.some(p => p.on !== false)) return `The group has a matte of its own, which ${OWN}.`
  if (layer.looks.some(l => l.on)) return `The group has looks of its own, which ${OWN}.`
  if (layer.blend !== 'normal' || layer.copies) return `The group is blended or repeated, which ${OWN}.`
  const { num, den } = inside.rate
  if (layer.timing.kind !== 'play' || layer.timing.speed !== 1 || num * shot.rate.den !== den * shot.rate.num)
    return `The group has a time of its own, which ${OWN}.`
  // The row's own span cannot be cut without its copies; beyond the shot nobody sees them.
  const begins = layer.span.from - Math.round(layer.timing.from / frameToSeconds(1, shot.rate))
  const cutsRow = inside.layers.some(l => {
    const { from, to } = shownSpan(l)
    const early = from + begins < layer.span.from && layer.span.from > 0
    return l.copies !== null && (early || (to + begins > layer.span.to && layer.span.to < shot.length))
  })
  if (cutsRow) return `The group cuts a row of copies short, which ${OWN}.`
  if (inside.layers.length + shot.layers.length > LIMITS.layers) return 'There would be too many layers.'
  return null
}

/** Puts the layers of a group where it was, if that leaves the picture as it is. */
export function ungroup(shot: Shot, layer: string): void {
  const found = editableLayer(shot, layer)
  const inside = found && insideOf(found.source)
  if (!inside || whyNotUngrouped(found, shot) !== null || found.timing.kind !== 'play') return
  const begins = Math.round(found.timing.from / frameToSeconds(1, shot.rate))
  const { span, on, sound } = found
  const ids = new Map(inside.layers.map(l => [l.id, newId()]))
  const own = (l: Layer): Layer => ({
    ...l,
    id: ids.get(l.id)!,
    on: l.on && on,
    sound: { ...l.sound, on: l.sound.on && sound.on },
  })
  const inner = inside.layers.flatMap((l): Layer[] => {
    const moved = slid(l, span.from - begins)
    if (moved.copies) return [own(moved)]
    // What the group cut off stays cut off.
    const from = Math.max(span.from, moved.span.from)
    const to = Math.min(span.to, moved.span.to, span.from - begins + inside.length)
    if (to <= from) return []
    moved.timing = advanced(moved.timing, from - moved.span.from, shot.rate)
    moved.fade.in = Math.max(0, moved.fade.in - (from - moved.span.from))
    moved.sound.fade.in = Math.max(0, moved.sound.fade.in - (from - moved.span.from))
    moved.span = { from, to }
    fitFades(moved)
    return [own(moved)]
  })
  renameShown(inner, ids)
  const at = shot.layers.findIndex(l => l.id === layer)
  shot.layers.splice(at, 1, ...inner)
}
