// Takes looked through: one of the demo against what its generator knows, and stills that are moved, lit and walked in by known amounts.
import { beforeAll, expect, it } from 'vitest'
import { footageFrame } from '../../demo/footage'
import { nodeMedia } from '../cli/engine'
import { findings, type Seen } from '../core/plate'
import type { Kernels } from '../core/render'
import { demoClip } from '../testing/clips'
import { testKernels } from '../testing/kernels'
import { frameStore } from './frames'
import { lookThrough } from './lock-off'
import { Dropped } from './problem'
import type { OpenSequence } from './sequence'

let k: Kernels
beforeAll(async () => {
  nodeMedia()
  k = await testKernels()
})

async function all(seen: AsyncIterable<Seen>): Promise<Seen[]> {
  const found: Seen[] = []
  for await (const one of seen) found.push(one)
  return found
}

const HALF_SECOND = { from: 0, to: 0.5 }

it('tells the light of a take, and how full it is of somebody, as its generator made them', async () => {
  const store = frameStore(k, 64 << 20)
  for (const name of ['clockmaker-right', 'empty-shop']) store.add(name, await demoClip(name))
  const take = { ...(await store.counted('clockmaker-right')), count: 5 }
  const seen = await all(lookThrough(k, store, take, { of: await store.counted('empty-shop'), ...HALF_SECOND }))
  const [truth, plate] = [footageFrame('clockmaker-right', 4), footageFrame('empty-shop', 4)]
  const share = truth.matte.reduce((sum, v) => sum + v / truth.matte.length, 0)
  expect(seen).toHaveLength(5)
  expect(Math.abs(seen[4]!.share - share)).toBeLessThan(share * 0.15)
  truth.exposure.forEach((e, c) => {
    expect(Math.abs(seen[4]!.gain[c]! / (e / plate.exposure[c]!) - 1)).toBeLessThan(0.006)
  })
  expect(Math.hypot(seen[4]!.movement.x, seen[4]!.movement.y)).toBeLessThan(0.05)
  await store.close()
})

const WIDE = { width: 1280, height: 720 }

/** A wall with enough on it to hold on to, smooth enough to be moved by parts of a px. */
const wall = (x: number, y: number): number =>
  110 + 40 * Math.sin(x * 0.05 + Math.sin(y * 0.021) * 3) + 30 * Math.cos(y * 0.043 + Math.sin(x * 0.017) * 2)

/** Fourteen frames: the camera is bumped at the sixth, and from the ninth somebody stands there. */
function bumped(): OpenSequence {
  const at = (frame: number) => {
    const data = new Uint8ClampedArray(WIDE.width * WIDE.height * 4).fill(255)
    const [dx, dy] = frame < 6 ? [0, 0] : [2.4, -1.3]
    const light = 1 - frame * 0.002
    for (let y = 0, i = 0; y < WIDE.height; y++) {
      for (let x = 0; x < WIDE.width; x++, i += 4) {
        const isThere = frame >= 9 && x > 500 && x < 640 && y > 200 && y < 640
        const v = isThere ? (x * 7 + y * 3) % 60 : wall(x + dx, y + dy) * light
        data[i] = v
        data[i + 1] = v
        data[i + 2] = v
      }
    }
    return { ...WIDE, data }
  }
  return {
    kind: 'sequence',
    name: 'bumped.zip',
    type: 'application/zip',
    rate: { num: 25, den: 1 },
    count: 14,
    decode: async (i: number) => at(i),
    close() {},
  } as unknown as OpenSequence
}

it('tells to a twentieth of a px where the camera stands, when somebody comes, and says so in words', async () => {
  const store = frameStore(k, 64 << 20)
  store.add('bumped', bumped())
  const take = await store.counted('bumped')
  const seen = await all(lookThrough(k, store, take, { of: take, from: 0, to: 0 }))
  for (const [frame, { movement }] of seen.entries()) {
    const [x, y] = frame < 6 ? [0, 0] : [2.4, -1.3]
    expect(Math.hypot(movement.x - x, movement.y - y)).toBeLessThan(0.05)
  }
  const share = (140 * 440) / (1280 * 720)
  for (const [frame, one] of seen.entries()) {
    expect(Math.abs(one.share - (frame < 9 ? 0 : share))).toBeLessThan(share * 0.3)
  }
  const said = findings(seen)
  expect(said.map(f => f.word)).toEqual(['bumped', '', 'nobody here', 'act 1', ''])
  // A made picture has none.
  expect(said[4]!.sentence).toMatch(/^Its grain is 0\.\d codes in the dark/)
  expect(said[0]).toMatchObject({ from: 6, advice: 'steady', sentence: expect.stringContaining('2.7 px') })
  expect(said.slice(2, 4).map(f => [f.from, f.to, f.advice])).toEqual([
    [0, 8, 'plate'],
    [9, 13, 'acts'],
  ])
  let wanted = true
  const dropped = lookThrough(k, store, take, null, () => wanted)
  await dropped.next()
  wanted = false
  await expect(dropped.next()).rejects.toBeInstanceOf(Dropped)
  await store.close()
})
