// The shot's sound: every layer's, at its place and gain.
import { isKeyed, sample } from '../keys'
import { sourceSeconds } from '../plan'
import type { Layer, Shot } from '../shot'
import { frameToSample } from '../time'

export interface SoundPart {
  digest: string
  /** Samples of the shot, to not included. */
  from: number
  to: number
  /** The take's sample that sounds at `from`. */
  start: number
  /** Gain at a sample of the shot. */
  gain: (at: number) => number
}

/** What sounds in a shot, at a sample rate. Layers that are off are silent; a group sounds as its layers do. */
export function soundParts(shot: Shot, sampleRate: number): SoundPart[] {
  return shot.layers.flatMap(layer => layerParts(layer, shot, sampleRate))
}

function layerParts(layer: Layer, shot: Shot, sampleRate: number): SoundPart[] {
  if (!layer.on || !layer.sound.on) return []
  const first = Math.max(0, layer.span.from)
  const from = frameToSample(first, shot.rate, sampleRate)
  const to = frameToSample(Math.min(shot.length, layer.span.to), shot.rate, sampleRate)
  if (to <= from) return []
  const start = Math.round(sourceSeconds(layer, first, shot.rate) * sampleRate)
  const { gain } = layer.sound
  const perSample = shot.rate.num / (shot.rate.den * sampleRate)
  const own = isKeyed(gain) ? (at: number) => sample(gain, at * perSample) : () => gain as number
  if (layer.source.kind === 'take') return [{ digest: layer.source.digest, from, to, start, gain: own }]
  // A part of the group at its sample s sounds at s + shift in the shot.
  const shift = from - start
  return soundParts(layer.source.shot, sampleRate).flatMap(part => {
    const begin = Math.max(from, part.from + shift)
    const end = Math.min(to, part.to + shift)
    if (end <= begin) return []
    const gainHere = (at: number) => own(at) * part.gain(at - shift)
    return [
      { digest: part.digest, from: begin, to: end, start: part.start + begin - (part.from + shift), gain: gainHere },
    ]
  })
}

export type ReadSound = (digest: string, from: number, count: number) => Promise<[Float32Array, Float32Array]>

/** Samples [from, from + count) of the shot's mix, left and right, clipped to -1..1. */
export async function mixdown(
  parts: readonly SoundPart[],
  from: number,
  count: number,
  read: ReadSound,
): Promise<[Float32Array, Float32Array]> {
  const out: [Float32Array, Float32Array] = [new Float32Array(count), new Float32Array(count)]
  for (const part of parts) {
    const begin = Math.max(from, part.from)
    const end = Math.min(from + count, part.to)
    if (end <= begin) continue
    const heard = await read(part.digest, part.start + begin - part.from, end - begin)
    for (let i = 0; i < end - begin; i++) {
      const gain = part.gain(begin + i)
      out[0][begin - from + i]! += heard[0][i]! * gain
      out[1][begin - from + i]! += heard[1][i]! * gain
    }
  }
  for (const side of out) for (let i = 0; i < count; i++) side[i] = Math.max(-1, Math.min(1, side[i]!))
  return out
}
