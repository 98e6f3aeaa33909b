// Parts that are too small, beside a search that goes from cell to cell.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { clean } from './clean'
import { planeIn } from './plane'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** Every part by itself: its cells, and whether it reaches the border. */
function partsOf(told: Float32Array, width: number, height: number): { cells: number[]; isOpen: boolean }[] {
  const seen = new Set<number>()
  const parts: { cells: number[]; isOpen: boolean }[] = []
  for (let start = 0; start < told.length; start++) {
    if (seen.has(start)) continue
    seen.add(start)
    const part = { cells: [start], isOpen: false }
    for (const i of part.cells) {
      const [x, y] = [i % width, Math.floor(i / width)]
      const beside = [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]
      for (const j of beside) {
        if (j < 0 || j >= told.length) part.isOpen = true
        else if (!seen.has(j) && told[j]! > 0 === told[i]! > 0) part.cells.push(j)
        if (j >= 0 && j < told.length && told[j]! > 0 === told[i]! > 0) seen.add(j)
      }
      if (y === 0 || y === height - 1) part.isOpen = true
    }
    parts.push(part)
  }
  return parts
}

it('turns what a search from cell to cell finds too small, and nothing else', () => {
  const grids = fc.tuple(fc.integer({ min: 1, max: 21 }), fc.integer({ min: 1, max: 14 })).chain(([width, height]) => {
    const cells = { minLength: width * height, maxLength: width * height }
    return fc.tuple(
      fc.constant({ width, height }),
      fc.array(fc.constantFrom(-3, -3, 2), cells),
      fc.array(fc.integer({ min: -6, max: 4 }), cells),
    )
  })
  fc.assert(
    fc.property(
      grids,
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 1, max: 30 }),
      ([size, is, own], speck, hole) =>
        k.scope(() => {
          const [told, odds] = [planeIn(k, is.length), planeIn(k, is.length)]
          told.set(is)
          odds.set(own)
          const expected = told.slice()
          for (const { cells, isOpen } of partsOf(told, size.width, size.height)) {
            const isSet = is[cells[0]!]! <= 0
            const mean = cells.reduce((sum, i) => sum + own[i]!, 0) / cells.length
            const isUnsure = isSet && !isOpen && cells.length < hole && mean >= -2
            if (cells.length < speck || isUnsure) for (const i of cells) expected[i] = isSet ? 1 : -1
          }
          clean(k, size, told, odds, { speck, hole })
          expect([...told].map(Math.sign)).toEqual([...expected].map(Math.sign))
        }),
    ),
    { numRuns: 300 },
  )
})
