// What is heard while playing, with a clock and a mixer of our own in the place of the browser's.
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { edits, type Shot } from '../../core/shot'
import { testLayer, testShot } from '../../testing/documents'
import { type ShotChanges, shotReceiver } from '../../workers/shot-changes'
import { soundPlayer } from './sound-player'

interface Sounding {
  from: number
  to: number
  value: number
}

let now = 0
let sounding: Sounding[] = []

/** A context whose clock is set by the test and that notes what would sound when. */
class Context {
  state = 'running'
  baseLatency = 0
  outputLatency = 0
  destination = {}
  get currentTime() {
    return now
  }
  createGain = () => ({ connect() {} })
  createChannelSplitter = () => ({ connect() {} })
  createAnalyser = () => ({ fftSize: 0, getFloatTimeDomainData() {} })
  createBuffer = (_: number, length: number, rate: number) => {
    const buffer = {
      duration: length / rate,
      value: 0,
      copyToChannel(data: Float32Array) {
        buffer.value = data[0]!
      },
    }
    return buffer
  }
  createBufferSource() {
    const own: Sounding = { from: 0, to: 0, value: 0 }
    const source = {
      buffer: null as { duration: number; value: number } | null,
      connect() {},
      onended: null,
      start(at: number, offset: number) {
        Object.assign(own, { from: at, to: at - offset + source.buffer!.duration, value: source.buffer!.value })
        sounding.push(own)
      },
      stop(at: number) {
        own.to = Math.min(own.to, Math.max(own.from, at))
      },
    }
    return source
  }
  async close() {}
}

/** A mixer whose samples are the gain of the shot's first layer. */
class Mixer {
  onmessage: ((event: { data: unknown }) => void) | null = null
  listeners = new Set<(event: { data: unknown }) => void>()
  addEventListener(_: string, heard: (event: { data: unknown }) => void) {
    this.listeners.add(heard)
  }
  removeEventListener(_: string, heard: (event: { data: unknown }) => void) {
    this.listeners.delete(heard)
  }
  terminate() {}
  received = shotReceiver()
  shot: Shot | null = null
  postMessage({ id, path, argumentList }: { id: string; path: string[]; argumentList: { value: unknown }[] }) {
    const args = argumentList.map(a => a.value)
    if (path[0] === 'setShot') this.shot = this.received(args[0] as ShotChanges)
    const { sound } = this.shot!.layers[0]!
    const value = sound.on ? (sound.gain as number) : 0
    const sides = path[0] === 'mix' ? [0, 1].map(() => new Float32Array(args[1] as number).fill(value)) : undefined
    queueMicrotask(() => {
      for (const heard of this.listeners) heard({ data: { id, type: 'RAW', value: sides } })
    })
  }
}

/** What is heard at a moment, however many things sound. */
const heardAt = (moment: number): number[] => sounding.filter(s => moment >= s.from && moment < s.to).map(s => s.value)

beforeEach(() => {
  now = 0
  vi.useFakeTimers()
  sounding = []
  vi.stubGlobal('AudioContext', Context)
  vi.stubGlobal('Worker', Mixer)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const passed = async (until: number) => {
  while (now < until) {
    now += 0.05
    // The clock of the page goes with that of the sound, however slow the machine.
    await vi.advanceTimersByTimeAsync(50)
  }
}

it('a mute or another gain is heard at once while it plays, without a gap or a double', async () => {
  const shot = testShot([testLayer(0)])
  const player = soundPlayer()
  await player.play(shot, 0, Promise.resolve(), () => {})
  await passed(1)
  const quiet = structuredClone(shot)
  edits.setValue(quiet, 'layer-0', { of: 'gain' }, 0, 0.25)
  player.change(quiet)
  const changedAt = now
  await passed(2)
  const muted = structuredClone(shot)
  edits.soundLayers(muted, ['layer-0'], false)
  player.change(muted)
  const mutedAt = now
  await passed(3)
  expect(heardAt(changedAt - 0.1)).toEqual([1])
  expect(heardAt(changedAt + 0.5)).toEqual([0.25])
  expect(heardAt(mutedAt + 0.5)).toEqual([0])
  for (let t = 0.2; t < 2.9; t += 0.03) expect(heardAt(t)).toHaveLength(1)
  player.stop()
  expect(heardAt(now + 0.1)).toEqual([])
  player.end()
})
