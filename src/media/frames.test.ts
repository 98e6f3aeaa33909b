// Frames of films through the real decoder: held, and fetched ahead of where what is held ends.
import { beforeAll, expect, it } from 'vitest'
import { nodeMedia } from '../cli/engine'
import type { Kernels } from '../core/render'
import { demoClip } from '../testing/clips'
import { testKernels } from '../testing/kernels'
import { frameStore } from './frames'

let k: Kernels
beforeAll(async () => {
  nodeMedia()
  k = await testKernels()
})

it('are fetched where those that are held end, as long as that is near, and wait for nothing that is being decoded', async () => {
  const store = frameStore(k, 200 << 20)
  store.add('film', await demoClip('empty-shop'))
  const get = async (frame: number) => {
    const picture = await store.get('film', frame / 30)
    store.release(picture)
    return picture
  }
  for (let frame = 20; frame < 26; frame++) await get(frame)
  const one = store.used() / 6
  const grown = (frames: number) => expect.poll(() => Math.round(store.used() / one), { timeout: 20_000 }).toBe(frames)
  const lead = (frame: number) => store.lead('film', frame / 30, () => true)
  // The decoder stands at the end of them, and has only to go on.
  lead(20)
  await get(100)
  await grown(7)
  // Nothing is held there.
  lead(60)
  lead(5)
  lead(20)
  await grown(8)
  // While one far off is decoded, those that are held come at once.
  const order: string[] = []
  const far = get(150).then(() => order.push('far'))
  await get(26).then(() => order.push('held'))
  await far
  expect(order).toEqual(['held', 'far'])
  await grown(9)
  lead(24)
  lead(24)
  await grown(10)
  // The decoder is ahead by now, and stays there until it is needed.
  lead(25)
  expect((await get(27)).width).toBe(1280)
  await grown(10)
  // The last one has none after it.
  for (const frame of [178, 179]) await get(frame)
  lead(178)
  await get(179)
  await grown(12)
  await store.close()
})

it('are few as long as each is wanted once, and more when those that were given up are wanted again', async () => {
  const store = frameStore(k, 200 << 20, null, 8 << 20)
  store.add('film', await demoClip('empty-shop'))
  const through = async () => {
    for (let frame = 0; frame < 20; frame++) store.release(await store.get('film', frame / 30))
    return store.used() / 2 ** 20
  }
  expect(await through()).toBeLessThan(8)
  expect(await through()).toBeGreaterThan(20)
  // All of them are held by now.
  const whole = store.used()
  await through()
  expect(store.used()).toBe(whole)
  await store.close()
})
