// Snapping and the scale of the lanes, by what must hold for any numbers.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bringingIn, CLOSEST, rulerStep, scrolledBy, timeScale, zoomedAt } from '../../app/time-scale'
import { testLayer, testShot } from '../../testing/documents'
import { snap, snapPoints } from './snap'

const numbers = fc.array(fc.integer({ min: -100, max: 400 }), { maxLength: 6 })

describe('snapping', () => {
  it('meets a point or stays on the nearest frame, and never jumps farther than its reach', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -200, max: 200, noNaN: true }),
        numbers,
        numbers,
        fc.constantFrom(0.5, 4, 60),
        (by, edges, points, perFrame) => {
          const result = snap(by, edges, points, perFrame)
          expect(Math.abs(result.by - by)).toBeLessThanOrEqual(Math.max(0.5, 8 / perFrame))
          if (result.at === null) expect(result.by).toBe(Math.round(by))
          else expect(edges.map(e => e + result.by)).toContain(result.at)
        },
      ),
    )
  })

  it('takes the nearest of several', () => {
    expect(snap(10, [0], [7, 12], 2)).toEqual({ by: 12, at: 12 })
    expect(snap(9, [0], [7, 12], 2)).toEqual({ by: 7, at: 7 })
    expect(snap(9.4, [0, 50], [60], 2)).toEqual({ by: 10, at: 60 })
    expect(snap(9.4, [0], [60], 2)).toEqual({ by: 9, at: null })
  })

  it('knows ends of other layers, marks, the playhead, and keys of what is chosen but does not move', () => {
    const keyed = testLayer(1, {
      span: { from: 5, to: 55 },
      opacity: { keys: [{ frame: 23, value: 1, ease: 'hold' }] },
    })
    const shot = {
      ...testShot([testLayer(0, { span: { from: 11, to: 90 } }), keyed]),
      marks: [{ frame: 77, text: '' }],
    }
    const moving = new Set(['layer-0'])
    expect(snapPoints(shot, moving, 42, new Set(['layer-0', 'layer-1'])).sort((a, b) => a - b)).toEqual([
      0, 5, 23, 42, 55, 77, 100,
    ])
    expect(snapPoints(shot, moving, 42, moving)).not.toContain(23)
  })
})

describe('the scale', () => {
  const any = fc.record({
    length: fc.integer({ min: 1, max: 1_000_000 }),
    width: fc.integer({ min: 200, max: 3000 }),
    zooms: fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), { maxLength: 12 }),
    x: fc.integer({ min: 0, max: 200 }),
  })
  it('zooms about the pointer, from the whole shot to a frame of 60 px, and never leaves the shot', () => {
    fc.assert(
      fc.property(any, ({ length, width, zooms, x }) => {
        let scale = timeScale(length, width, null)
        for (const factor of zooms) {
          const under = scale.frame(x)
          const zoom = zoomedAt(scale, factor, x, length)
          const next = timeScale(length, width, zoom)
          expect(next.perFrame).toBeLessThanOrEqual(Math.max(CLOSEST, (width - 20) / length) + 1e-9)
          if (zoom) {
            expect(next.left).toBeGreaterThanOrEqual(0)
            expect(next.frame(width - 20)).toBeLessThanOrEqual(length + 1e-6)
            const held = next.left > 0 && next.frame(width - 20) < length - 1e-6
            if (held) expect(next.frame(x)).toBeCloseTo(under, 4)
          } else expect(next.left).toBe(0)
          scale = next
        }
      }),
    )
  })

  it('scrolls to both ends and no farther, and brings the playhead in', () => {
    const near = timeScale(1000, 620, { perFrame: 10, left: 100 })
    expect(scrolledBy(near, 50, 1000).left).toBe(105)
    expect(scrolledBy(near, -5000, 1000).left).toBe(0)
    expect(scrolledBy(near, 1e9, 1000).left).toBe(940)
    expect(bringingIn(near, 120, 1000)).toBeNull()
    for (const frame of [0, 99, 162, 999]) {
      const x = timeScale(1000, 620, bringingIn(near, frame, 1000)).x(frame)
      expect(x).toBeGreaterThanOrEqual(0)
      expect(x).toBeLessThan(620)
    }
  })

  it('marks whole seconds, or frames where those are wide', () => {
    expect(rulerStep(60, 30)).toBe(2)
    expect(rulerStep(8, 30)).toBe(10)
    expect(rulerStep(4, 30)).toBe(30)
    expect(rulerStep(0.1, 25)).toBe(30 * 25)
  })
})
