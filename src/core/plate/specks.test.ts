import fc from 'fast-check'
import { expect, it } from 'vitest'
import { dropIslands, dropSpecks } from './specks'

const SIZE = { width: 40, height: 30 }

/** A body on the left, and whatever is put down beside it. */
function matte(put: readonly (readonly [number, number, number])[]): Uint8Array {
  const alpha = new Uint8Array(SIZE.width * SIZE.height)
  for (let y = 4; y < 26; y++) alpha.fill(255, y * SIZE.width + 3, y * SIZE.width + 15)
  for (const [x, y, value] of put) alpha[y * SIZE.width + x] = value
  return alpha
}

const at = (alpha: Uint8Array, x: number, y: number): number => alpha[y * SIZE.width + x]!

it('takes small islands away whatever their form, and leaves what touches something larger', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 20, max: 26 }), fc.integer({ min: 8, max: 14 })), { maxLength: 45 }),
      places => {
        const alpha = matte(places.map(([x, y]) => [x, y, 255] as const))
        dropIslands(SIZE, alpha)
        expect(alpha).toEqual(matte([]))
      },
    ),
    { numRuns: 60 },
  )
  // A hair that grows out of somebody stays, however thin; so does what is faint round them.
  const hair = Array.from({ length: 12 }, (_, i) => [15 + i, 10 + (i % 2), 200] as const)
  const grown = matte([...hair, [30, 20, 40]])
  dropIslands(SIZE, grown)
  expect(at(grown, 26, 11)).toBe(200)
  expect(at(grown, 30, 20)).toBe(40)
})

it('takes single px away and fills single holes', () => {
  const alpha = matte([
    [30, 12, 255],
    [8, 12, 0],
    [10, 20, 0],
    [11, 20, 0],
    [10, 21, 0],
    [11, 21, 0],
  ])
  dropSpecks(SIZE, alpha)
  expect([at(alpha, 30, 12), at(alpha, 8, 12), at(alpha, 10, 20)]).toEqual([0, 255, 0])
})
