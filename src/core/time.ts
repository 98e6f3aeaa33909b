// Frames are whole numbers in a rational rate; media time is seconds.

export interface Rate {
  /** Frames in den seconds, e.g. 30000 / 1001. */
  readonly num: number
  readonly den: number
}

/** Frames from (included) to (not included). */
export interface Span {
  readonly from: number
  readonly to: number
}

const STANDARD: readonly Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
  { num: 120, den: 1 },
]

/** Frames per second as a number; for display and rough sums only. */
export const fps = (rate: Rate): number => rate.num / rate.den

/** Start of a frame in seconds. */
export const frameToSeconds = (frame: number, rate: Rate): number => (frame * rate.den) / rate.num

/** The frame showing at a moment: the last one that has begun. Rounding of the seconds by up to a microsecond is forgiven. */
export const secondsToFrame = (seconds: number, rate: Rate): number =>
  Math.floor(((seconds + 1e-6) * rate.num) / rate.den)

/** How many frames cover a length of media: at least one, a last sliver under a tenth of a frame not counted. */
export const framesIn = (seconds: number, rate: Rate): number =>
  Math.max(1, Math.ceil((seconds * rate.num) / rate.den - 0.1))

/** First sound sample of a frame. Exact for every rate: neighbouring frames share no sample and leave none out. */
export const frameToSample = (frame: number, rate: Rate, sampleRate: number): number =>
  Math.round((frame * rate.den * sampleRate) / rate.num)

/** The standard rate within 0.05% of a measured one, or the measured one in thousandths. */
export function nearestRate(framesPerSecond: number): Rate {
  const near = STANDARD.filter(r => Math.abs(fps(r) / framesPerSecond - 1) < 0.0005)
  near.sort((a, b) => Math.abs(fps(a) - framesPerSecond) - Math.abs(fps(b) - framesPerSecond))
  return near[0] ?? { num: Math.max(1, Math.round(framesPerSecond * 1000)), den: 1000 }
}

/** Rates that shots are made in besides the standard ones: of animation, of cheap cameras, of slow motion. */
const USED: readonly Rate[] = [
  ...STANDARD,
  ...[5, 6, 8, 10, 12, 15, 18, 20, 72, 90, 100, 200, 240].map(num => ({ num, den: 1 })),
  { num: 25, den: 2 },
]

/** The rate in use that is nearest to another, by their ratio. */
export function rateInUse(framesPerSecond: number): Rate {
  const far = (r: Rate) => Math.abs(Math.log(fps(r) / framesPerSecond))
  return USED.reduce((best, r) => (far(r) < far(best) ? r : best))
}

export const spanLength = (span: Span): number => span.to - span.from
export const inSpan = (frame: number, span: Span): boolean => frame >= span.from && frame < span.to

/** Whole seconds and the frames beyond them; where a frame lasts longer than a second there are none beyond. */
function parted(frame: number, rate: Rate): { seconds: number; frames: number } {
  const whole = Math.round(fps(rate))
  if (whole < 1) return { seconds: Math.floor(frameToSeconds(frame, rate)), frames: 0 }
  return { seconds: Math.floor(frame / whole), frames: frame % whole }
}

/** `2 s 17 f`-like counter text, fixed width: minutes, seconds and frames, e.g. `00:02:17`. */
export function counter(frame: number, rate: Rate): string {
  const two = (n: number) => String(n).padStart(2, '0')
  const { seconds, frames } = parted(frame, rate)
  return `${two(Math.floor(seconds / 60))}:${two(seconds % 60)}:${two(frames)}`
}

/** A rate as people write it: `25`, `29.97`. */
export const rateText = (rate: Rate): string => String(Number(fps(rate).toFixed(3)))

/** A length as people say it: `6 s 04 f`. */
export function lengthText(frames: number, rate: Rate): string {
  const { seconds, frames: rest } = parted(frames, rate)
  return `${seconds} s ${String(rest).padStart(2, '0')} f`
}
