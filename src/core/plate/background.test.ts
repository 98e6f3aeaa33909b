// Medians over frames, four values at a time, against sorting.
import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { type Kept, keptCells, medianCells } from './background'
import { blankCells } from './cells'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

it('shows what is in the middle of all frames, where it is asked for, and nothing else changes', () => {
  const frames = fc.integer({ min: 1, max: 17 })
  fc.assert(
    fc.property(frames, fc.integer({ min: 1, max: 99 }), fc.integer(), fc.boolean(), (n, width, seed, isPart) =>
      k.scope(() => {
        const out = blankCells(k, { width, height: 50 })
        let state = seed
        const next = () => {
          state = (Math.imul(state, 1103515245) + 12345) | 0
          return (state >> 16) & 255
        }
        const all = Array.from({ length: n }, () => {
          const kept = keptCells(out)
          for (const plane of Object.values(kept)) for (let i = 0; i < plane.length; i++) plane[i] = next()
          return kept
        })
        const where = isPart ? Uint8Array.from(out.y, () => next() & 1) : undefined
        medianCells(all, out, where)
        for (const name of ['y', 'u', 'v', 'luma'] as const satisfies (keyof Kept)[]) {
          const expected = out[name].map((_, i) => {
            const cell = name === 'luma' ? (Math.floor(i / width) >> 1) * out.width + ((i % width) >> 1) : i
            if (where && where[cell] === 0) return 0
            const sorted = all.map(kept => kept[name][i]!).sort((a, b) => a - b)
            return (sorted[(n - 1) >> 1]! + sorted[n >> 1]!) / 2
          })
          expect(Buffer.compare(Buffer.from(out[name].slice().buffer), Buffer.from(expected.buffer))).toBe(0)
        }
      }),
    ),
    { numRuns: 30 },
  )
})
