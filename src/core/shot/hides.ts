// Layers that let nothing be seen of what lies behind them.
import { carry } from '../affine'
import { isKeyed } from '../keys'
import { asTake } from '../source'
import { placeMap } from './place'
import type { Layer, Shot, Take } from './types'

/** Px by which a picture may fall short of the frame. */
const NEARLY = 1

/** Whether a layer shows all of a film, upright and as it is, over all of the frame: nothing that it does changes with time. */
function fillsFrame(layer: Layer, { size }: Shot, takes: readonly Take[]): boolean {
  const { on, place, opacity, fade, blend, pin, copies, matte, matteOn } = layer
  const take = takes.find(t => t.digest === asTake(layer.source)?.digest)
  if (take?.picture?.kind !== 'film' || isKeyed(place) || place.angle !== 0) return false
  if (
    !on ||
    opacity !== 1 ||
    fade.in > 0 ||
    fade.out > 0 ||
    blend !== 'normal' ||
    pin ||
    copies ||
    (matteOn && matte.length > 0)
  )
    return false
  const { width, height } = take.picture.size
  const map = placeMap(layer, place)
  const corners = [carry(map, { x: 0, y: 0 }), carry(map, { x: width, y: height })]
  const covers = (a: number, b: number, to: number) => Math.min(a, b) <= NEARLY && Math.max(a, b) >= to - NEARLY
  return covers(corners[0]!.x, corners[1]!.x, size.width) && covers(corners[0]!.y, corners[1]!.y, size.height)
}

/** Whether a layer hides others for as long as it shows, so that they could as well not be there. */
export function hidesOthers(layer: Layer, shot: Shot, takes: readonly Take[]): boolean {
  const { from, to } = layer.span
  const behind = shot.layers.slice(shot.layers.findIndex(l => l.id === layer.id) + 1)
  return behind.some(l => l.on && l.span.from < to && l.span.to > from) && fillsFrame(layer, shot, takes)
}

/** Whether a take plays in a layer and ends before the shot does. */
export const endsEarly = ({ source, timing, span }: Layer, shot: Shot): boolean =>
  asTake(source) !== null && timing.kind === 'play' && span.to < shot.length

/** The layer nearest the lens that hides a layer for as long as that one shows; null where none does. */
export function hiddenBy({ id, span }: Layer, shot: Shot, takes: readonly Take[]): Layer | null {
  const before = shot.layers.slice(
    0,
    shot.layers.findIndex(l => l.id === id),
  )
  return before.find(l => l.span.from <= span.from && l.span.to >= span.to && fillsFrame(l, shot, takes)) ?? null
}
