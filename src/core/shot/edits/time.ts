// When a layer shows, and which part of its source: slide, trim, slip, split, join.
import { frameToSeconds, type Rate, spanLength } from '../../time'
import { clone } from '../clone'
import { LIMITS } from '../limits'
import { newId } from '../make'
import { momentAt, reach, sourceSeconds } from '../timing'
import type { Layer, Shot, Take, Timing } from '../types'
import { shiftLayerKeys } from '../values'
import { editableLayer } from './find'

/** The timing as it is a number of frames later. */
export function advanced(timing: Timing, by: number, rate: Rate): Timing {
  if (timing.kind === 'freeze') return timing
  if (timing.kind === 'loop') return { ...timing, begun: timing.begun + by }
  return { ...timing, from: timing.from + frameToSeconds(by, rate) * timing.speed }
}

/** Keeps fades inside a span that has become shorter. */
export function fitFades(layer: Layer): void {
  const length = spanLength(layer.span)
  const fitted = (fade: { in: number; out: number }) => {
    const begin = Math.min(fade.in, length)
    return { in: begin, out: Math.min(fade.out, length - begin) }
  }
  layer.fade = fitted(layer.fade)
  layer.sound.fade = fitted(layer.sound.fade)
}

/** Slides layers in time, their keys with them, each to a first frame; at least one of its frames stays inside the shot. */
export function slideLayers(shot: Shot, moves: readonly { layer: string; from: number }[]): void {
  for (const { layer, from } of moves) {
    const found = editableLayer(shot, layer)
    if (!found || !Number.isFinite(from)) continue
    const length = spanLength(found.span)
    const start = Math.max(1 - length, Math.min(Math.round(from), shot.length - 1))
    shiftLayerKeys(found, start - found.span.from)
    found.span = { from: start, to: start + length }
  }
}

export type End = 'from' | 'to'

/**
 * Moves an end of layers to a frame. It stops where the source begins or ends, and leaves at least one frame.
 */
export function trimLayers(
  shot: Shot,
  end: End,
  moves: readonly { layer: string; frame: number }[],
  takes: readonly Take[],
): void {
  for (const { layer, frame } of moves) {
    const found = editableLayer(shot, layer)
    if (!found || !Number.isFinite(frame)) continue
    const { from, to } = found.span
    const { first, last } = reach(found, takes, shot.rate)
    if (end === 'to') {
      const stop = Math.max(from + 1, Math.min(Math.round(frame), from + last + 1, LIMITS.length))
      found.span = { from, to: stop }
    } else {
      const start = Math.min(to - 1, Math.max(Math.round(frame), from + first, -LIMITS.length))
      found.timing = advanced(found.timing, start - from, shot.rate)
      found.span = { from: start, to }
    }
    fitFades(found)
  }
}

/** Slips several layers together, each as far as it reaches; `began` are they as a drag began. */
export function slipLayers(
  shot: Shot,
  layers: readonly string[],
  by: number,
  takes: readonly Take[],
  began: readonly Layer[] = [],
): void {
  for (const layer of layers) {
    slipLayer(
      shot,
      layer,
      by,
      takes,
      began.find(l => l.id === layer),
    )
  }
}

/**
 * Shows the source a number of frames later under the same span, as far as it reaches. The matte pinned to the layer
 * goes with the picture. `began` is the layer as it was when a drag began.
 */
export function slipLayer(shot: Shot, layer: string, by: number, takes: readonly Take[], began?: Layer): void {
  const found = editableLayer(shot, layer)
  if (!found || !Number.isFinite(by)) return
  if (began) Object.assign(found, clone(began))
  const { timing } = found
  if (timing.kind === 'play') {
    const { first, last } = reach(found, takes, shot.rate)
    const most = Math.max(0, last - (spanLength(found.span) - 1))
    const frames = Math.max(Math.min(0, first), Math.min(Math.round(by), most))
    found.timing = advanced(timing, frames, shot.rate)
    shiftLayerKeys(found, -frames, 'picture')
    return
  }
  const seconds = sourceSeconds(found, takes)
  const end = timing.kind === 'freeze' ? timing.at : timing.to
  const begin = timing.kind === 'freeze' ? timing.at : timing.from
  const room = timing.kind === 'freeze' ? Math.max(0, seconds - frameToSeconds(1, shot.rate)) : seconds
  const shift = Math.max(-begin, Math.min(frameToSeconds(Math.round(by), shot.rate), Math.max(0, room - end)))
  found.timing =
    timing.kind === 'freeze'
      ? { ...timing, at: begin + shift }
      : { ...timing, from: begin + shift, to: timing.to + shift }
}

/** Why a layer cannot be slipped at all, as a sentence with a way out; null where it can. */
export function whyNotSlipped(layer: Layer, takes: readonly Take[], rate: Rate): string | null {
  if (layer.locked) return `“${layer.name}” is locked.`
  if (layer.timing.kind !== 'play') return null
  if (sourceSeconds(layer, takes) === Number.POSITIVE_INFINITY) return 'A still is the same at every moment.'
  const { first, last } = reach(layer, takes, rate)
  if (first < 0 || last >= spanLength(layer.span)) return null
  return `“${layer.name}” shows all of its take, so there is nothing to slip. Trim an end of the bar first.`
}

/** Cuts layers in two at a frame: what was one goes on as before, in two layers. Where a layer does not show nothing happens. */
export function splitLayers(shot: Shot, layers: readonly string[], frame: number): void {
  for (const id of layers) {
    const at = shot.layers.findIndex(l => l.id === id)
    const left = shot.layers[at]
    if (!left || left.locked || frame <= left.span.from || frame >= left.span.to) continue
    if (shot.layers.length >= LIMITS.layers) return
    const right = clone(left)
    right.id = newId()
    right.timing = advanced(left.timing, frame - left.span.from, shot.rate)
    right.span = { from: frame, to: left.span.to }
    right.fade.in = 0
    right.sound.fade.in = 0
    left.span = { from: left.span.from, to: frame }
    left.fade = { ...left.fade, out: 0 }
    left.sound.fade = { ...left.sound.fade, out: 0 }
    fitFades(left)
    fitFades(right)
    shot.layers.splice(at, 0, right)
  }
}

const besidesTime = (layer: Layer): string => {
  const { id, name, span, timing, fade, sound, locked, tag, ...rest } = layer
  const matte = rest.matte.map(({ id: _, ...piece }) => piece)
  return JSON.stringify({ ...rest, matte, sound: { on: sound.on, gain: sound.gain } })
}

/** Why two layers cannot be made one, or null if they can: the later has to go on where the earlier ends. */
export function whyNotJoined(shot: Shot, one: Layer, other: Layer): string | null {
  const [a, b] = one.span.from <= other.span.from ? [one, other] : [other, one]
  if (a.locked || b.locked) return 'One of them is locked.'
  if (a.span.to !== b.span.from) return 'The later one does not begin where the earlier one ends.'
  if (a.timing.kind !== b.timing.kind || besidesTime(a) !== besidesTime(b))
    return 'They differ in more than their time.'
  const goesOn = momentAt(a.timing, spanLength(a.span), shot.rate).seconds
  const begins = momentAt(b.timing, 0, shot.rate).seconds
  if (Math.abs(goesOn - begins) > 1e-4) return 'The later one does not go on where the earlier one ends.'
  return null
}

/** Makes two layers one again, if they are one after the other and alike. */
export function joinLayers(shot: Shot, one: string, other: string): void {
  const x = editableLayer(shot, one)
  const y = editableLayer(shot, other)
  if (!x || !y || x === y || whyNotJoined(shot, x, y) !== null) return
  const [a, b] = x.span.from <= y.span.from ? [x, y] : [y, x]
  a.span = { from: a.span.from, to: b.span.to }
  a.fade = { in: a.fade.in, out: b.fade.out }
  a.sound.fade = { in: a.sound.fade.in, out: b.sound.fade.out }
  shot.layers = shot.layers.filter(l => l.id !== b.id)
}
