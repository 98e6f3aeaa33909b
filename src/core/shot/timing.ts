// Which moment of a layer's source shows at which of its frames. Moments are seconds of the source.
import { framesIn, frameToSeconds, type Rate } from '../time'
import { LIMITS } from './limits'
import type { Layer, Take, Timing } from './types'

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

function loopMoment(loop: Loop, frame: number, rate: Rate): Moment {
  const n = passLength(loop, rate)
  const at = loop.begun + frame
  const moment = (j: number) => loop.from + frameToSeconds(loop.speed > 0 ? j : n - 1 - j, rate) * Math.abs(loop.speed)
  const wrap = (length: number) => ((at % length) + length) % length
  if (loop.style === 'swing') {
    const j = wrap(Math.max(1, 2 * n - 2))
    return single(moment(j < n ? j : 2 * n - 2 - j))
  }
  const over = loop.style === 'dissolve' ? Math.min(loop.over, n - 1) : 0
  const pass = n - over
  const j = wrap(pass)
  // From the second pass on, the end of the pass before is still going out.
  if (at < pass || j >= over) return single(moment(j))
  return { seconds: moment(pass + j), other: { seconds: moment(j), share: (j + 1) / (over + 1) } }
}

/** What a timing shows at a frame counted from the span's first one. */
export function momentAt(timing: Timing, frame: number, rate: Rate): Moment {
  if (timing.kind === 'freeze') return single(timing.at)
  if (timing.kind === 'loop') return loopMoment(timing, frame, rate)
  const step = frameToSeconds(1, rate) * timing.speed
  const seconds = timing.from + frameToSeconds(frame, rate) * timing.speed
  const { mixed } = timing
  if (mixed === null || Math.abs(step) >= mixed) return single(seconds)
  const whole = Math.floor((seconds + 1e-6) / mixed)
  const share = seconds / mixed - whole
  return share < 1e-3
    ? single(whole * mixed)
    : { seconds: whole * mixed, other: { seconds: (whole + 1) * mixed, share } }
}

/** A speed that can be: at least 1% and at most 10,000%, either way; null for what is no speed at all. */
export function possibleSpeed(speed: number): number | null {
  if (!Number.isFinite(speed) || speed === 0) return null
  const { least, most } = LIMITS.speed
  return Math.sign(speed) * Math.max(least, Math.min(most, Math.abs(speed)))
}

/** How fast a layer's source goes by; a still moment has no speed. */
export const speedOf = (timing: Timing): number => (timing.kind === 'freeze' ? 0 : timing.speed)

/** Seconds of a take's picture, or of its sound where it has none or only that is meant. A still lasts for ever. */
export function takeSeconds(take: Take, use: 'both' | 'picture' | 'sound' = 'both'): number {
  if (use !== 'sound' && take.picture?.kind === 'film') return take.picture.seconds
  if (use !== 'sound' && take.picture) return Number.POSITIVE_INFINITY
  return take.sound?.seconds ?? 0
}

/** Seconds that a layer's source has; a take that is not known has any number. */
export function sourceSeconds({ source }: Layer, takes: readonly Take[]): number {
  if (source.kind === 'group') return frameToSeconds(source.shot.length, source.shot.rate)
  const take = takes.find(t => t.digest === source.digest)
  return take ? takeSeconds(take, source.use) : Number.POSITIVE_INFINITY
}

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
