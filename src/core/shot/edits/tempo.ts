// How time runs in a layer: speed, freeze, hold, loop, stutter, copies.
import { mirrorKeys } from '../../keys'
import { frameToSeconds, spanLength } from '../../time'
import { clone } from '../clone'
import { LIMITS } from '../limits'
import { newId } from '../make'
import { named } from '../names'
import { momentAt, possibleSpeed, reach, sourceSeconds } from '../timing'
import type { Copies, Layer, LoopStyle, Shot, Take, Timing } from '../types'
import { changeKeyed, shiftLayerKeys, spreadLayerKeys, stillLayer } from '../values'
import { editableLayer } from './find'
import { advanced, fitFades, splitLayers } from './time'

/** Stops a layer's end where its source ends. */
function fitReach(layer: Layer, shot: Shot, takes: readonly Take[]): void {
  const { last } = reach(layer, takes, shot.rate)
  layer.span = { from: layer.span.from, to: Math.min(layer.span.to, layer.span.from + last + 1) }
  fitFades(layer)
}

/**
 * Shows the same stretch of a layer's source at another speed, the layer growing shorter or longer with it; a loop only
 * runs faster or slower. Keys keep to what they were set on. A negative speed turns the stretch round.
 */
export function setSpeed(shot: Shot, layer: string, to: number, takes: readonly Take[]): void {
  const found = editableLayer(shot, layer)
  const speed = possibleSpeed(to)
  if (!found || speed === null || found.timing.kind === 'freeze') return
  const { timing, span } = found
  if (timing.kind === 'loop') {
    found.timing = { ...timing, speed }
    return
  }
  const length = spanLength(span)
  if (speed < 0 !== timing.speed < 0) {
    const last = momentAt({ ...timing, mixed: null }, length - 1, shot.rate).seconds
    found.timing = { ...timing, from: last, speed: -timing.speed }
    changeKeyed(found, 'own', value => mirrorKeys(value, span.from + span.to - 1))
  }
  const factor = Math.abs(timing.speed / speed)
  const longer = Math.max(1, Math.min(LIMITS.length, Math.round(length * factor)))
  spreadLayerKeys(found, span.from, factor)
  found.timing = { ...(found.timing as Extract<Timing, { kind: 'play' }>), speed }
  found.span = { from: span.from, to: span.from + longer }
  fitReach(found, shot, takes)
}

/** Makes a layer end at a frame by changing its speed. `began` is the layer as it was when the bar was taken hold of. */
export function stretchLayer(shot: Shot, layer: string, to: number, takes: readonly Take[], began: Layer): void {
  const found = editableLayer(shot, layer)
  if (!found || !Number.isFinite(to) || began.timing.kind !== 'play') return
  Object.assign(found, clone(began))
  const length = spanLength(began.span)
  const wanted = Math.max(1, Math.round(to) - began.span.from)
  if (wanted !== length) setSpeed(shot, layer, (began.timing.speed * length) / wanted, takes)
}

/** Whether slow motion mixes neighbouring frames of its take; `every` is what one of those lasts, in seconds. */
export function mixFrames(shot: Shot, layer: string, every: number | null): void {
  const found = editableLayer(shot, layer)
  if (found?.timing.kind === 'play') found.timing = { ...found.timing, mixed: every }
}

/** Lets a layer stand still as it is at a frame of the shot, for as long as its bar is made. */
export function freezeLayer(shot: Shot, layer: string, frame: number): void {
  const found = editableLayer(shot, layer)
  if (!found) return
  const at = Math.max(found.span.from, Math.min(frame, found.span.to - 1))
  found.timing = { kind: 'freeze', at: momentAt(found.timing, at - found.span.from, shot.rate).seconds }
  stillLayer(found, at)
}

/** The same, and for as long as the shot is, however short its take: as a plate stands behind everything. */
export function standLayer(shot: Shot, layer: string, frame: number): void {
  freezeLayer(shot, layer, frame)
  const found = editableLayer(shot, layer)
  if (found) found.span = { from: found.span.from, to: Math.max(found.span.to, shot.length) }
}

/** Gives a frozen or looped layer its ordinary time back, from the moment that it shows first. */
export function playLayer(shot: Shot, layer: string, takes: readonly Take[]): void {
  const found = editableLayer(shot, layer)
  if (!found || found.timing.kind === 'play') return
  const { timing } = found
  const from = momentAt(timing, 0, shot.rate).seconds
  found.timing = { kind: 'play', from, speed: timing.kind === 'loop' ? timing.speed : 1, mixed: null }
  fitReach(found, shot, takes)
}

/**
 * Holds a layer still at a frame for some frames. What follows comes later by as much if it is pushed; else it goes on
 * as if nothing had been, the hold lying over it.
 */
export function holdLayer(shot: Shot, layer: string, frame: number, frames: number, push: boolean): void {
  const found = editableLayer(shot, layer)
  if (!found || frames < 1 || frame < found.span.from || frame >= found.span.to) return
  if (shot.layers.length + 2 > LIMITS.layers) return
  const { from, to } = found.span
  const before = clone(found)
  const held = clone(found)
  held.id = newId()
  held.name = named(found.name, 'held')
  held.timing = { kind: 'freeze', at: momentAt(found.timing, frame - from, shot.rate).seconds }
  held.span = { from: frame, to: push ? frame + frames : Math.min(to, frame + frames) }
  held.fade = { in: 0, out: 0 }
  stillLayer(held, frame)
  const rest = clone(before)
  rest.id = newId()
  // Pushed, the picture at the frame goes on from where it was held; else its time has gone by.
  const goesOn = push ? frame : held.span.to
  rest.timing = advanced(before.timing, goesOn - from, shot.rate)
  rest.span = { from: held.span.to, to: push ? to + frames : to }
  rest.fade.in = 0
  rest.sound.fade.in = 0
  if (push) shiftLayerKeys(rest, frames)
  const at = shot.layers.findIndex(l => l.id === layer)
  const parts = [held, ...(rest.span.to > rest.span.from ? [rest] : [])]
  for (const part of parts) fitFades(part)
  if (frame === from) {
    held.id = layer
    shot.layers.splice(at, 1, ...parts.reverse())
    return
  }
  found.span = { from, to: frame }
  found.fade = { ...found.fade, out: 0 }
  found.sound.fade = { ...found.sound.fade, out: 0 }
  fitFades(found)
  shot.layers.splice(at, 0, ...parts.reverse())
}

export interface LoopChoice {
  /** Frames of the shot between which the layer now plays what is to be repeated, `to` not included. */
  from: number
  to: number
  style: LoopStyle
  over: number
  /** The frame up to which it is repeated. */
  until: number
}

/** Repeats a stretch of a layer, beginning with the stretch itself where it lies. A stretch beyond the source is cut short. */
export function loopLayer(shot: Shot, layer: string, choice: LoopChoice, takes: readonly Take[]): void {
  const found = editableLayer(shot, layer)
  if (!found || found.timing.kind === 'freeze') return
  const { timing, span } = found
  const begin = Math.max(span.from, Math.min(choice.from, span.to - 1))
  const end = Math.max(begin + 1, Math.min(choice.to, span.to))
  const speed = timing.speed
  const first = momentAt(timing, begin - span.from, shot.rate).seconds
  const length = frameToSeconds(end - begin, shot.rate) * Math.abs(speed)
  const seconds = sourceSeconds(found, takes)
  // Backwards, the first frame shown is the last of the stretch.
  const from = Math.max(0, speed > 0 ? first : first - length + frameToSeconds(1, shot.rate) * Math.abs(speed))
  const to = Math.min(seconds, from + length)
  if (to <= from) return
  found.timing = { kind: 'loop', from, to, style: choice.style, over: choice.over, speed, begun: 0 }
  found.span = { from: begin, to: Math.max(end, Math.min(LIMITS.length, choice.until)) }
  fitFades(found)
}

/** Changes how a loop repeats. */
export function changeLoop(
  shot: Shot,
  layer: string,
  changes: Partial<Pick<Extract<Timing, { kind: 'loop' }>, 'from' | 'to' | 'style' | 'over'>>,
  takes: readonly Take[],
): void {
  const found = editableLayer(shot, layer)
  if (found?.timing.kind !== 'loop') return
  const next = { ...found.timing, ...changes }
  const from = Math.max(0, next.from)
  const to = Math.min(next.to, sourceSeconds(found, takes))
  if (to > from) found.timing = { ...next, from, to, over: Math.max(0, Math.round(next.over)) }
}

/**
 * Takes the first frames of a layer and repeats them, with gaps between if wanted, as layers of their own; then the
 * layer goes on behind them.
 */
export function stutterLayer(shot: Shot, layer: string, at: number, frames: number, times: number, gap: number): void {
  const whole = editableLayer(shot, layer)
  if (!whole || frames < 1 || times < 1 || gap < 0) return
  let id = layer
  if (at > whole.span.from && at < whole.span.to) {
    const before = new Set(shot.layers.map(l => l.id))
    splitLayers(shot, [layer], at)
    id = shot.layers.find(l => !before.has(l.id))?.id ?? layer
  }
  const found = editableLayer(shot, id)
  if (!found || frames >= spanLength(found.span)) return
  if (shot.layers.length + times > LIMITS.layers) return
  const { from, to } = found.span
  const begins = clone(found)
  const repeats = Array.from({ length: times }, (_, i): Layer => {
    const repeat = clone(begins)
    const later = i * (frames + gap)
    repeat.id = newId()
    repeat.name = named(begins.name, i + 1)
    shiftLayerKeys(repeat, later)
    repeat.span = { from: from + later, to: from + later + frames }
    repeat.fade = { in: i === 0 ? begins.fade.in : 0, out: 0 }
    repeat.sound.fade = { in: i === 0 ? begins.sound.fade.in : 0, out: 0 }
    fitFades(repeat)
    return repeat
  })
  const later = times * (frames + gap) - frames
  found.timing = advanced(begins.timing, frames, shot.rate)
  shiftLayerKeys(found, later)
  found.span = { from: from + frames + later, to: to + later }
  found.fade = { ...found.fade, in: 0 }
  found.sound.fade = { ...found.sound.fade, in: 0 }
  fitFades(found)
  shot.layers.splice(shot.layers.findIndex(l => l.id === id) + 1, 0, ...repeats)
}

/** Repeats a layer in a row, or once only with null. Numbers out of bounds are brought to them. */
export function setCopies(shot: Shot, layer: string, copies: Copies | null): void {
  const found = editableLayer(shot, layer)
  if (!found) return
  const whole = (v: number, least: number, most: number) => Math.max(least, Math.min(most, Math.round(v) || 0))
  found.copies = copies && {
    count: whole(copies.count, 1, LIMITS.copies),
    later: whole(copies.later, -LIMITS.length, LIMITS.length),
    x: Number.isFinite(copies.x) ? copies.x : 0,
    y: Number.isFinite(copies.y) ? copies.y : 0,
    keep: Math.max(0, Math.min(1, copies.keep)),
  }
}
