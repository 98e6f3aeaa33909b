// Grain that was laid is told again, with somebody moving through the picture.
import { expect, it } from 'vitest'
import { testLayer, testProject } from '../../testing/documents'
import { testKernels } from '../../testing/kernels'
import { freshValues } from '../look'
import { planFrame } from '../plan'
import { renderFrame } from '../render'
import { blankCells } from './cells'
import { grainBetween } from './grain'
import { readCells } from './read-cells'

const SIZE = { width: 320, height: 240 }

/** What is told of two frames that are grey as `greyAt` says, with a grain laid over them. */
async function told(values: Record<string, number>, greyAt: (x: number, y: number, frame: number) => number) {
  const k = await testKernels()
  const { shot } = testProject([
    testLayer(0, { looks: [{ id: 'grain', kind: 'grain', on: true, values: { ...freshValues('grain'), ...values } }] }),
  ])
  const frames = [0, 1].map(frame => {
    const ptr = k.alloc(SIZE.width * SIZE.height * 4)
    const words = k.ints(ptr, SIZE.width * SIZE.height)
    for (let y = 0; y < SIZE.height; y++) {
      for (let x = 0; x < SIZE.width; x++) words[y * SIZE.width + x] = 0xff000000 | (greyAt(x, y, frame) * 0x010101)
    }
    const picture = { kind: 'codes', ...SIZE, ptr, opaque: true } as const
    const made = renderFrame(k, planFrame({ ...shot, size: SIZE }, frame), () => picture)
    const cells = blankCells(k, SIZE)
    readCells(k, made, cells)
    return cells
  })
  return grainBetween(frames[0]!, frames[1]!)
}

const isSomebody = (x: number, y: number, frame: number) => Math.hypot(x - 80 - 30 * frame, y - 120) < 30

it.each([
  { dark: 3, middle: 3, light: 3, size: 1, colour: 0 },
  { dark: 1, middle: 4, light: 2, size: 1, colour: 20 },
  { dark: 2, middle: 2, light: 5, size: 2.5, colour: 50 },
])('tells %o', async values => {
  // Three broad stripes, dark, between and light, and somebody over them.
  const stripes = [40, 128, 215]
  const seenGrain = await told(values, (x, y, frame) =>
    isSomebody(x, y, frame) ? 200 - 7 * (x % 9) : stripes[Math.floor((3 * x) / SIZE.width)]!,
  )
  // Luma has less of grain that each channel has for itself.
  const seen = Math.sqrt(1 - (values.colour / 100) * (1 - 0.567))
  const at = (code: number) => {
    const [a, b, share] =
      code < 128 ? [values.dark, values.middle, (code - 16) / 112] : [values.middle, values.light, (code - 128) / 112]
    return (a + (b - a) * share) * seen
  }
  for (const [amount, code] of [
    [seenGrain.dark, 40],
    [seenGrain.middle, 128],
    [seenGrain.light, 215],
  ] as const) {
    expect(Math.abs(amount / at(code) - 1)).toBeLessThan(0.15)
  }
  expect(Math.abs(seenGrain.size - values.size)).toBeLessThan(0.5)
  if (values.size === 1) expect(Math.abs(seenGrain.colour - values.colour / 100)).toBeLessThan(0.1)
})

it('does not take somebody dark who walks about for grain in the dark', async () => {
  const values = { dark: 2, middle: 2, light: 2, size: 1, colour: 0 }
  const { dark } = await told(values, (x, y, frame) => (isSomebody(x, y, frame) ? 20 + 7 * (x % 9) : 128 + (y >> 2)))
  expect(Math.abs(dark - 2)).toBeLessThan(0.3)
})
