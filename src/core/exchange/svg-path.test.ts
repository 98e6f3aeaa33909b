// Outlines out as paths of SVG, and in from whatever writes those.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyPoint } from '../../testing/outlines'
import { corner, flatten, roundOutlinePoint } from '../outline'
import { outlinesIn, pathOf, svgOf } from './svg-path'

it('come back as they went', () => {
  fc.assert(
    fc.property(fc.array(anyPoint(400, 80), { minLength: 3, maxLength: 9 }), drawn => {
      const points = drawn.map(roundOutlinePoint)
      for (const text of [pathOf(points), svgOf(points, false, { width: 400, height: 400 })]) {
        const [back] = outlinesIn(text)!
        expect(back).toHaveLength(points.length)
        const [a, b] = [flatten(points, 0.1), flatten(back!, 0.1)]
        expect(Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))).toBeLessThan(0.02)
      }
    }),
  )
})

it('are read in every way of writing them', () => {
  const square = [
    [10, 10],
    [20, 10],
    [20, 20],
    [10, 20],
  ]
  for (const d of [
    'M10 10 20 10 20 20 10 20Z',
    'm10,10h10v10h-10z',
    'M10 10L20 10 20 20 10 20 10 10',
    'M1e1 10H20V20H10V10Z',
  ]) {
    const [ring] = outlinesIn(d)!
    expect(ring!.map(p => [p.x, p.y])).toEqual(square)
  }
  // An arc and a quadratic curve are curves that go through the same places.
  const [arc] = outlinesIn('M0 10A10 10 0 0 1 20 10Z')!
  const ends = flatten(arc!, 0.01)
  for (let i = 0; i < ends.length; i += 2) {
    const off = Math.hypot(ends[i]! - 10, ends[i + 1]! - 10)
    if (ends[i + 1]! < 9.99) expect(off).toBeCloseTo(10, 1)
  }
  const [bow] = outlinesIn('M0 0Q10 20 20 0T40 0Z')!
  expect(bow!.map(p => [p.x, p.y])).toEqual([
    [0, 0],
    [20, 0],
    [40, 0],
  ])
  const two = outlinesIn(`<svg><g><path fill="red" d='M0 0h5v5z'/><path d="M9 9h5v5zM20 20h3v3z"/></g></svg>`)
  expect(two).toHaveLength(3)
})

it('that are none are none', () => {
  for (const text of [
    '',
    'hello',
    'M',
    'M x y',
    '<svg></svg>',
    '<svg><path d="nonsense"/></svg>',
    'M1 1',
    '{"a":1}',
    'M1e999 0L2 2Z',
  ])
    expect(outlinesIn(text)).toBeNull()
  expect(pathOf([])).toBe('')
  expect(pathOf([corner({ x: 1, y: 2 }), corner({ x: 3, y: 4 })], true)).toBe('M1 2L3 4')
})
