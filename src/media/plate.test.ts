// Plates of takes in which people are, through the real decoder, against what the set is when it is empty.
import { beforeAll, expect, it } from 'vitest'
import { nodeMedia } from '../cli/engine'
import type { Codes, Kernels } from '../core/render'
import { demoClip } from '../testing/clips'
import { testKernels } from '../testing/kernels'
import { countedFrames, type Frames } from './counted'
import { frameStore } from './frames'
import { platePicture, readPlate, settledPlate } from './plate'
import { Dropped } from './problem'

let k: Kernels
beforeAll(async () => {
  nodeMedia()
  k = await testKernels()
})

const SIZE = { width: 1280, height: 720 }
const FILM = { kind: 'film', size: SIZE, rate: { num: 30, den: 1 }, seconds: 6, varies: false } as const

async function opened(...names: string[]) {
  const frames = frameStore(k, 64 << 20)
  for (const name of names) frames.add(name, await demoClip(name))
  return { frames, takes: names.map(name => countedFrames(name, FILM)!) }
}

const bytesOf = ({ ptr, width, height }: Codes): Uint8Array => k.bytes(ptr, width * height * 4).slice()

it('makes an empty shop of two takes in each of which somebody stands all the time, in the light of the first, and says what it guessed', async () => {
  const { frames, takes } = await opened('clockmaker-right', 'clockmaker-left', 'empty-shop')
  const [right, left, empty] = takes
  const [set, both, one] = [
    await platePicture(k, frames, [empty!]),
    await platePicture(k, frames, [left!, right!]),
    await platePicture(k, frames, [left!]),
  ]
  const [truth, made] = [bytesOf(set.picture), bytesOf(both.picture)]
  expect(set.open).toBe(0)
  let off = 0
  for (let p = 0; p < truth.length; p += 4) {
    if (made[p + 3] === 0) continue
    off +=
      Math.abs(made[p]! - truth[p]!) + Math.abs(made[p + 1]! - truth[p + 1]!) + Math.abs(made[p + 2]! - truth[p + 2]!)
  }
  expect(off / (truth.length / 4) / 3).toBeLessThan(2)
  expect(both.open).toBeLessThan(0.01)
  // One who sways before the same place all the time leaves it a guess.
  expect(one.open).toBeGreaterThan(both.open)
  for (const { picture } of [set, both, one]) k.free(picture.ptr)
  await frames.close()
})

it('shows what is behind somebody who stood there for most of the take, and left', async () => {
  const { frames, takes } = await opened('before-the-panels')
  const small = { width: 640, height: 360 }
  const [made, truth] = [
    await settledPlate(k, frames, takes, small),
    await readPlate(k, frames, takes[0]!, { from: 5.3, to: 5.9 }, small, () => true),
  ]
  const off = made.luma.reduce((sum, value, p) => sum + (Math.abs(value - truth.luma[p]!) > 10 ? 1 : 0), 0)
  expect(off).toBeLessThan(20)
  await frames.close()
})

it('ends at a word', async () => {
  const { frames, takes } = await opened('empty-shop')
  await expect(platePicture(k, frames, takes, share => share < 0.3)).rejects.toThrow(Dropped)
  await frames.close()
})

it('reads a plate once for all who ask for it', async () => {
  const { frames, takes } = await opened('empty-shop')
  let asked = 0
  const counted: Frames = {
    get: (...args) => {
      asked++
      return frames.get(...args)
    },
    release: frames.release,
  }
  const read = (to: number) => readPlate(k, counted, takes[0]!, { from: 0, to }, SIZE, () => true)
  const first = await read(0.2)
  const once = asked
  const again = await read(0.2)
  expect(asked).toBe(once)
  for (const name of ['y', 'u', 'v', 'luma'] as const)
    expect(again[name].every((v, i) => v === first[name][i])).toBe(true)
  expect(again.y.buffer).not.toBe(first.y.buffer)
  await read(0.3)
  expect(asked).toBeGreaterThan(once)
  await frames.close()
})
