// Layers as wholes, their sound and their frame, by what must hold for any of them.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../../testing/documents'
import { carry } from '../../affine'
import { mirrorKeys, sample, spreadKeys, type Value } from '../../keys'
import { edits, type Layer, LIMITS, type Place, placeMap } from '..'

const four = () => testShot([0, 1, 2, 3].map(i => testLayer(i)))
const ids = (shot: { layers: Layer[] }) => shot.layers.map(l => l.id.slice(-1)).join('')

describe('depth', () => {
  it.each([
    [['layer-2'], -1, '0213'],
    [['layer-2'], 1, '0132'],
    [['layer-1', 'layer-2'], -1, '1203'],
    [['layer-1', 'layer-3'], 1, '0213'],
    [['layer-0', 'layer-1'], -1, '0123'],
    [['layer-3'], 1, '0123'],
  ] as const)('of %j by %i gives %s', (layers, by, want) => {
    const shot = four()
    edits.stepDepth(shot, layers, by)
    expect(ids(shot)).toBe(want)
  })

  it.each([
    [['layer-2'], 'nearest', '2013'],
    [['layer-2', 'layer-0'], 'farthest', '1302'],
    [[], 'farthest', '0123'],
  ] as const)('of %j, put %s, gives %s', (layers, where, want) => {
    const shot = four()
    edits.putDepth(shot, layers, where)
    expect(ids(shot)).toBe(want)
  })
})

describe('copies of layers', () => {
  it('lie just nearer than what they were made of, with names of their own', () => {
    const shot = four()
    edits.addPiece(shot, 'layer-1', edits.startPiece('oval', shot.size))
    edits.lockLayers(shot, ['layer-1'], true)
    edits.duplicateLayers(shot, [shot.layers[1]!])
    const [, copy, original] = shot.layers
    expect(original!.id).toBe('layer-1')
    expect(copy).toMatchObject({ name: 'take-1, 2', locked: false })
    expect(copy!.matte[0]!.id).not.toBe(original!.matte[0]!.id)
    // A copy of the copy has the next number, a long name no more letters than names may have.
    edits.duplicateLayers(shot, [copy!])
    expect(shot.layers[1]!.name).toBe('take-1, 3')
    edits.renameLayer(shot, 'layer-0', 'x'.repeat(LIMITS.name))
    edits.duplicateLayers(shot, [shot.layers[0]!])
    expect(shot.layers[0]!.name).toMatch(/^x+, 2$/)
    expect(shot.layers[0]!.name).toHaveLength(LIMITS.name)
  })

  it('are pasted with the earliest at the playhead, keys and all, the rest as far from it as they were', () => {
    const shot = four()
    const keyed = testLayer(1, {
      span: { from: 40, to: 60 },
      opacity: { keys: [{ frame: 45, value: 0.5, ease: 'hold' }] },
    })
    edits.pasteLayers(shot, [testLayer(0, { span: { from: 30, to: 50 } }), keyed], 7)
    expect(shot.layers.slice(0, 2).map(l => l.span)).toEqual([
      { from: 7, to: 27 },
      { from: 17, to: 37 },
    ])
    expect(shot.layers[1]!.opacity).toEqual({ keys: [{ frame: 22, value: 0.5, ease: 'hold' }] })
  })

  it('stop at the most layers that there may be', () => {
    const shot = testShot(Array.from({ length: 249 }, (_, i) => testLayer(0, { id: `l${i}` })))
    edits.pasteLayers(shot, [testLayer(1), testLayer(2)], 0)
    edits.duplicateLayers(shot, [...shot.layers])
    edits.splitLayers(shot, [shot.layers[0]!.id], 50)
    edits.stutterLayer(shot, shot.layers[0]!.id, 10, 3, 5, 0)
    edits.holdLayer(shot, shot.layers[0]!.id, 10, 5, true)
    expect(shot.layers).toHaveLength(250)
  })
})

describe('sound', () => {
  it('is detached as a layer of its own, or dropped', () => {
    const shot = four()
    edits.detachSound(shot, 'layer-1')
    expect(shot.layers[1]!.source).toMatchObject({ use: 'picture' })
    expect(shot.layers.at(-1)).toMatchObject({
      name: 'take-1, sound',
      source: { use: 'sound' },
      span: { from: 0, to: 100 },
    })
    edits.detachSound(shot, 'layer-1')
    expect(shot.layers).toHaveLength(5)
    edits.dropSound(shot, 'layer-0')
    expect(shot.layers[0]!.source).toMatchObject({ use: 'picture' })
  })

  it('and picture fade within the bar, whatever is asked', () => {
    const frames = fc.oneof(fc.integer({ min: -50, max: 500 }), fc.constant(Number.NaN))
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom('in' as const, 'out' as const), frames)), steps => {
        const shot = testShot([testLayer(0, { span: { from: 3, to: 43 } })])
        for (const [side, value] of steps) edits.setFade(shot, 'layer-0', 'sound', { [side]: value })
        const { fade } = shot.layers[0]!.sound
        expect(fade.in).toBeGreaterThanOrEqual(0)
        expect(fade.out).toBeGreaterThanOrEqual(0)
        expect(fade.in + fade.out).toBeLessThanOrEqual(40)
      }),
    )
  })
})

describe('the frame', () => {
  it('shows all of a picture, or is filled by it, however it is anchored and flipped', () => {
    const any = fc.record({
      width: fc.integer({ min: 1, max: 4000 }),
      height: fc.integer({ min: 1, max: 4000 }),
      x: fc.integer({ min: -100, max: 4000 }),
      y: fc.integer({ min: -100, max: 4000 }),
      across: fc.boolean(),
      down: fc.boolean(),
    })
    fc.assert(
      fc.property(
        any,
        fc.constantFrom('fit' as const, 'fill' as const),
        ({ width, height, x, y, across, down }, how) => {
          const layer = testLayer(0, { anchor: { x, y }, flip: { across, down } })
          const frame = { width: 64, height: 36 }
          const place: Place = edits.framed(layer, { width, height }, frame, how)
          const corners = [
            { x: 0, y: 0 },
            { x: width, y: height },
          ].map(corner => carry(placeMap(layer, place), corner))
          const [left, right] = corners.map(c => c.x).sort((a, b) => a - b) as [number, number]
          const [top, bottom] = corners.map(c => c.y).sort((a, b) => a - b) as [number, number]
          expect((left + right) / 2).toBeCloseTo(32, 6)
          expect((top + bottom) / 2).toBeCloseTo(18, 6)
          const sides = [right - left - 64, bottom - top - 36]
          if (how === 'fit') for (const over of sides) expect(over).toBeLessThanOrEqual(1e-6)
          else for (const over of sides) expect(over).toBeGreaterThanOrEqual(-1e-6)
          expect(Math.min(...sides.map(Math.abs))).toBeLessThan(1e-6)
        },
      ),
    )
  })
})

describe('keys in another time', () => {
  const values: fc.Arbitrary<Value<number>> = fc
    .uniqueArray(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 6 })
    .map(frames => ({
      keys: frames
        .sort((a, b) => a - b)
        .map((frame, i) => ({ frame, value: (frame * 7919) % 13, ease: (['linear', 'smooth'] as const)[i % 2]! })),
    }))

  it('turned round are the same way back, and turned twice what they were', () => {
    fc.assert(
      fc.property(values, value => {
        const back = mirrorKeys(value, 60)
        for (let f = 0; f <= 60; f += 3) expect(sample(back, 60 - f)).toBeCloseTo(sample(value, f), 9)
        const twice = mirrorKeys(back, 60)
        for (let f = 0; f <= 60; f += 3) expect(sample(twice, f)).toBeCloseTo(sample(value, f), 9)
      }),
    )
  })

  it('spread by whole numbers are the same, slower', () => {
    fc.assert(
      fc.property(values, fc.integer({ min: 1, max: 4 }), (value, factor) => {
        const slow = spreadKeys(value, 10, factor)
        for (let f = 0; f <= 60; f += 5) expect(sample(slow, 10 + (f - 10) * factor)).toBeCloseTo(sample(value, f), 9)
      }),
    )
  })
})
