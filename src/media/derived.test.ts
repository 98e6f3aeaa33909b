// Pictures that are made by recipe, of stills whose every px is known.
import { beforeAll, describe, expect, it } from 'vitest'
import { cutoutRecipe } from '../core/plate'
import { recipeKey } from '../core/recipe'
import type { Codes, Kernels } from '../core/render'
import { makeLayer, makePiece, type Size } from '../core/shot'
import { testShot, testTake } from '../testing/documents'
import { testKernels } from '../testing/kernels'
import { type FramePlace, packFrame, unpackTold } from './derived-frame'
import { exportFrame } from './export'
import { type FrameStore, frameStore } from './frames'
import type { OpenStill } from './open'
import type { OpenSequence } from './sequence'
import type { StillPixels } from './still'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const COUNT = 10

/** A wall of stains, as large as it is asked for. */
const wall = (x: number, y: number): readonly [number, number, number] => [
  130 + 40 * Math.sin(x * 0.11) + 12 * Math.sin(y * 0.4),
  110 + 30 * Math.cos(y * 0.09 + x * 0.03),
  90 + 20 * Math.sin((x + y) * 0.07),
]

/** Where somebody stands at a frame: a box that walks. */
const isThere = (x: number, y: number, frame: number): boolean =>
  x >= 30 + frame * 4 && x < 62 + frame * 4 && y >= 30 && y < 80

/** Pixels of a picture of some size of what is told in px of 160×96. */
function picture(
  { width, height }: Size,
  at: (x: number, y: number) => readonly [number, number, number],
): StillPixels {
  const data = new Uint8ClampedArray(width * height * 4).fill(255)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const colour = at(((x + 0.5) * 160) / width - 0.5, ((y + 0.5) * 96) / height - 0.5)
      for (let c = 0; c < 3; c++) data[(y * width + x) * 4 + c] = colour[c]!
    }
  }
  return { width, height, data }
}

const still = (size: Size, at = wall): OpenStill => ({
  kind: 'still',
  name: 'plate.png',
  type: 'image/png',
  decode: async () => picture(size, at),
  close() {},
})

/** Somebody of a colour before the wall, ten frames, 25 a second; how often they were decoded is counted. */
function walk(size: Size, colour: readonly [number, number, number]): OpenSequence & { decoded: number } {
  const take = {
    kind: 'sequence' as const,
    name: 'walk.zip',
    type: 'application/zip',
    rate: { num: 25, den: 1 },
    count: COUNT,
    decoded: 0,
    async decode(i: number) {
      take.decoded++
      return picture(size, (x, y) => (isThere(Math.round(x), Math.round(y), i) ? colour : wall(x, y)))
    },
    close() {},
  }
  return take as unknown as OpenSequence & { decoded: number }
}

const cut = (take: string, plate = 'plate') => cutoutRecipe(take, { plate, from: 0, to: 0, sensitive: 50, shadow: 100 })

async function partAt(store: FrameStore, take: string, frame: number, part = 'alpha', plate = 'plate') {
  const found = (await store.derived({ recipe: cut(take, plate), part, seconds: frame / 25 })) as Codes
  const alpha = k.bytes(found.ptr, found.width * found.height * 4).filter((_, i) => i % 4 === 3)
  store.release(found)
  return { ...found, alpha }
}

const RED = [210, 40, 40] as const
const BLUE = [40, 60, 230] as const

describe('a picture made by recipe', () => {
  it('is written as the matte of its layer, and shows nothing of the wall over something else', async () => {
    const size = { width: 160, height: 96 }
    const store = frameStore(k, 16 << 20)
    store.add(testTake(0).digest, walk(size, RED))
    store.add(testTake(2).digest, still(size))
    const shape = {
      kind: 'cutout',
      cut: { plate: testTake(2).digest, from: 0, to: 0, sensitive: 50, shadow: 100 },
    } as const
    const layer = {
      ...makeLayer(testTake(0), size, { num: 25, den: 1 }),
      id: 'her',
      matte: [makePiece(shape)],
    }
    const shot = {
      ...testShot([{ ...layer, place: { x: 80, y: 48, scale: 1, angle: 0 }, anchor: { x: 80, y: 48 } }]),
      size,
    }
    const written = async (matte?: string) => {
      const made = await exportFrame(k, store, { shot, scale: 1, ...(matte && { matte }) }, 5)
      const codes = k.bytes(made.ptr, 160 * 96 * 4).slice()
      k.free(made.ptr)
      return (x: number, y: number) => [...codes.slice((y * 160 + x) * 4, (y * 160 + x) * 4 + 3)]
    }
    const matte = await written('her')
    expect([matte(66, 55), matte(20, 20), matte(120, 60)]).toEqual([
      [255, 255, 255],
      [0, 0, 0],
      [0, 0, 0],
    ])
    const picture = await written()
    expect(picture(66, 55)).toEqual([...RED])
    expect(picture(20, 20)).toEqual([0, 0, 0])
    // Along the border there is red or black, and next to nothing of the wall's green.
    const green = Array.from({ length: 40 }, (_, i) => [48, 49, 50, 81, 82, 83].map(x => picture(x, 35 + i)[1]!)).flat()
    expect(green.reduce((sum, v) => sum + v, 0) / green.length).toBeLessThan(45)
    await store.close()
  })

  it.each([
    [
      { width: 160, height: 96 },
      { width: 160, height: 96 },
    ],
    [
      { width: 160, height: 96 },
      { width: 320, height: 192 },
    ],
    [
      { width: 161, height: 97 },
      { width: 161, height: 97 },
    ],
  ])('covers whoever walks before a plate, take %o, plate %o', async (size, plate) => {
    const store = frameStore(k, 16 << 20)
    store.add('red', walk(size, RED))
    store.add('plate', still(plate))
    const { width, height, alpha } = await partAt(store, 'red', 5)
    expect({ width, height }).toEqual(size)
    const at = (x: number, y: number) => alpha[y * width + x]!
    expect([at(66, 55), at(60, 40), at(75, 70)]).toEqual([255, 255, 255])
    expect([at(30, 55), at(110, 55), at(66, 10), at(66, 92)]).toEqual([0, 0, 0, 0])
    expect(Math.max(...(await partAt(store, 'red', 5, 'shadow')).alpha)).toBeLessThan(30)
    await store.close()
  })

  it('is the same in turn with another as alone, and made but once', async () => {
    const size = { width: 160, height: 96 }
    const [red, blue] = [walk(size, RED), walk(size, BLUE)]
    const store = frameStore(k, 16 << 20)
    store.add('red', red)
    store.add('blue', blue)
    store.add('plate', still(size))
    const inTurn = []
    for (const frame of [0, 7, 3]) {
      for (const take of ['red', 'blue']) inTurn.push((await partAt(store, take, frame)).alpha)
    }
    const before = red.decoded + blue.decoded
    store.clear()
    const again = []
    for (const frame of [0, 7, 3]) {
      for (const take of ['red', 'blue']) again.push((await partAt(store, take, frame)).alpha)
    }
    expect(again).toEqual(inTurn)
    expect(red.decoded + blue.decoded).toBe(before)
    await store.close()
    const alone = frameStore(k, 16 << 20)
    alone.add('blue', walk(size, BLUE))
    alone.add('plate', still(size))
    expect((await partAt(alone, 'blue', 3)).alpha).toEqual(inTurn[5])
    await alone.close()
  })

  it('is looked up where it is kept, and made again where that is damaged or of another size', async () => {
    const size = { width: 160, height: 96 }
    const kept = new Map<string, Uint8Array>()
    const place: FramePlace = {
      get: async (recipe, index) => kept.get(`${recipeKey(recipe)} ${index}`) ?? null,
      put: async (recipe, index, packed) => void kept.set(`${recipeKey(recipe)} ${index}`, packed),
    }
    const opened = () => {
      const take = walk(size, RED)
      const store = frameStore(k, 16 << 20, place)
      store.add('red', take)
      store.add('plate', still(size))
      return { take, store }
    }
    const first = opened()
    const { alpha } = await partAt(first.store, 'red', 5)
    await first.store.close()
    expect([...kept.keys()].map(key => key.slice(-2))).toEqual(Array.from({ length: 6 }, (_, i) => ` ${i}`))
    const told = unpackTold(kept.get(`${recipeKey(cut('red'))} 5`)!)
    expect(told.unsure).toBeGreaterThanOrEqual(0)
    const again = opened()
    expect((await partAt(again.store, 'red', 5)).alpha).toEqual(alpha)
    // Once, to tell its size.
    expect(again.take.decoded).toBe(1)
    await again.store.close()
    const name = `${recipeKey(cut('red'))} 5`
    const whole = kept.get(name)!
    const small = packFrame({ index: 5, parts: { alpha: new Uint8Array(12) }, colours: new Uint8Array(), told: {} })
    for (const damaged of [whole.subarray(0, 40), Uint8Array.of(1, 2, 3), small]) {
      kept.set(name, damaged)
      const mended = opened()
      expect((await partAt(mended.store, 'red', 5)).alpha).toEqual(alpha)
      expect(Buffer.compare(kept.get(name)!, whole)).toBe(0)
      await mended.store.close()
    }
    expect(unpackTold(Uint8Array.of(1, 2, 3))).toEqual({})
  })

  it('is made of no more frames than lead to it, on from the last one, and by eights for whoever goes to and fro', async () => {
    const size = { width: 160, height: 96 }
    const opened = () => {
      const made: number[] = []
      const place: FramePlace = { get: async () => null, put: async (_, index) => void made.push(index) }
      const store = frameStore(k, 16 << 20, place)
      store.add('red', walk(size, RED))
      store.add('plate', still(size))
      return { store, made }
    }
    const [one, other] = [opened(), opened()]
    const alphas = new Map<number, Uint8Array>()
    const steps: number[][] = []
    for (const frame of [2, 4, 9, 5, 7]) {
      const before = one.made.length
      alphas.set(frame, (await partAt(one.store, 'red', frame)).alpha)
      steps.push(one.made.slice(before))
    }
    expect(steps).toEqual([[0, 1, 2], [3, 4], [8, 9], [0, 1, 2, 3, 4, 5, 6, 7], []])
    for (const frame of [7, 9, 5, 4, 2])
      expect((await partAt(other.store, 'red', frame)).alpha).toEqual(alphas.get(frame))
    await Promise.all([one.store.close(), other.store.close()])
  })

  it('is the same told another way in between, by the same plate, which is read but once', async () => {
    const size = { width: 160, height: 96 }
    const ways = [50, 95, 5].map(sensitive => ({ plate: 'plate', from: 0, to: 0, sensitive, shadow: 100 }))
    const strokes = [{ at: 3 / 25, does: 'keep', size: 8, points: [{ x: 20, y: 20 }] } as const]
    const all = [...ways, { ...ways[0]!, strokes }]
    const made = async (asked: readonly (readonly [number, number])[]) => {
      const plate = { ...still(size), read: 0 }
      plate.decode = async () => {
        plate.read++
        return picture(size, wall)
      }
      const store = frameStore(k, 16 << 20)
      // A grey that is next to the wall's own.
      store.add('grey', walk(size, [128, 112, 92]))
      store.add('plate', plate)
      const out = new Map<string, Uint8Array>()
      for (const [way, frame] of asked) {
        const recipe = cutoutRecipe('grey', all[way]!, frame / 25)
        const found = (await store.derived({ recipe, part: 'alpha', seconds: frame / 25 })) as Codes
        out.set(`${way} ${frame}`, k.bytes(found.ptr, 160 * 96 * 4).slice())
        store.release(found)
      }
      await store.close()
      return { out, read: plate.read }
    }
    const asked = [0, 1, 2, 3].flatMap(way => [3, 6, 4].map(frame => [way, frame] as const))
    const mixed = await made([...asked].sort((a, b) => a[1] - b[1]))
    for (const way of all.keys()) {
      const alone = await made([[way, 4]])
      expect(mixed.out.get(`${way} 4`)).toEqual(alone.out.get(`${way} 4`))
      expect(mixed.read).toBe(alone.read)
    }
    expect(mixed.out.get('0 4')).not.toEqual(mixed.out.get('1 4'))
  })

  it('keeps and loses what was painted, on that frame for certain', async () => {
    const size = { width: 160, height: 96 }
    const store = frameStore(k, 16 << 20)
    store.add('red', walk(size, RED))
    store.add('plate', still(size))
    const paint = (does: 'keep' | 'lose', x: number, y: number) => ({
      at: 5 / 25,
      does,
      size: 8,
      points: [
        { x, y },
        { x: x + 12, y },
      ],
    })
    const painted = {
      plate: 'plate',
      from: 0,
      to: 0,
      sensitive: 50,
      shadow: 100,
      strokes: [paint('keep', 110, 20), paint('lose', 58, 55)],
    }
    const at = async (frame: number) => {
      const need = { recipe: cutoutRecipe('red', painted, frame / 25), part: 'alpha', seconds: frame / 25 }
      const found = (await store.derived(need)) as Codes
      const alpha = k.bytes(found.ptr, 160 * 96 * 4).filter((_, i) => i % 4 === 3)
      store.release(found)
      return (x: number, y: number) => alpha[y * 160 + x]!
    }
    const own = await at(5)
    expect([own(116, 20), own(64, 55)]).toEqual([255, 0])
    expect([own(64, 36), own(64, 74), own(140, 20)]).toEqual([255, 255, 0])
    await store.close()
  })

  it('shows the first and the last frame beyond the ends, and refuses what cannot be made', async () => {
    const size = { width: 160, height: 96 }
    const store = frameStore(k, 16 << 20)
    store.add('red', walk(size, RED))
    store.add('plate', still(size))
    store.add('tall', still({ width: 96, height: 160 }))
    expect((await partAt(store, 'red', 900)).alpha).toEqual((await partAt(store, 'red', COUNT - 1)).alpha)
    expect((await partAt(store, 'red', -5)).alpha).toEqual((await partAt(store, 'red', 0)).alpha)
    await expect(partAt(store, 'red', 0, 'hat')).rejects.toThrow(/nothing here knows “hat”/)
    await expect(partAt(store, 'red', 0, 'alpha', 'tall')).rejects.toThrow(/96×160, which is another shape than 160×96/)
    // Of a still that is its own plate nothing is left.
    const nobody = await partAt(store, 'plate', 3)
    expect(Math.max(...nobody.alpha)).toBe(0)
    await store.close()
  })
})
