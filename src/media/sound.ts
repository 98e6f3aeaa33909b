// Sound of takes as 48 kHz stereo, decoded in order and kept in blocks of a second.
import { type AudioSample, AudioSampleSink } from 'mediabunny'
import { resampler, toStereo } from '../core/sound'
import type { OpenMedia } from './open'

export const SAMPLE_RATE = 48_000
const BLOCK = SAMPLE_RATE
/** Blocks kept a take: two minutes, some 46 MB. */
const KEPT = 120

export interface SoundStore {
  add(digest: string, media: OpenMedia): void
  /** `count` stereo samples (left, then right) of a take from sample `from` at 48 kHz on; silence outside it. */
  read(digest: string, from: number, count: number): Promise<[Float32Array, Float32Array]>
}

type Block = [Float32Array, Float32Array]

/** Stereo at the file's own rate, samples [from, from + count). */
async function decodeOwn(sink: AudioSampleSink, rate: number, from: number, count: number): Promise<Block> {
  const out: Block = [new Float32Array(count), new Float32Array(count)]
  const put = (sample: AudioSample) => {
    const n = sample.numberOfFrames
    const channels = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const data = new Float32Array(n)
      sample.copyTo(data, { planeIndex, format: 'f32-planar' })
      return data
    })
    const stereo = toStereo(channels)
    const at = Math.round(sample.timestamp * rate) - from
    const skip = Math.max(0, -at)
    const end = Math.min(n, count - at)
    for (const side of [0, 1] as const) if (end > skip) out[side].set(stereo[side].subarray(skip, end), at + skip)
  }
  for await (const sample of sink.samples(Math.max(0, from / rate), (from + count) / rate)) {
    put(sample)
    sample.close()
  }
  return out
}

export function soundStore(): SoundStore {
  const takes = new Map<string, { sink: AudioSampleSink; rate: Promise<number>; blocks: Map<number, Promise<Block>> }>()

  async function makeBlock(sink: AudioSampleSink, rate: number, index: number): Promise<Block> {
    if (rate === SAMPLE_RATE) return decodeOwn(sink, rate, index * BLOCK, BLOCK)
    const { from, count, run } = resampler(rate, SAMPLE_RATE, index * BLOCK, BLOCK)
    const own = await decodeOwn(sink, rate, from, count)
    return [run(own[0]), run(own[1])]
  }

  return {
    add(digest, media) {
      const sound = media.kind === 'film' ? media.sound : null
      if (sound) takes.set(digest, { sink: new AudioSampleSink(sound), rate: sound.getSampleRate(), blocks: new Map() })
    },
    async read(digest, from, count) {
      const out: Block = [new Float32Array(count), new Float32Array(count)]
      const take = takes.get(digest)
      if (!take) return out
      const rate = await take.rate
      for (let index = Math.max(0, Math.floor(from / BLOCK)); index * BLOCK < from + count; index++) {
        let block = take.blocks.get(index)
        if (!block) {
          block = makeBlock(take.sink, rate, index)
          take.blocks.set(index, block)
          block.catch(() => take.blocks.delete(index))
          if (take.blocks.size > KEPT) take.blocks.delete(take.blocks.keys().next().value!)
        }
        const [left, right] = await block
        const start = Math.max(from, index * BLOCK)
        const end = Math.min(from + count, (index + 1) * BLOCK)
        out[0].set(left.subarray(start - index * BLOCK, end - index * BLOCK), start - from)
        out[1].set(right.subarray(start - index * BLOCK, end - index * BLOCK), start - from)
      }
      return out
    },
  }
}
