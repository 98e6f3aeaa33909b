import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Point } from './affine'
import { between, canHold, depthAt, pinMap, project, projectAfter, type Quad, quadOf, unproject } from './projective'

const box = { left: -20, top: 10, right: 300, bottom: 190 }
const flat = quadOf(box)

/** A quad that a flat thing may look like. */
const quads = fc
  .array(fc.record({ x: fc.double({ min: -90, max: 90 }), y: fc.double({ min: -60, max: 60 }) }), {
    minLength: 4,
    maxLength: 4,
  })
  .map(by => flat.map((p, i) => ({ x: p.x + by[i]!.x, y: p.y + by[i]!.y })) as unknown as Quad)
  .filter(canHold)

const off = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y)

it('brings corners to corners, lines to lines, and what is inside before the lens; and back', () => {
  fc.assert(
    fc.property(quads, fc.double({ min: 0, max: 1, noNaN: true }), (quad, t) => {
      const map = pinMap(box, quad)!
      const back = unproject(map)
      for (const [i, corner] of flat.entries()) {
        const next = flat[(i + 1) % 4]!
        expect(off(project(map, corner), quad[i]!)).toBeLessThan(1e-6)
        const along = { x: corner.x + t * (next.x - corner.x), y: corner.y + t * (next.y - corner.y) }
        const seen = project(map, along)
        const [p, q] = [quad[i]!, quad[(i + 1) % 4]!]
        const beside = (q.x - p.x) * (seen.y - p.y) - (q.y - p.y) * (seen.x - p.x)
        expect(Math.abs(beside) / off(p, q)).toBeLessThan(1e-5)
        expect(depthAt(map, along)).toBeGreaterThan(0)
        expect(depthAt(back, seen)).toBeGreaterThan(0)
        expect(off(project(back, seen), along)).toBeLessThan(1e-4)
      }
      const round = projectAfter(back, map)
      expect(off(project(round, { x: 100, y: 100 }), { x: 100, y: 100 })).toBeLessThan(1e-5)
    }),
  )
})

it('has nothing for corners that nothing flat has', () => {
  const [p, q, r, s] = flat
  expect(canHold([p, q, r, s])).toBe(true)
  // Seen from behind.
  expect(canHold([q, p, s, r])).toBe(true)
  expect(canHold([p, r, q, s])).toBe(false)
  expect(canHold([p, q, q, s])).toBe(false)
  expect(canHold([p, q, r, { x: (p.x + r.x) / 2, y: (p.y + r.y) / 2 }])).toBe(false)
  expect(canHold([p, p, p, p])).toBe(false)
  expect(pinMap(box, [p, q, r, { x: Number.NaN, y: 0 }])).toBeNull()
  expect(pinMap({ ...box, right: box.left }, flat)).toBeNull()
})

it('is told by four points that something flat hangs on', () => {
  fc.assert(
    fc.property(quads, quads, (from, to) => {
      const map = between(from, to)!
      for (const [i, p] of from.entries()) expect(off(project(map, p), to[i]!)).toBeLessThan(1e-5)
    }),
  )
  const [p, q, r, s] = flat
  expect(between(flat, [p, r, q, s])).toBeNull()
})
