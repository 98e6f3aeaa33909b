// Mixes the shot's sound for playing.
import * as Comlink from 'comlink'
import type { Shot } from '../core/shot'
import { mixdown } from '../core/sound'
import { SAMPLE_RATE, soundStore } from '../media/sound'
import { type MediaFile, openFiles } from './media-files'
import { type ShotChanges, shotReceiver } from './shot-changes'

const sounds = soundStore()
const known = new Set<string>()
const received = shotReceiver()
let shot: Shot | null = null

const api = {
  async addFiles(files: MediaFile[]): Promise<void> {
    const fresh = files.filter(f => !known.has(f.digest))
    for (const { digest } of fresh) known.add(digest)
    await openFiles(fresh, { sounds })
  },

  /** What is mixed from now on. */
  setShot(changes: ShotChanges): void {
    shot = received(changes)
  },

  /** Samples [from, from + count) of the mix at 48 kHz. */
  async mix(from: number, count: number): Promise<[Float32Array, Float32Array]> {
    if (!shot) throw new Error('There is no shot to mix.')
    const sides = await mixdown(shot, SAMPLE_RATE, from, count, sounds.read)
    return Comlink.transfer(sides, [sides[0].buffer, sides[1].buffer])
  },
}

export type SoundApi = typeof api
Comlink.expose(api)
