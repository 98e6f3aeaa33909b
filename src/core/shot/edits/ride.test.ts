// Pieces and layers that ride: what lay on something lies on it wherever that goes, by as few keys as tell it.
import { describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../../../testing/documents'
import { type Affine, after, carry, inverse, type Point } from '../../affine'
import { keysOf, sample } from '../../keys'
import { shapeAt } from '../../shape'
import { makePiece, makeShape } from '../make'
import { motionMap, placeMap } from '../place'
import type { Layer, Piece, Shot } from '../types'
import { type Ride, rideLayer, ridePiece, ridePieceWith } from './ride'

const spin = (i: number): Affine => {
  const [turn, scale] = [i * 0.15, 1 + i * 0.01]
  const [a, b] = [scale * Math.cos(turn), scale * Math.sin(turn)]
  return { a, b, c: -b, d: a, x: i * 1.5, y: -i }
}
const BEGIN = 20
/** Frames 10 to 59; at the twentieth nothing has moved. */
const RIDE: Ride = { first: 10, begin: BEGIN, maps: Array.from({ length: 50 }, (_, i) => spin(i + 10 - BEGIN)) }

function shown(layer: Partial<Layer> = {}, piece: Partial<Piece> = {}): { shot: Shot; now: () => Layer } {
  const own = { ...makePiece(makeShape('box', { width: 64, height: 36 })), id: 'piece', ...piece }
  const { shot } = testProject([testLayer(0, { span: { from: 0, to: 80 }, matte: [own], ...layer })])
  return { shot, now: () => shot.layers[0]! }
}

/** Where a place of the piece lies in the shot. */
function placed(layer: Layer, frame: number, point = { x: 10, y: 4 }) {
  const piece = layer.matte[0]!
  const motion = motionMap(piece.pivot, sample(piece.motion, frame))
  const map = piece.pinnedTo === 'shot' ? motion : after(placeMap(layer, sample(layer.place, frame)), motion)
  return carry(map, point)
}

const far = (p: { x: number; y: number }, q: { x: number; y: number }): number => Math.hypot(p.x - q.x, p.y - q.y)

describe('a piece that rides', () => {
  it.each([
    ['pinned to its layer', {}, {}],
    ['pinned to the shot', {}, { pinnedTo: 'shot' }],
    [
      'on a layer that is turned and mirrored',
      { place: { x: 30, y: 9, scale: 0.7, angle: 40 }, flip: { across: true, down: false } },
      {},
    ],
    [
      'on a layer that moves itself',
      {
        place: {
          keys: [
            { frame: 0, value: { x: 0, y: 0, scale: 1, angle: 0 }, ease: 'linear' },
            { frame: 70, value: { x: 90, y: 10, scale: 1.5, angle: 20 }, ease: 'linear' },
          ],
        },
      },
      {},
    ],
  ])('lies where it lay on what it rides on, %s', (_, layer, piece) => {
    const { shot, now } = shown(layer as Partial<Layer>, piece as Partial<Piece>)
    const start = placed(now(), BEGIN)
    ridePiece(shot, 'layer-0', 'piece', RIDE)
    for (const [i, map] of RIDE.maps.entries()) {
      // A px, turned once round, lies as far from the line between keys as those are allowed to.
      expect(far(placed(now(), RIDE.first + i), carry(map, start))).toBeLessThan(0.25)
    }
  })

  it('keeps what it did before where it is let ride from a frame on', () => {
    const { shot, now } = shown()
    ridePiece(shot, 'layer-0', 'piece', RIDE)
    const before = keysOf(now().matte[0]!.motion).filter(k => k.frame < 40)
    const still = placed(now(), 30)
    const again: Ride = { first: 30, begin: 40, maps: Array.from({ length: 20 }, () => spin(0)) }
    ridePiece(shot, 'layer-0', 'piece', again)
    expect(keysOf(now().matte[0]!.motion).filter(k => k.frame < 40)).toEqual(before)
    expect(far(placed(now(), 30), still)).toBeLessThan(0.05)
    expect(far(placed(now(), 49), placed(now(), 40))).toBeLessThan(0.05)
  })
})

it.each([
  ['pinned to their layer', 'layer', 'layer'],
  ['pinned to the shot', 'shot', 'shot'],
  ['one of them pinned to the shot', 'shot', 'layer'],
] as const)('a piece that goes with another one keeps its place on it, %s', (_, leading, going) => {
  const place = {
    keys: [
      { frame: 0, value: { x: 0, y: 0, scale: 1, angle: 0 }, ease: 'linear' as const },
      { frame: 70, value: { x: 90, y: 10, scale: 1.5, angle: 20 }, ease: 'linear' as const },
    ],
  }
  const { shot, now } = shown({ place }, { pinnedTo: leading })
  ridePiece(shot, 'layer-0', 'piece', RIDE)
  const limb = { ...makePiece(makeShape('oval', { width: 64, height: 36 })), id: 'limb', pinnedTo: going }
  now().matte.unshift({ ...limb, motion: { x: 3, y: 5, angle: 10, scale: 1.1 }, pivot: { x: 7, y: 1 } })
  /** Where the middle of the oval lies in the shot. */
  const middle = (frame: number) => placed(now(), frame, shapeAt(now().matte[0]!.shape, frame) as Point)
  const start = middle(25)
  const leader = now().matte[1]!
  const mapAt = (frame: number) => {
    const own = motionMap(leader.pivot, sample(leader.motion, frame))
    return leading === 'shot' ? own : after(placeMap(now(), sample(now().place, frame)), own)
  }
  ridePieceWith(shot, 'layer-0', 'limb', 'piece', 25)
  expect(keysOf(now().matte[0]!.motion)).toEqual(keysOf(leader.motion))
  for (const frame of [10, 25, 40, 59]) {
    expect(far(middle(frame), carry(after(mapAt(frame), inverse(mapAt(25))), start))).toBeLessThan(1e-6)
  }
  // With itself, or with what does not move, it goes nowhere.
  const before = structuredClone(shot)
  ridePieceWith(shot, 'layer-0', 'limb', 'limb', 30)
  now().matte[1]!.motion = { x: 0, y: 0, angle: 0, scale: 1 }
  ridePieceWith(shot, 'layer-0', 'limb', 'piece', 30)
  expect(now().matte[0]).toEqual(before.layers[0]!.matte[0])
})

it('a layer that rides lies where it lay on it, and one that is locked stays', () => {
  const { shot, now } = shown()
  const start = placed(now(), BEGIN)
  rideLayer(shot, 'layer-0', RIDE)
  for (const i of [0, 10, 33, 49]) {
    expect(far(placed(now(), RIDE.first + i), carry(RIDE.maps[i]!, start))).toBeLessThan(0.25)
  }
  // It goes round and round without a jump.
  const angles = keysOf(now().place).map(k => k.value.angle)
  for (const [i, angle] of angles.slice(1).entries()) expect(angle).toBeGreaterThan(angles[i]!)
  const locked = shown({ locked: true })
  const place = locked.now().place
  rideLayer(locked.shot, 'layer-0', RIDE)
  expect(locked.now().place).toBe(place)
  expect(inverse(RIDE.maps[10]!)).toMatchObject({ a: 1 })
})
