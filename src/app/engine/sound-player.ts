// Sounds the mix in step with a clock that the picture follows.
import type { Shot } from '../../core/shot'
import { frameToSample } from '../../core/time'
import { type Client, type MediaFile, soundClient } from '../../workers/clients'
import { shotSender } from '../../workers/shot-changes'
import type { SoundApi } from '../../workers/sound.worker'

const RATE = 48_000
/** Seconds of sound made at a time, and how far ahead of the ear. */
const PIECE = 0.5
const AHEAD = 1.5
/** Until the first piece sounds. */
const LEAD = 0.08
/** How soon a change is heard. */
const SOON = 0.12

const epoch = (): number => performance.timeOrigin + performance.now()

export interface SoundPlayer {
  addFiles(files: MediaFile[]): Promise<void>
  /** Starts at a frame, once `ready` is. `onClock` is told the epoch moment at which that frame is due: at the start, and as clocks drift. */
  play(shot: Shot, from: number, ready: Promise<unknown>, onClock: (due: number) => void): Promise<void>
  /** What is heard from now on, while it plays. */
  change(shot: Shot): void
  stop(): void
  /** The loudest of the last moment, left and right, 0..1. */
  levels(): [number, number]
  end(): void
}

export function soundPlayer(): SoundPlayer {
  let worker: Client<SoundApi> | null = null
  let context: AudioContext | null = null
  let playing = 0
  /** What sounds or will sound, with the moment of the context at which it begins. */
  const sources = new Map<AudioBufferSourceNode, number>()
  let mixed: Shot | null = null
  let sent: Shot | null = null
  const changesOf = shotSender()
  let hasChanged = false
  let meters: [AnalyserNode, AnalyserNode] | null = null
  const moment = new Float32Array(1024)

  function mixer(): Client<SoundApi>['call'] {
    worker ??= soundClient()
    return worker.call
  }

  /** The context, running; null where the browser gives no sound. */
  async function running(): Promise<AudioContext | null> {
    context ??= new AudioContext({ sampleRate: RATE, latencyHint: 'interactive' })
    if (context.state !== 'running') {
      const patience = new Promise(resolve => setTimeout(resolve, 400))
      await Promise.race([context.resume(), patience])
    }
    return context.state === 'running' ? context : null
  }

  let out: GainNode | null = null
  /** Where everything goes out: to the loudspeakers, and past a meter for either side. */
  function outlet(of: AudioContext): GainNode {
    if (out) return out
    out = of.createGain()
    out.connect(of.destination)
    const split = of.createChannelSplitter(2)
    out.connect(split)
    meters = [0, 1].map(side => {
      const meter = of.createAnalyser()
      meter.fftSize = moment.length
      split.connect(meter, side)
      return meter
    }) as [AnalyserNode, AnalyserNode]
    return out
  }

  function sound(of: AudioContext, sides: [Float32Array, Float32Array], at: number): void {
    const buffer = of.createBuffer(2, sides[0].length, RATE)
    buffer.copyToChannel(sides[0] as Float32Array<ArrayBuffer>, 0)
    buffer.copyToChannel(sides[1] as Float32Array<ArrayBuffer>, 1)
    const source = of.createBufferSource()
    source.buffer = buffer
    source.connect(outlet(of))
    // A piece that comes too late begins where it should be by now.
    const late = Math.max(0, of.currentTime - at)
    if (late >= buffer.duration) return
    source.onended = () => sources.delete(source)
    sources.set(source, at)
    source.start(at + late, late)
  }

  /** Takes back what would sound from a moment of the context on. */
  function silence(from: number): void {
    for (const [source, at] of sources) {
      source.stop(Math.max(at, from))
      if (at >= from) sources.delete(source)
    }
  }

  /** The epoch moment at which the context's clock shows `at`, when it is heard. */
  const heardAt = (of: AudioContext, at: number): number =>
    epoch() + (at - of.currentTime + (of.outputLatency || of.baseLatency || 0)) * 1000

  return {
    async addFiles(more) {
      await mixer().addFiles(more)
    },

    async play(shot, from, ready, onClock) {
      const mine = ++playing
      const mix = mixer()
      mixed = shot
      hasChanged = false
      const audio = await running()
      const length = frameToSample(shot.length, shot.rate, RATE)
      const first = frameToSample(from, shot.rate, RATE)
      const count = Math.round(PIECE * RATE)
      const next = async (at: number) => {
        // Only what has changed goes along.
        if (mixed && mixed !== sent) {
          sent = mixed
          await mix.setShot(changesOf(mixed))
        }
        return mix.mix(at, Math.min(count, length - at))
      }
      if (!audio) {
        await ready
        onClock(epoch() + LEAD * 1000)
        return
      }
      let piece = await next(first)
      await ready
      if (mine !== playing) return
      const start = audio.currentTime + LEAD
      onClock(heardAt(audio, start))
      const keepUp = async () => {
        let corrected = audio.currentTime
        for (let at = first; at < length; ) {
          sound(audio, piece, start + (at - first) / RATE)
          at += piece[0].length
          if (at >= length) return
          piece = await next(at)
          while (mine === playing && !hasChanged && start + (at - first) / RATE > audio.currentTime + AHEAD) {
            await new Promise(resolve => setTimeout(resolve, 100))
            if (audio.currentTime - corrected > 1 && mine === playing) {
              corrected = audio.currentTime
              onClock(heardAt(audio, start))
            }
          }
          if (mine !== playing) return
          if (hasChanged) {
            hasChanged = false
            const soon = Math.max(start, audio.currentTime + SOON)
            at = first + Math.ceil((soon - start) * RATE)
            if (at >= length) return
            piece = await next(at)
            if (mine !== playing) return
            silence(start + (at - first) / RATE)
          }
        }
      }
      keepUp().catch(error => console.error('The sound stopped:', error))
    },

    change(shot) {
      mixed = shot
      hasChanged = true
    },

    stop() {
      playing++
      silence(0)
      sources.clear()
    },

    levels() {
      const loudest = (meter: AnalyserNode | undefined): number => {
        if (!meter) return 0
        meter.getFloatTimeDomainData(moment)
        let most = 0
        for (const v of moment) most = Math.max(most, Math.abs(v))
        return most
      }
      return [loudest(meters?.[0]), loudest(meters?.[1])]
    },

    end() {
      this.stop()
      worker?.end()
      void context?.close()
    },
  }
}
