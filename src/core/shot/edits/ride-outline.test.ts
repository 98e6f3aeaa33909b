// An outline on something flat lies on it however that turns, by few keys of its own.
import { describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../../../testing/documents'
import { after, carry } from '../../affine'
import { keysOf, sample } from '../../keys'
import type { OutlinePoint } from '../../outline'
import { type Projective, project } from '../../projective'
import { shapeAt, shapeValue } from '../../shape'
import { makePiece, makeShape } from '../make'
import { motionMap, placeMap } from '../place'
import type { Layer, Piece } from '../types'
import { rideOutline } from './ride-outline'

const point = (x: number, y: number, outX = 0, outY = 0): OutlinePoint => ({
  x,
  y,
  inX: -outX,
  inY: -outY,
  outX,
  outY,
})
const OUTLINE = [point(10, 8), point(50, 6, 4, 1), { ...point(54, 30), soft: 3 }, point(12, 28, -3, 0)]

function shown(layer: Partial<Layer> = {}, piece: Partial<Piece> = {}) {
  const own = { ...makePiece({ kind: 'outline', points: OUTLINE }), id: 'piece', ...piece }
  const { shot } = testProject([testLayer(0, { span: { from: 0, to: 80 }, matte: [own], ...layer })])
  return { shot, now: () => shot.layers[0]!, shape: () => shot.layers[0]!.matte[0]!.shape }
}

/** A sheet that turns away, comes nearer and slides. */
const turning = (i: number): Projective => ({
  a: 1 - i * 0.006,
  b: i * 0.002,
  c: 0.001 * i,
  d: 1 + i * 0.004,
  x: i * 0.8,
  y: -i * 0.3,
  g: i * 8e-5,
  h: 0,
  w: 1,
})
const BEGIN = 20
const RIDE = { first: 10, begin: BEGIN, maps: Array.from({ length: 50 }, (_, i) => turning(i + 10 - BEGIN)) }

/** Points of the outline in the shot. */
function placed(layer: Layer, frame: number) {
  const { pinnedTo, pivot, motion, shape } = layer.matte[0]!
  const own = motionMap(pivot, sample(motion, frame))
  const map = pinnedTo === 'shot' ? own : after(placeMap(layer, sample(layer.place, frame)), own)
  return (shapeAt(shape, frame) as OutlinePoint[]).map(p => carry(map, p))
}

const moving = {
  keys: [
    { frame: 0, value: { x: 0, y: 0, scale: 1, angle: 0 }, ease: 'linear' as const },
    { frame: 70, value: { x: 30, y: 10, scale: 1.5, angle: 20 }, ease: 'linear' as const },
  ],
}

describe('an outline that rides in perspective', () => {
  it.each([
    ['pinned to its layer', {}, {}],
    ['on a layer that is turned, mirrored and moves', { place: moving, flip: { across: true, down: false } }, {}],
    ['pinned to the shot, and moved itself', {}, { pinnedTo: 'shot', motion: moving, pivot: { x: 30, y: 18 } }],
  ])('lies where it lay on what it rides on, %s', (_, layer, piece) => {
    const { shot, now, shape } = shown(layer as Partial<Layer>, piece as Partial<Piece>)
    const start = placed(now(), BEGIN)
    rideOutline(shot, 'layer-0', 'piece', RIDE)
    RIDE.maps.forEach((map, i) => {
      placed(now(), RIDE.first + i).forEach((p, j) => {
        const want = project(map, start[j]!)
        expect(Math.hypot(p.x - want.x, p.y - want.y)).toBeLessThan(0.5)
      })
    })
    const keys = keysOf(shapeValue(shape()))
    expect(keys.length).toBeGreaterThan(2)
    expect(keys.length).toBeLessThan(25)
    // From here on again: what was before stays.
    const old = placed(now(), 15)
    rideOutline(shot, 'layer-0', 'piece', { first: 10, begin: 30, maps: RIDE.maps.map(() => turning(0)) })
    placed(now(), 15).forEach((p, j) => {
      expect(Math.hypot(p.x - old[j]!.x, p.y - old[j]!.y)).toBeLessThan(1e-6)
    })
  })

  it('needs two keys where it only turns and grows, and none where nothing moves', () => {
    const { shot, shape } = shown()
    const [step, sin] = [0.01, Math.sin]
    const turns = Array.from({ length: 40 }, (_, i): Projective => {
      const [c, s] = [Math.cos(i * step), sin(i * step)]
      return { a: c, b: s, c: -s, d: c, x: 0, y: 0, g: 0, h: 0, w: 1 }
    })
    const still = turns.map((): Projective => ({ a: 1, b: 0, c: 0, d: 1, x: 0.01, y: 0, g: 0, h: 0, w: 1 }))
    rideOutline(shot, 'layer-0', 'piece', { first: 0, begin: 0, maps: still })
    expect(keysOf(shapeValue(shape()))).toEqual([])
    rideOutline(shot, 'layer-0', 'piece', { first: 0, begin: 0, maps: turns })
    expect(keysOf(shapeValue(shape())).map(k => k.frame)).toEqual([0, 39])
  })

  it('stays as it is where the ride leads out of sight, where it is locked', () => {
    const { shot, now } = shown()
    const before = structuredClone(shot)
    const gone = { ...turning(0), w: 0, a: 0, c: 0, x: 0 }
    rideOutline(shot, 'layer-0', 'piece', { first: 0, begin: 0, maps: [turning(0), gone] })
    rideOutline(shot, 'layer-0', 'nobody', RIDE)
    rideOutline(shot, 'layer-0', 'piece', { ...RIDE, maps: [] })
    expect(shot).toEqual(before)
    now().locked = true
    rideOutline(shot, 'layer-0', 'piece', RIDE)
    expect(now().matte).toEqual(before.layers[0]!.matte)
  })

  it('is made of another shape once that has to turn, and never of what has none', () => {
    const oval = shown({}, { name: 'Oval', shape: makeShape('oval', { width: 64, height: 36 }) })
    const round = structuredClone(oval.shot)
    rideOutline(oval.shot, 'layer-0', 'piece', { ...RIDE, maps: RIDE.maps.map(() => turning(0)) })
    expect(oval.shot).toEqual(round)
    rideOutline(oval.shot, 'layer-0', 'piece', RIDE)
    expect(oval.now().matte[0]).toMatchObject({ name: 'Outline', shape: { kind: 'outline' } })
    expect(keysOf(shapeValue(oval.shape())).length).toBeGreaterThan(2)
    const layer = shown({}, { shape: makeShape('layer', { width: 64, height: 36 }) })
    const whole = structuredClone(layer.shot)
    rideOutline(layer.shot, 'layer-0', 'piece', RIDE)
    expect(layer.shot).toEqual(whole)
  })
})
