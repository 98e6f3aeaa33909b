// How loud the sound of a film is, as it is decoded.
import { AudioSampleSink, type InputAudioTrack } from 'mediabunny'
import { PEAKS_A_SECOND, peaksOf } from '../core/sound'

/** Seconds that are told at once. */
const STRETCH = 5

/** `PEAKS_A_SECOND` bytes a second, a stretch at a time, in order. */
export async function* loudness(sound: InputAudioTrack): AsyncGenerator<Uint8Array> {
  const rate = await sound.getSampleRate()
  const meter = peaksOf(rate)
  let told = 0
  for await (const sample of new AudioSampleSink(sound).samples()) {
    for (let planeIndex = 0; planeIndex < sample.numberOfChannels; planeIndex++) {
      const data = new Float32Array(sample.numberOfFrames)
      sample.copyTo(data, { planeIndex, format: 'f32-planar' })
      meter.add(data, Math.round(sample.timestamp * rate))
    }
    sample.close()
    if (meter.length() - told <= PEAKS_A_SECOND * STRETCH) continue
    const peaks = meter.slice(told)
    told += peaks.length
    yield peaks
  }
  yield meter.slice(told)
}
