import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rulerStep, timeScale } from '../../app/time-scale'
import { carry, carryBy, inverse, scaleOf, turn } from '../../core/affine'
import { makePiece } from '../../core/shot'
import { testLayer } from '../../testing/documents'
import { wheelZoom } from '../common/wheel-zoom'
import { actualPixels, fitCamera, zoomAt } from './camera'
import { nearAngle, pieceMap } from './piece-space'

const well = { width: 750, height: 510 }

describe('the camera', () => {
  it('fits any picture into the well, whole and in the middle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8192 }), fc.integer({ min: 1, max: 8192 }), (width, height) => {
        const { zoom, x, y } = fitCamera({ width, height }, well)
        expect(x).toBeGreaterThan(0)
        expect(y).toBeGreaterThan(0)
        expect(x + width * zoom).toBeLessThan(well.width)
        expect(y + height * zoom).toBeLessThan(well.height)
        // In the middle of what the tools at the left leave free.
        expect(x + (width * zoom) / 2).toBeCloseTo((62 + well.width - 18) / 2, 6)
      }),
    )
  })

  it('zooms with the point under the pointer held in place, within bounds', () => {
    const camera = { zoom: 0.5, x: 40, y: 30 }
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 1000, noNaN: true }), fc.integer({ min: 0, max: 750 }), (factor, px) => {
        const next = zoomAt(camera, factor, px, 200)
        expect((px - next.x) / next.zoom).toBeCloseTo((px - camera.x) / camera.zoom, 6)
        expect(next.zoom).toBeGreaterThanOrEqual(0.02)
        expect(next.zoom).toBeLessThanOrEqual(32)
      }),
    )
    // A notch of the wheel with Ctrl is a step, not a leap; a pinch keeps to the fingers.
    expect(wheelZoom({ ctrlKey: true, deltaY: -120 })).toBe(wheelZoom({ ctrlKey: false, deltaY: -120 }))
    expect(wheelZoom({ ctrlKey: true, deltaY: -120 })).toBeLessThan(1.3)
    expect(wheelZoom({ ctrlKey: true, deltaY: -10 })).toBeGreaterThan(wheelZoom({ ctrlKey: false, deltaY: -10 }))
    const exact = actualPixels(camera, well)
    expect(exact.zoom).toBe(1)
    expect([exact.x % 1, exact.y % 1].map(Math.abs)).toEqual([0, 0])
  })
})

describe('a piece on the screen', () => {
  const piece = makePiece({ kind: 'edge', line: { x: 0, y: 0, angle: 0 } })
  const layer = testLayer(0, { place: { x: 10, y: 20, scale: 2, angle: 0 }, anchor: { x: 0, y: 0 } })
  const camera = { zoom: 3, x: 5, y: 7 }
  it('lies where its layer does, or where the shot does', () => {
    const own = pieceMap(layer, piece, 0, camera)
    expect(scaleOf(own)).toBe(6)
    expect(carry(own, { x: 4, y: 1 })).toEqual({ x: 5 + 18 * 3, y: 7 + 22 * 3 })
    const pinned = pieceMap(layer, { ...piece, pinnedTo: 'shot' }, 0, camera)
    expect(carry(pinned, { x: 4, y: 1 })).toEqual({ x: 17, y: 10 })
  })

  it('goes to the screen and back the same way, however its layer is turned, mirrored and enlarged', () => {
    const any = fc.record({
      angle: fc.integer({ min: -400, max: 400 }),
      scale: fc.constantFrom(0.3, 1, 4),
      across: fc.boolean(),
      down: fc.boolean(),
      dx: fc.integer({ min: -200, max: 200 }),
      dy: fc.integer({ min: -200, max: 200 }),
    })
    fc.assert(
      fc.property(any, ({ angle, scale, across, down, dx, dy }) => {
        const turned = testLayer(0, { place: { x: 30, y: 10, scale, angle }, flip: { across, down } })
        const map = pieceMap(turned, piece, 0, camera)
        const from = carry(map, { x: 4, y: 9 })
        const by = carryBy(inverse(map), { x: dx, y: dy })
        const to = carry(map, { x: 4 + by.x, y: 9 + by.y })
        expect(to.x - from.x).toBeCloseTo(dx, 5)
        expect(to.y - from.y).toBeCloseTo(dy, 5)
        const way = turn(map, { x: 3, y: 4 })
        const end = carry(map, { x: 7, y: 13 })
        expect(end.x - from.x).toBeCloseTo(way.x * scaleOf(map), 5)
        expect(end.y - from.y).toBeCloseTo(way.y * scaleOf(map), 5)
        expect(Math.hypot(way.x, way.y)).toBeCloseTo(5, 9)
      }),
    )
  })

  it('turns without jumping a whole circle', () => {
    expect(nearAngle(-179, 178)).toBe(181)
    expect(nearAngle(350, 0)).toBe(-10)
    expect(nearAngle(5, 725)).toBe(725)
  })
})

describe('the lanes', () => {
  it('show the whole shot, each frame at its place', () => {
    for (const [length, width] of [
      [184, 935],
      [1, 400],
      [1_000_000, 1500],
    ] as const) {
      const scale = timeScale(length, width, null)
      expect(scale.x(length)).toBeLessThanOrEqual(Math.max(width, scale.x(0) + 0.01 * length))
      expect(scale.frame(scale.x(length / 3))).toBeCloseTo(length / 3, 6)
    }
  })

  it('mark seconds at least a word apart', () => {
    for (const perFrame of [0.01, 0.2, 1, 4.4, 60])
      expect(rulerStep(perFrame, 30) * perFrame).toBeGreaterThanOrEqual(70)
  })
})
