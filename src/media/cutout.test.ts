// Cut-outs of the demo's footage, through the real decoder, against what its generator knows.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { footageFrame } from '../../demo/footage'
import { nodeMedia } from '../cli/engine'
import { cutoutRecipe } from '../core/plate'
import type { Codes, Kernels } from '../core/render'
import { demoClip } from '../testing/clips'
import { testKernels } from '../testing/kernels'
import { type FrameStore, frameStore } from './frames'
import { readPlate } from './plate'
import { packedLength, packRuns, unpackRuns } from './runs'

let k: Kernels
beforeAll(async () => {
  nodeMedia()
  k = await testKernels()
})

const SIZE = 1280 * 720
const CUT = { plate: 'empty-shop', from: 0, to: 0.2, sensitive: 50, shadow: 100 }
const RECIPE = cutoutRecipe('clockmaker-left', CUT)

async function opened(...names: string[]): Promise<FrameStore> {
  const store = frameStore(k, 64 << 20)
  for (const name of names) store.add(name, await demoClip(name))
  return store
}

/** How much of each px is covered, 0..255. */
async function partAt(store: FrameStore, part: string, frame: number, recipe = RECIPE): Promise<Uint8Array> {
  const picture = (await store.derived({ recipe, part, seconds: frame / 30 })) as Codes
  const alpha = k.bytes(picture.ptr, SIZE * 4).filter((_, i) => i % 4 === 3)
  store.release(picture)
  return alpha
}

it('cuts the clockmaker out of his shop within two in a thousand, his shadow apart, whichever frame is asked for first', async () => {
  const store = await opened('clockmaker-left', 'empty-shop')
  const truth = footageFrame('clockmaker-left', 75)
  const alpha = await partAt(store, 'alpha', 75)
  const shadow = await partAt(store, 'shadow', 75)
  let error = 0
  let most = 0
  let taken = 0
  let count = 0
  for (let i = 0; i < SIZE; i++) {
    error += Math.abs(alpha[i]! / 255 - truth.matte[i]!)
    if (truth.matte[i]! > 0.5) continue
    if (truth.matte[i]! === 0 && truth.shadow[i]! > 0.2 && i > 320 * 1280) {
      count++
      taken += Math.abs(shadow[i]! / 255 - truth.shadow[i]!)
      if (alpha[i]! > 25) most++
    }
  }
  expect(error / SIZE).toBeLessThan(0.002)
  expect(most / count).toBeLessThan(0.03)
  expect(taken / count).toBeLessThan(0.06)
  await store.close()

  const other = await opened('clockmaker-left', 'empty-shop')
  await partAt(other, 'alpha', 73)
  expect(await partAt(other, 'alpha', 75)).toEqual(alpha)
  await other.close()
})

it('gives the dark leg before the joints of the cobbles a colour of its own, not that of the coat above it', async () => {
  const store = await opened('dusk-walk')
  const recipe = cutoutRecipe('dusk-walk', { ...CUT, plate: 'dusk-walk' })
  const alpha = await partAt(store, 'alpha', 125, recipe)
  const picture = (await store.derived({ recipe, part: 'colours', seconds: 125 / 30 })) as Codes
  const own = k.bytes(picture.ptr, SIZE * 4)
  let [soft, golden] = [0, 0]
  for (let y = 566; y < 582; y++) {
    for (let x = 848; x < 872; x++) {
      const i = y * 1280 + x
      if (alpha[i]! < 20 || alpha[i]! > 250) continue
      soft++
      if (own[i * 4]! - own[i * 4 + 2]! > 40) golden++
    }
  }
  store.release(picture)
  await store.close()
  expect(soft).toBeGreaterThan(60)
  expect(golden / soft).toBeLessThan(0.05)
})

it('packs mattes as runs, and unpacks them', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 1, max: 70_000 })), { maxLength: 4 }),
      runs => {
        const bytes = Uint8Array.from(runs.flatMap(([value, count]) => Array<number>(count).fill(value)))
        const packed = packRuns(bytes)
        expect(packedLength(packed)).toBe(bytes.length)
        const out = new Uint8Array(bytes.length).fill(7)
        unpackRuns(packed, out)
        expect(Buffer.compare(out, bytes)).toBe(0)
      },
    ),
    { numRuns: 40 },
  )
})

it('cuts nothing out where there is no memory for it, and says so', async () => {
  const plate = { digest: 'plate', rate: null, count: 1 }
  const never = { get: () => Promise.reject(new Error('nobody asks')), release() {} }
  for (const size of [
    { width: 8192, height: 8192 },
    { width: 640, height: 360 },
  ]) {
    const starved = { ...k, apart: () => Promise.reject(new RangeError('could not allocate memory')) }
    const read = readPlate(starved, never, { ...plate, size }, { from: 0, to: 0 }, size, () => true)
    await expect(read).rejects.toThrow(`not enough memory to cut pictures of ${size.width}×${size.height}`)
  }
  const [take, size] = [
    { ...plate, size: { width: 640, height: 360 } },
    { width: 480, height: 360 },
  ]
  await expect(readPlate(k, never, take, { from: 0, to: 0 }, size, () => true)).rejects.toThrow(/another shape/)
})

it('says what is wrong with a plate of another shape, and gives up when nobody wants it any more', async () => {
  const store = await opened('clockmaker-left', 'empty-shop')
  const needed = { recipe: RECIPE, part: 'alpha', seconds: 2 }
  await expect(store.derived(needed, () => false)).rejects.toMatchObject({ name: 'Dropped' })
  await expect(store.derived({ ...needed, recipe: { ...RECIPE, method: 'guess' } })).rejects.toThrow(
    /nothing here knows/,
  )
  const gone = cutoutRecipe('clockmaker-left', { ...CUT, plate: 'nowhere' })
  await expect(store.derived({ ...needed, recipe: gone })).rejects.toThrow(/picture that can be cut out/)
  await store.close()
})
