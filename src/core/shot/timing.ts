// Which moment of a layer's source shows at which of its frames. Moments are seconds of the source.
import { sourceKind, takeSeconds } from '../source'
import { framesIn, frameToSeconds, type Rate, type Span } from '../time'
import { LIMITS } from './limits'
import type { Fade, Layer, Take, Timing } from './types'

/** What shows: one moment, or two of which the other has a share, 0..1. */
export interface Moment {
  seconds: number
  other: { seconds: number; share: number } | null
}

const single = (seconds: number): Moment => ({ seconds, other: null })

type Loop = Extract<Timing, { kind: 'loop' }>

/** Frames of the shot that one pass of a loop takes. */
export const passLength = (loop: Loop, rate: Rate): number =>
  Math.max(1, Math.round(((loop.to - loop.from) * rate.num) / rate.den / Math.abs(loop.speed)))

/** A stretch in which a layer's source goes by evenly. */
export interface Pass {
  /** Frames of the layer's span; `to` is not part of it. */
  from: number
  to: number
  /** What shows at `from`, what is heard there, and how fast both go on. */
  seconds: number
  heard: number
  speed: number
  /** Frames over which it dissolves out of the pass before it and into the one after it. */
  coming: number
  going: number
}

function loopPasses(loop: Loop, from: number, to: number, rate: Rate): Pass[] {
  const n = passLength(loop, rate)
  const { speed, begun } = loop
  const swing = loop.style === 'swing' && n > 1
  const over = loop.style === 'dissolve' ? Math.min(loop.over, n - 1) : 0
  // There and back is two passes, the way back without the frame at which it turned.
  const step = swing ? n - 1 : n - over
  const passes: Pass[] = []
  for (let i = Math.max(0, Math.floor((begun + from) / step) - 1); i * step - begun < to; i++) {
    const at = i * step - begun
    const end = at + (swing ? step : n)
    if (end <= from) continue
    const back = swing && i % 2 === 1
    const along = back ? n - 1 : 0
    // Backwards a frame shows what lies at its beginning, and is heard from its end.
    const seconds = loop.from + frameToSeconds(speed > 0 ? along : n - 1 - along, rate) * Math.abs(speed)
    const heard = (speed > 0 ? loop.from : loop.to) + frameToSeconds(along, rate) * speed
    const coming = i > 0 ? over : 0
    passes.push({ from: at, to: end, seconds, heard, speed: back ? -speed : speed, coming, going: over })
  }
  return passes
}

/** The passes of a timing that touch frames [from, to) of a span, whole, in order. A still moment is one of no speed. */
export function passesOf(timing: Timing, from: number, to: number, rate: Rate): Pass[] {
  if (timing.kind === 'loop') return loopPasses(timing, from, to, rate)
  const all = { from: 0, to, coming: 0, going: 0 }
  if (timing.kind === 'freeze') return [{ ...all, seconds: timing.at, heard: timing.at, speed: 0 }]
  const { speed } = timing
  const heard = speed < 0 ? timing.from - frameToSeconds(1, rate) * speed : timing.from
  return [{ ...all, seconds: timing.from, heard, speed }]
}

/** What a timing shows at a frame counted from the span's first one. */
export function momentAt(timing: Timing, frame: number, rate: Rate): Moment {
  const [one, other] = passesOf(timing, frame, frame + 1, rate)
  const at = (pass: Pass) => pass.seconds + frameToSeconds(frame - pass.from, rate) * pass.speed
  if (!one) return single(timing.kind === 'loop' ? timing.from : 0)
  if (other)
    return { seconds: at(one), other: { seconds: at(other), share: (frame - other.from + 1) / (other.coming + 1) } }
  const seconds = at(one)
  const mixed = timing.kind === 'play' ? timing.mixed : null
  if (mixed === null || Math.abs(frameToSeconds(1, rate) * one.speed) >= mixed) return single(seconds)
  const whole = Math.floor((seconds + 1e-6) / mixed)
  const share = seconds / mixed - whole
  return share < 1e-3
    ? single(whole * mixed)
    : { seconds: whole * mixed, other: { seconds: (whole + 1) * mixed, share } }
}

/**
 * How much of a layer there is for a fade, 0..1, at a frame of its span (fractions allowed). `step` is what of a frame is
 * asked for: 1 for a picture, which stands for all of its frame and is never quite nothing, 0 for a moment of sound.
 */
export function fadeAt(span: Span, fade: Fade, frame: number, step: 0 | 1): number {
  const share = (frames: number, of: number) => (of > 0 ? Math.max(0, Math.min(1, (frames + step) / (of + step))) : 1)
  return share(frame - span.from, fade.in) * share(span.to - step - frame, fade.out)
}

/** A speed that can be: at least 1% and at most 10,000%, either way; null for what is no speed at all. */
export function possibleSpeed(speed: number): number | null {
  if (!Number.isFinite(speed) || speed === 0) return null
  const { least, most } = LIMITS.speed
  return Math.sign(speed) * Math.max(least, Math.min(most, Math.abs(speed)))
}

/** How fast a layer's source goes by; a still moment has no speed. */
export const speedOf = (timing: Timing): number => (timing.kind === 'freeze' ? 0 : timing.speed)

/** Seconds that a layer's source has; one that stands still, or whose file is not known, has any number. */
export const sourceSeconds = ({ source }: Layer, takes: readonly Take[]): number =>
  sourceKind(source).seconds(source, takes)

/** The first and last frame of its span, counted from the present one, at which a layer still shows its source. */
export function reach(layer: Layer, takes: readonly Take[], rate: Rate): { first: number; last: number } {
  const seconds = sourceSeconds(layer, takes)
  const { timing } = layer
  const endless = { first: Number.NEGATIVE_INFINITY, last: Number.POSITIVE_INFINITY }
  if (timing.kind === 'loop') return { first: -timing.begun, last: Number.POSITIVE_INFINITY }
  if (timing.kind === 'freeze' || seconds === Number.POSITIVE_INFINITY) return endless
  const { from, speed } = timing
  const frames = (s: number) => (s * rate.num) / rate.den / Math.abs(speed)
  const toFirst = Math.max(0, Math.floor(frames(from) + 1e-6))
  // A last sliver under a tenth of a frame is no frame, as in `framesIn`.
  const toLast = Math.max(0, Math.ceil(frames(seconds - from) - 0.1) - 1)
  return speed > 0 ? { first: -toFirst, last: toLast } : { first: -toLast, last: toFirst }
}

/** How many frames of the shot a take fills at a speed; a still is given some seconds. */
export const STILL_SECONDS = 5
export function framesOf(take: Take, rate: Rate, speed = 1): number {
  const seconds = takeSeconds(take)
  return framesIn(Number.isFinite(seconds) ? seconds / speed : STILL_SECONDS, rate)
}
