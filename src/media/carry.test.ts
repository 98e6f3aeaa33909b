// Somebody told by strokes alone, before a camera that moves.
import { beforeAll, describe, expect, it } from 'vitest'
import { type Cut, cutoutRecipe, type Stroke } from '../core/plate'
import { recipeKey } from '../core/recipe'
import type { Codes, Kernels } from '../core/render'
import { testKernels } from '../testing/kernels'
import { frameStore } from './frames'
import type { OpenSequence } from './sequence'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const [WIDTH, HEIGHT, COUNT, RATE] = [200, 120, 13, 25]
type Rgb = readonly [number, number, number]

/** A wall of stains that the camera passes. */
const wall = (x: number, y: number): Rgb => [
  110 + 30 * Math.sin(x * 0.19) + 12 * Math.sin(y * 0.31 + x * 0.05),
  120 + 26 * Math.cos(y * 0.17 + x * 0.08),
  105 + 22 * Math.sin((x + y) * 0.13),
]
/** A coat with folds, which goes the other way. */
const coat = (x: number, y: number): Rgb => [170 + 20 * Math.sin(y * 0.3), 60 + 15 * Math.cos(x * 0.4), 50]
const middle = (frame: number) => ({ x: 60 + frame * 5, y: 62 + 3 * Math.sin(frame * 0.6) })
const isThere = (x: number, y: number, frame: number): boolean => {
  const at = middle(frame)
  return Math.hypot((x - at.x) / 22, (y - at.y) / 38) < 1
}
const seen = (x: number, y: number, frame: number): Rgb => {
  const at = middle(frame)
  return isThere(x, y, frame) ? coat(x - at.x, y - at.y) : wall(x + frame * 3, y + frame)
}

const take = () =>
  ({
    kind: 'sequence',
    name: 'walk.zip',
    type: 'application/zip',
    rate: { num: RATE, den: 1 },
    count: COUNT,
    async decode(frame: number) {
      const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4).fill(255)
      for (let i = 0; i < WIDTH * HEIGHT; i++) {
        const colour = seen(i % WIDTH, Math.floor(i / WIDTH), frame)
        for (let c = 0; c < 3; c++) data[i * 4 + c] = colour[c]!
      }
      return { width: WIDTH, height: HEIGHT, data }
    },
    close() {},
  }) as unknown as OpenSequence

/** One stroke down the coat, and one round it, as somebody would on that frame. */
function painted(frame: number): Stroke[] {
  const { x, y } = middle(frame)
  const round = Array.from({ length: 25 }, (_, i) => ({
    x: x + 32 * Math.cos((i / 24) * 2 * Math.PI),
    y: y + 48 * Math.sin((i / 24) * 2 * Math.PI),
  }))
  const at = frame / RATE
  const down = [-28, 0, 28].map(by => ({ x, y: y + by }))
  return [
    { at, does: 'keep', size: 6, points: down },
    { at, does: 'lose', size: 6, points: round },
  ]
}

const cutOf = (strokes: readonly Stroke[]): Cut => ({ plate: '', from: 0, to: 0, sensitive: 50, shadow: 100, strokes })

/** How far alpha of frames is off, each a share of all px; asked for in some order. */
async function errorsOf(strokes: readonly Stroke[], frames: readonly number[]): Promise<number[]> {
  const store = frameStore(k, 24 << 20)
  store.add('take', take())
  const errors: number[] = []
  for (const frame of frames) {
    const seconds = frame / RATE
    const recipe = cutoutRecipe('take', cutOf(strokes), seconds)
    const found = (await store.derived({ recipe, part: 'alpha', seconds })) as Codes
    const codes = k.bytes(found.ptr, WIDTH * HEIGHT * 4)
    let sum = 0
    for (let i = 0; i < WIDTH * HEIGHT; i++)
      sum += Math.abs(codes[i * 4 + 3]! / 255 - (isThere(i % WIDTH, Math.floor(i / WIDTH), frame) ? 1 : 0))
    store.release(found)
    errors.push(sum / (WIDTH * HEIGHT))
  }
  await store.close()
  return errors
}

describe('somebody told by strokes alone', () => {
  it('is carried from one painted frame both ways, and told from both sides between two', async () => {
    const alone = await errorsOf(painted(6), [6, 8, 12, 3, 0])
    expect(Math.max(...alone)).toBeLessThan(0.02)
    const both = await errorsOf([...painted(0), ...painted(12)], [0, 4, 6, 9, 12])
    expect(Math.max(...both)).toBeLessThan(0.02)
  })

  it('comes out the same in whatever order it is asked for', async () => {
    const [first, second, third, painted6] = await errorsOf(painted(6), [9, 2, 7, 6])
    expect(await errorsOf(painted(6), [6, 7, 9, 2])).toEqual([painted6, third, first, second])
  })

  it('is done again only between the painted frames about a correction', () => {
    const strokes = [...painted(0), ...painted(12)]
    const corrected = [...strokes, ...painted(6)]
    const key = (of: readonly Stroke[], frame: number) => recipeKey(cutoutRecipe('take', cutOf(of), frame / RATE))
    const later = [...corrected, { ...painted(9)[0]!, does: 'lose' as const }]
    expect(key(later, 3)).toBe(key(corrected, 3))
    expect(key(later, 6)).toBe(key(corrected, 6))
    expect(key(later, 8)).not.toBe(key(corrected, 8))
    expect(key(later, 12)).toBe(key(corrected, 12))
    expect(key(corrected, 3)).not.toBe(key(strokes, 3))
  })
})
