// The shot's sound: every layer's, at its place, speed and gain.
import { isKeyed, sample } from '../keys'
import { type Layer, passLength, type Shot, type Timing } from '../shot'
import { frameToSample, frameToSeconds, type Rate } from '../time'
import { readAtSpeed } from './resample'

/** A stretch of a take as it sounds: samples are of the mix unless said otherwise. */
export interface SoundPart {
  digest: string
  from: number
  to: number
  /** The take's sample that sounds at `from`, and how many go by for each of the mix; negative backwards. */
  start: number
  speed: number
  /** Gain at a sample of the shot. */
  gain: (at: number) => number
}

const audible = (layer: Layer): boolean =>
  layer.on &&
  layer.sound.on &&
  layer.timing.kind !== 'freeze' &&
  (layer.source.kind === 'group' || layer.source.use !== 'picture')

/** Whether anything of a shot sounds at all, as far as the document tells. */
export const sounds = (shot: Shot): boolean =>
  shot.layers.some(l => audible(l) && (l.source.kind === 'take' || sounds(l.source.shot)))

/** The gain of a layer at a sample: its own value and its fades, which go sample by sample. */
function layerGain({ sound, span }: Layer, rate: Rate, sampleRate: number): (at: number) => number {
  const perSample = rate.num / (rate.den * sampleRate)
  const { gain, fade } = sound
  const own = isKeyed(gain) ? (at: number) => sample(gain, at * perSample) : () => gain as number
  if (fade.in === 0 && fade.out === 0) return own
  return at => {
    const frame = at * perSample
    const coming = fade.in > 0 ? (frame - span.from) / fade.in : 1
    const going = fade.out > 0 ? (span.to - frame) / fade.out : 1
    return own(at) * Math.max(0, Math.min(1, coming)) * Math.max(0, Math.min(1, going))
  }
}

/** A stretch of a layer in which its source goes by evenly: frames of its span, and what of the source they show. */
interface Even {
  from: number
  to: number
  seconds: number
  speed: number
  gain?: (at: number) => number
}

/** The even stretches of a timing that touch frames [from, to) of a span, whole. */
function evenStretches(
  timing: Timing,
  from: number,
  to: number,
  rate: Rate,
  sampleRate: number,
  begins: number,
): Even[] {
  if (timing.kind === 'freeze') return []
  const { speed } = timing
  if (timing.kind === 'play') {
    // Backwards a frame is heard from its end.
    const seconds = speed < 0 ? timing.from - frameToSeconds(1, rate) * speed : timing.from
    return [{ from: 0, to, seconds, speed }]
  }
  const n = passLength(timing, rate)
  const swing = timing.style === 'swing' && n > 1
  const over = timing.style === 'dissolve' ? Math.min(timing.over, n - 1) : 0
  // There and back is told as two passes, the way back without the frame at which it turns.
  const pass = swing ? n - 1 : n - over
  const stretches: Even[] = []
  for (let i = Math.floor((timing.begun + from) / pass) - 1; i * pass - timing.begun < to; i++) {
    const at = i * pass - timing.begun
    if (i < 0 || at + n <= from) continue
    const back = swing && i % 2 === 1
    const first = at
    const last = swing ? at + pass : at + n
    const shown = back ? n - 1 : 0
    const begin =
      speed > 0 ? timing.from + frameToSeconds(shown, rate) * speed : timing.to + frameToSeconds(shown, rate) * speed
    const fade = (edge: number) => frameToSample(begins + edge, rate, sampleRate)
    const [a, b, c, d] = [fade(at), fade(at + over), fade(at + n - over), fade(at + n)]
    const gain =
      over > 0 ? (s: number) => (i > 0 && s < b ? (s - a) / (b - a) : s >= c ? (d - s) / (d - c) : 1) : undefined
    stretches.push({ from: first, to: last, seconds: begin, speed: back ? -speed : speed, ...(gain && { gain }) })
  }
  return stretches
}

/** What sounds in samples [from, to) of a shot. Layers that are off are silent; a group sounds as its layers do. */
export function soundParts(shot: Shot, sampleRate: number, from: number, to: number): SoundPart[] {
  const first = Math.max(0, Math.floor((from * shot.rate.num) / (shot.rate.den * sampleRate)) - 1)
  const last = Math.min(shot.length, Math.ceil((to * shot.rate.num) / (shot.rate.den * sampleRate)) + 1)
  return shot.layers.flatMap(layer => layerParts(layer, shot, sampleRate, first, last))
}

function layerParts(layer: Layer, shot: Shot, sampleRate: number, first: number, last: number): SoundPart[] {
  const { rate } = shot
  const begin = Math.max(first, layer.span.from)
  const end = Math.min(last, layer.span.to)
  if (!audible(layer) || end <= begin) return []
  const own = layerGain(layer, rate, sampleRate)
  const { span, source } = layer
  const stretches = evenStretches(layer.timing, begin - span.from, end - span.from, rate, sampleRate, span.from)
  const [opens, closes] = [frameToSample(begin, rate, sampleRate), frameToSample(end, rate, sampleRate)]
  return stretches.flatMap(stretch => {
    // Counted from where the stretch begins, so that its samples are the same whatever part of it is asked for.
    const whole = frameToSample(span.from + stretch.from, rate, sampleRate)
    const at = stretch.seconds * sampleRate
    const begins = stretch.speed === 1 ? Math.round(at) : at
    const from = Math.max(opens, whole)
    const to = Math.min(closes, frameToSample(span.from + stretch.to, rate, sampleRate))
    if (to <= from) return []
    const start = begins + (from - whole) * stretch.speed
    const gain = stretch.gain ? (sample: number) => own(sample) * stretch.gain!(sample) : own
    const outer = { from, to, start, speed: stretch.speed, gain }
    return source.kind === 'take' ? [{ digest: source.digest, ...outer }] : groupParts(source.shot, sampleRate, outer)
  })
}

/** The parts of a group, moved to where and how fast it plays. */
function groupParts(group: Shot, sampleRate: number, outer: Omit<SoundPart, 'digest'>): SoundPart[] {
  const { from, to, start, speed } = outer
  const ends = start + (to - from) * speed
  const inner = soundParts(group, sampleRate, Math.floor(Math.min(start, ends)), Math.ceil(Math.max(start, ends)))
  return inner.flatMap(part => {
    // The group's sample s sounds at from + (s - start) / speed.
    const outside = (s: number) => from + (s - start) / speed
    const edges = [outside(part.from), outside(part.to)]
    const begin = Math.max(from, Math.ceil(Math.min(...edges) - 1e-6))
    const end = Math.min(to, Math.ceil(Math.max(...edges) - 1e-6))
    if (end <= begin) return []
    const within = (at: number) => start + (at - from) * speed
    return [
      {
        digest: part.digest,
        from: begin,
        to: end,
        start: part.start + (within(begin) - part.from) * part.speed,
        speed: part.speed * speed,
        gain: (at: number) => outer.gain(at) * part.gain(within(at)),
      },
    ]
  })
}

export type ReadSound = (digest: string, from: number, count: number) => Promise<[Float32Array, Float32Array]>

/** Samples [from, from + count) of the shot's mix, left and right, clipped to -1..1; the same however they are asked for. */
export async function mixdown(
  shot: Shot,
  sampleRate: number,
  from: number,
  count: number,
  read: ReadSound,
): Promise<[Float32Array, Float32Array]> {
  const out: [Float32Array, Float32Array] = [new Float32Array(count), new Float32Array(count)]
  for (const part of soundParts(shot, sampleRate, from, from + count)) {
    const begin = Math.max(from, part.from)
    const end = Math.min(from + count, part.to)
    if (end <= begin) continue
    const start = part.start + (begin - part.from) * part.speed
    const heard = await readAtSpeed((at, n) => read(part.digest, at, n), start, part.speed, end - begin)
    for (let i = 0; i < end - begin; i++) {
      const gain = part.gain(begin + i)
      out[0][begin - from + i]! += heard[0][i]! * gain
      out[1][begin - from + i]! += heard[1][i]! * gain
    }
  }
  for (const side of out) for (let i = 0; i < count; i++) side[i] = Math.max(-1, Math.min(1, side[i]!))
  return out
}
