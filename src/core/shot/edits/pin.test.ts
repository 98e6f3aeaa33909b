// Corners pinned to something flat lie on it wherever it goes, by as few keys as tell it.
import { describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../../../testing/documents'
import { isKeyed, keysOf } from '../../keys'
import { type Projective, pinMap, project, type Quad, quadAt, quadOf } from '../../projective'
import { makePiece, makeShape } from '../make'
import { pinnedCorners } from '../place'
import type { Layer } from '../types'
import { ungroup, whyNotUngrouped } from './group'
import { pinCorners, rideCorners, unpinCorners, widenPin } from './pin'

const box = { left: 0, top: 0, right: 64, bottom: 36 }

function shown(changes: Partial<Layer> = {}) {
  const { shot } = testProject([testLayer(0, { span: { from: 0, to: 80 }, ...changes })])
  return { shot, now: () => shot.layers[0]! }
}

const turning = (i: number): Projective => ({
  a: 1 - i * 0.006,
  b: i * 0.001,
  c: 0,
  d: 1,
  x: i * 0.8,
  y: 0,
  g: i * 6e-5,
  h: 0,
  w: 1,
})
const BEGIN = 20
const RIDE = { first: 10, begin: BEGIN, maps: Array.from({ length: 50 }, (_, i) => turning(i + 10 - BEGIN)) }

const far = (one: Quad, other: Quad): number =>
  Math.max(...one.map((p, i) => Math.hypot(p.x - other[i]!.x, p.y - other[i]!.y)))

describe('corners that are pinned', () => {
  it('stay where they are, and go with the layer', () => {
    const { shot, now } = shown({ place: { x: 40, y: 10, scale: 0.5, angle: 30 } })
    const flat = quadOf(box)
    pinCorners(shot, 'layer-0', box, 0, 'group')
    expect(now().pin?.corners).toMatchObject({ topLeft: flat[0], bottomRight: flat[2] })
    const before = pinnedCorners(now(), 0)!
    now().place = { x: 43, y: 10, scale: 0.5, angle: 30 }
    expect(far(pinnedCorners(now(), 0)!, before.map(p => ({ ...p, x: p.x + 3 })) as unknown as Quad)).toBeLessThan(1e-9)
    unpinCorners(shot, 'layer-0')
    expect('pin' in now()).toBe(false)
  })

  it.each([
    ['as it lies', {}],
    ['turned and mirrored', { place: { x: 40, y: 10, scale: 0.5, angle: 30 }, flip: { across: true, down: false } }],
    [
      'moving itself',
      {
        place: {
          keys: [
            { frame: 0, value: { x: 0, y: 0, scale: 1, angle: 0 }, ease: 'linear' },
            { frame: 70, value: { x: 30, y: 10, scale: 1.5, angle: 20 }, ease: 'linear' },
          ],
        },
      },
    ],
  ])('ride: %s', (_, changes) => {
    const { shot, now } = shown(changes as Partial<Layer>)
    pinCorners(shot, 'layer-0', box, 0, 'group')
    const start = pinnedCorners(now(), BEGIN)!
    rideCorners(shot, 'layer-0', RIDE)
    RIDE.maps.forEach((map, i) => {
      const want = start.map(p => project(map, p)) as unknown as Quad
      // Keys are told within an eighth of a px of the layer.
      expect(far(pinnedCorners(now(), RIDE.first + i)!, want)).toBeLessThan(0.3)
    })
    expect(keysOf(now().pin!.corners).length).toBeLessThan(30)
    // From here on again: what was before stays.
    const old = pinnedCorners(now(), 15)!
    rideCorners(shot, 'layer-0', { first: 10, begin: 30, maps: RIDE.maps.map(() => turning(0)) })
    expect(far(pinnedCorners(now(), 15)!, old)).toBeLessThan(1e-6)
  })

  it('are those of a group where a matte cuts the layer, which cannot be taken apart without them', () => {
    const matte = [makePiece(makeShape('box', { width: 64, height: 36 }))]
    const { shot, now } = shown({ matte, place: { x: 10, y: 5, scale: 0.5, angle: 0 }, anchor: { x: 0, y: 0 } })
    pinCorners(shot, 'layer-0', box, 0, 'group')
    expect(now()).toMatchObject({ id: 'group', name: 'take-0', source: { kind: 'group' } })
    expect(now().pin?.box).toEqual({ left: 10, top: 5, right: 42, bottom: 23 })
    expect(whyNotUngrouped(now(), shot)).toMatch(/pinned/)
    ungroup(shot, 'group')
    expect(now().id).toBe('group')
    unpinCorners(shot, 'group')
    ungroup(shot, 'group')
    expect(now().source.kind).toBe('take')
  })

  it('stay as they are on what stands still but for what a measurement trembles', () => {
    const { shot, now } = shown()
    pinCorners(shot, 'layer-0', box, 0, 'group')
    const trembling = Array.from({ length: 60 }, (_, i) => ({
      ...turning(0),
      x: 0.15 * Math.sin(i * 7),
      y: i === 33 ? 4 : 0,
    }))
    rideCorners(shot, 'layer-0', { first: 10, begin: 10, maps: trembling })
    expect(isKeyed(now().pin!.corners)).toBe(false)
  })

  it('do not ride where there are none, nor into what is no number', () => {
    const { shot, now } = shown()
    rideCorners(shot, 'layer-0', RIDE)
    expect(now().pin).toBeUndefined()
    pinCorners(shot, 'layer-0', { ...box, right: 0 }, 0, 'group')
    expect(now().pin).toBeUndefined()
    pinCorners(shot, 'layer-0', box, 0, 'group')
    rideCorners(shot, 'layer-0', { first: 0, begin: 0, maps: [{ ...turning(0), w: 0, a: 0, c: 0, x: 0 }] })
    expect(isKeyed(now().pin!.corners)).toBe(false)
  })

  it('are those of more of the picture, which stays where it was at every key, and goes on as flat', () => {
    const { shot, now } = shown()
    pinCorners(shot, 'layer-0', box, 0, 'group')
    rideCorners(shot, 'layer-0', RIDE)
    const mapsOf = () => keysOf(now().pin!.corners).map(k => pinMap(now().pin!.box, quadAt(k.value))!)
    const before = mapsOf()
    expect(before.length).toBeGreaterThan(2)
    widenPin(shot, 'layer-0', { left: 10, top: -8, right: 90, bottom: 20 })
    expect(now().pin!.box).toEqual({ left: 0, top: -8, right: 90, bottom: 36 })
    mapsOf().forEach((map, i) => {
      for (const p of [...quadOf(box), { x: 90, y: -8 }]) {
        const [was, is] = [project(before[i]!, p), project(map, p)]
        expect(Math.hypot(is.x - was.x, is.y - was.y)).toBeLessThan(1e-6)
      }
    })
    // What would be seen from behind is left out.
    const wide = structuredClone(now().pin)
    widenPin(shot, 'layer-0', { left: -1e6, top: 0, right: 1e6, bottom: 1 })
    expect(now().pin).toEqual(wide)
  })
})
