// The shot's sound: every layer's, at its place, speed and gain.
import { isKeyed, sample } from '../keys'
import { fadeAt, insideOf, type Layer, type Pass, passesOf, type Shot, sourceKind, speedOf } from '../shot'
import { frameToSample, type Rate } from '../time'
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
  layer.on && layer.sound.on && speedOf(layer.timing) !== 0 && sourceKind(layer.source).hasSound(layer.source)

/** Whether anything of a shot sounds at all, as far as the document tells. */
export const sounds = (shot: Shot): boolean =>
  shot.layers.some(l => {
    const inside = insideOf(l.source)
    return audible(l) && (!inside || sounds(inside))
  })

/** The gain of a layer at a sample: its own value and its fades, which go sample by sample. */
function layerGain({ sound, span }: Layer, rate: Rate, sampleRate: number): (at: number) => number {
  const perSample = rate.num / (rate.den * sampleRate)
  const { gain, fade } = sound
  const own = isKeyed(gain) ? (at: number) => sample(gain, at * perSample) : () => gain as number
  if (fade.in === 0 && fade.out === 0) return own
  return at => own(at) * fadeAt(span, fade, at * perSample, 0)
}

/** The gain of a pass at a sample, where it dissolves into its neighbours; null where it does not. */
function passGain(pass: Pass, begins: number, rate: Rate, sampleRate: number): ((at: number) => number) | null {
  const { coming, going } = pass
  if (coming === 0 && going === 0) return null
  const edge = (frame: number) => frameToSample(begins + frame, rate, sampleRate)
  const [from, full, ebbs, gone] = [edge(pass.from), edge(pass.from + coming), edge(pass.to - going), edge(pass.to)]
  return at => (at < full ? (at - from) / (full - from) : at >= ebbs ? (gone - at) / (gone - ebbs) : 1)
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
  const [opens, closes] = [frameToSample(begin, rate, sampleRate), frameToSample(end, rate, sampleRate)]
  return passesOf(layer.timing, begin - span.from, end - span.from, rate).flatMap(pass => {
    // Counted from where the pass begins, so that its samples are the same whatever part of it is asked for.
    const whole = frameToSample(span.from + pass.from, rate, sampleRate)
    const at = pass.heard * sampleRate
    const begins = pass.speed === 1 ? Math.round(at) : at
    const from = Math.max(opens, whole)
    const to = Math.min(closes, frameToSample(span.from + pass.to, rate, sampleRate))
    if (to <= from) return []
    const start = begins + (from - whole) * pass.speed
    const dissolving = passGain(pass, span.from, rate, sampleRate)
    const gain = dissolving ? (sample: number) => own(sample) * dissolving(sample) : own
    const outer = { from, to, start, speed: pass.speed, gain }
    const inside = insideOf(source)
    if (inside) return groupParts(inside, sampleRate, outer)
    return sourceKind(source)
      .files(source)
      .map(digest => ({ digest, ...outer }))
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
