import fc from 'fast-check'
import { expect, it } from 'vitest'
import { whereaboutsOf } from './whereabouts'

it('tells where most of somebody is, wherever in the picture the part lies that was looked at, and a speck far off says nothing', () => {
  const n = (min: number, max: number) => fc.integer({ min, max })
  fc.assert(
    fc.property(n(0, 60), n(0, 40), n(0, 100), n(0, 30), (x, y, left, top) => {
      const part = { x: left, y: top, width: 100, height: 60 }
      const is = new Float32Array(100 * 60)
      for (let row = 0; row < 20; row++) is.fill(1, (y + row) * 100 + x, (y + row) * 100 + x + 40)
      is[0] = 1
      const standing = { x: 0, y: 0, width: x + 40, height: y + 20 }
      const found = whereaboutsOf(is, part, standing, { width: 200, height: 90 })!
      expect(found.x).toBeCloseTo((left + x + 20) / 200, 2)
      expect(found.y).toBeCloseTo((top + y + 10) / 90, 2)
      expect(found.width).toBeCloseTo(0.8 * (40 / 200), 2)
      expect(found.height).toBeCloseTo(0.8 * (20 / 90), 2)
      expect(found.atBorder).toBe(left === 0 || left + x + 40 === 200)
    }),
  )
  const none = { x: 0, y: 0, width: 0, height: 0 }
  expect(whereaboutsOf(new Float32Array(4), { ...none, width: 2, height: 2 }, none, { width: 2, height: 2 })).toBeNull()
})
