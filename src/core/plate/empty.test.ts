// The mean of a set, with somebody in some of its frames.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells, type Cells } from './cells'
import { emptyMean } from './empty'

const SIZE = { width: 96, height: 64 }
const COUNT = 12

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** Frame `i` of a wall with noise, and somebody whose left side is at `x`, in cells; nobody where that is null. */
function frame(i: number, x: number | null): Cells {
  const cells = blankCells(k, SIZE)
  cells.y.forEach((_, at) => {
    const [column, row] = [at % cells.width, Math.floor(at / cells.width)]
    const isThem = x !== null && column >= x && column < x + 10 && row > 8
    cells.y[at] = isThem ? 180 : 90 + 30 * Math.sin(column / 3) + 4 * Math.sin(at * 12.9898 + i * 78.233)
  })
  return cells
}

const meanOf = (where: (i: number) => number | null): number[] =>
  k.scope(() => {
    const out = blankCells(k, SIZE)
    const mean = emptyMean(out, COUNT)
    for (let i = 0; i < COUNT; i++) mean.add(frame(i, where(i)))
    mean.end()
    return [...out.y]
  })

const farthest = (a: readonly number[], b: readonly number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))

it('leaves out the frames in which somebody comes, goes or passes, and takes all where nobody does, or somebody always', () => {
  const all = meanOf(() => null)
  const plain = k.scope(() => {
    const sum = new Array<number>(all.length).fill(0)
    for (let i = 0; i < COUNT; i++)
      frame(i, null).y.forEach((v, at) => {
        sum[at]! += v / COUNT
      })
    return sum
  })
  expect(farthest(all, plain)).toBeLessThan(1e-3)
  fc.assert(
    fc.property(fc.integer({ min: 5, max: 10 }), fc.boolean(), (empty, isComing) => {
      const comes = (i: number) => (i < empty ? null : 4 * (i - empty) - 6)
      const mean = meanOf(i => comes(isComing ? i : COUNT - 1 - i))
      expect(farthest(mean, all)).toBeLessThan(4)
    }),
    { numRuns: 20 },
  )
  expect(
    farthest(
      meanOf(i => (i === 3 ? 20 : null)),
      all,
    ),
  ).toBeLessThan(4)
  // Of somebody who is always on the move there is no better part.
  expect(
    farthest(
      meanOf(i => 3 * i),
      all,
    ),
  ).toBeGreaterThan(10)
})
