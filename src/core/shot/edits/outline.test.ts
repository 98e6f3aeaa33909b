import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../../testing/documents'
import { roundOutline } from '../../../testing/outlines'
import { keysOf, type Value } from '../../keys'
import { curveFrom, type OutlinePoint, pointOn } from '../../outline'
import { planFrame } from '../../plan'
import { shapeAt, shapeValue } from '../../shape'
import { edits, makePiece, makeShape, type Shot, workOf } from '..'

const FLAT = { inX: 0, inY: 0, outX: 0, outY: 0 }
const SIZE = { width: 640, height: 360 }

function withOutline(points: Value<OutlinePoint[]>): Shot {
  const matte = [{ ...makePiece({ kind: 'outline', points }), id: 'outline' }]
  return testShot([testLayer(0, { matte })])
}

const shapeOf = (shot: Shot) => shot.layers[0]!.matte[0]!.shape
const at = (shot: Shot, frame: number) => shapeAt(shapeOf(shot), frame) as OutlinePoint[]
const keys = (shot: Shot) => keysOf(shapeValue(shapeOf(shot)) as Value<OutlinePoint[]>)
const moved = (points: readonly OutlinePoint[], by: number) => points.map(p => ({ ...p, x: p.x + by }))
const key = (frame: number, value: OutlinePoint[]) => ({ frame, value, ease: 'linear' as const })

describe('an outline', () => {
  it('gets a key where keying is on, and shifts as a whole where it is off', () => {
    fc.assert(
      fc.property(roundOutline(200), points => {
        const still = withOutline(points)
        edits.reshapeOutline(still, 'layer-0', 'outline', 5, moved(points, 9), false)
        expect(keys(still)).toHaveLength(0)
        expect(at(still, 90)).toEqual(moved(points, 9))

        const shot = withOutline(points)
        edits.reshapeOutline(shot, 'layer-0', 'outline', 0, points, true)
        edits.reshapeOutline(shot, 'layer-0', 'outline', 10, moved(points, 50), true)
        expect(keys(shot).map(k => [k.frame, k.ease])).toEqual([
          [0, 'linear'],
          [10, 'linear'],
        ])
        // Between the two keys, without keying: both go along, by as much.
        edits.reshapeOutline(shot, 'layer-0', 'outline', 5, moved(at(shot, 5), -7), false)
        expect(keys(shot)).toHaveLength(2)
        for (const [frame, by] of [
          [0, -7],
          [5, 18],
          [10, 43],
        ] as const)
          at(shot, frame).forEach((p, i) => {
            expect(p.x).toBeCloseTo(points[i]!.x + by, 6)
          })
      }),
      { numRuns: 20 },
    )
  })

  it('keeps every key as it is when a point is added, and when it is taken away again', () => {
    fc.assert(
      fc.property(roundOutline(200), fc.nat(), fc.integer({ min: 1, max: 9 }), (points, n, tenth) => {
        const other = moved(points, 80).map(p => ({ ...p, y: p.y * 1.4, outX: p.outX + 9 }))
        const shot = withOutline({ keys: [key(0, points), key(20, other)] })
        const [i, t] = [n % points.length, tenth / 10]
        edits.addOutlinePoint(shot, 'layer-0', 'outline', i, t)
        for (const [frame, was] of [
          [0, points],
          [20, other],
        ] as const) {
          const now = at(shot, frame)
          expect(now).toHaveLength(points.length + 1)
          for (const u of [0, 0.3, 0.8]) {
            const place = pointOn(curveFrom(now, i), u)
            const before = pointOn(curveFrom(was, i), u * t)
            expect(Math.hypot(place.x - before.x, place.y - before.y)).toBeLessThan(0.01)
          }
        }
        edits.removeOutlinePoints(shot, 'layer-0', 'outline', [i + 1])
        expect(at(shot, 20)).toHaveLength(points.length)
        at(shot, 20).forEach((p, j) => {
          expect(p.x).toBeCloseTo(other[j]!.x, 6)
        })
      }),
      { numRuns: 30 },
    )
  })

  it('is what an edge, a box or an oval was, keys and all', () => {
    for (const kind of ['box', 'oval', 'edge'] as const) {
      const shot = withOutline([])
      const piece = { ...makePiece(makeShape(kind, SIZE)), id: 'piece' }
      shot.layers[0]!.matte = [piece]
      const path = { of: 'shape', piece: 'piece' } as const
      const first = shapeAt(piece.shape, 0) as { x: number }
      edits.putKey(shot, 'layer-0', path, 0, first)
      edits.putKey(shot, 'layer-0', path, 30, { ...first, x: first.x + 100 })
      edits.swapShape(shot, 'layer-0', 'piece', 'outline', SIZE, [])
      expect(keys(shot).map(k => k.frame)).toEqual([0, 30])
      at(shot, 30).forEach((p, i) => {
        expect(p.x - at(shot, 0)[i]!.x).toBeCloseTo(100, 6)
      })
    }
  })

  it('is begun anew only by drawing, and takes no more points than it may have', () => {
    const three = [0, 1, 2].map(i => ({ x: i, y: i * i, inX: 0, inY: 0, outX: 0, outY: 0 }))
    const shot = withOutline({ keys: [key(0, three), key(9, three)] })
    // A drag that goes on after a point was taken away must not take the keys with it.
    edits.reshapeOutline(shot, 'layer-0', 'outline', 4, three.slice(1), true)
    expect(keys(shot)).toEqual([key(0, three), key(9, three)])
    edits.drawOutline(shot, 'layer-0', 'outline', 4, three.slice(1), true)
    expect(keys(shot)).toEqual([key(4, three.slice(1))])
    edits.drawOutline(shot, 'layer-0', 'outline', 4, new Array(5001).fill(three[0]), true)
    expect(at(shot, 4)).toHaveLength(2)
  })
})

describe('a piece', () => {
  const planned = (shot: Shot, frame: number) => planFrame(shot, frame).layers[0]!.matte[0]?.shape

  it('moves as a whole by keys of its own, turned and grown about where it was first taken hold of', () => {
    const points = [0, 1, 2, 3].map(i => ({ x: 100 + 40 * (i & 1), y: 100 + 40 * (i >> 1), ...FLAT }))
    const shot = withOutline({ keys: [key(0, points), key(20, moved(points, 10))] })
    shot.layers[0]!.place = { x: 0, y: 0, scale: 1, angle: 0 }
    shot.layers[0]!.anchor = { x: 0, y: 0 }
    const middle = { x: 120, y: 120 }
    const still = { x: 0, y: 0, scale: 1, angle: 0 }
    edits.movePiece(shot, 'layer-0', 'outline', 0, still, true, middle)
    edits.movePiece(shot, 'layer-0', 'outline', 20, { x: 50, y: 0, scale: 2, angle: 90 }, true, { x: 9, y: 9 })
    expect(planned(shot, 0)).toMatchObject({ points: points.map(({ x, y }) => ({ x, y })) })
    // At the last key each point lies ten px on, then turned and twice as far from the pivot, then shifted.
    const last = planned(shot, 20) as { points: OutlinePoint[] }
    points.forEach(({ x, y }, i) => {
      expect(last.points[i]!.x).toBeCloseTo(120 + 50 - 2 * (y - 120), 6)
      expect(last.points[i]!.y).toBeCloseTo(120 + 2 * (x + 10 - 120), 6)
    })
    expect(keys(shot)).toHaveLength(2)
  })

  it('is there only where it is used, and costs nothing elsewhere', () => {
    const shot = withOutline([])
    edits.limitPiece(shot, 'layer-0', 'outline', 10, 'from')
    edits.limitPiece(shot, 'layer-0', 'outline', 20, 'until')
    const there = [0, 9, 10, 15, 20, 21, 90].map(frame => planned(shot, frame) !== undefined)
    expect(there).toEqual([false, false, true, true, true, false, false])
    edits.setValue(shot, 'layer-0', { of: 'on', piece: 'outline' }, 40, true)
    expect(planned(shot, 50)).toBeDefined()
    expect(planned(shot, 30)).toBeUndefined()
  })
})

describe('pieces of a layer', () => {
  it('are copied within it and onto others, brought elsewhere in order, and mirrored', () => {
    const points = [0, 1, 2].map(i => ({ x: 10 * i, y: i * i, ...FLAT, outX: 3 }))
    const shot = testShot([
      testLayer(0, { matte: [{ ...makePiece({ kind: 'outline', points }), id: 'outline' }] }),
      testLayer(1),
    ])
    const matte = (layer: number) => shot.layers[layer]!.matte.map(p => p.id)
    edits.copyPiece(shot, 'layer-0', 'outline', 'layer-0', 'two')
    edits.copyPiece(shot, 'layer-0', 'outline', 'layer-1', 'three')
    edits.copyPiece(shot, 'layer-0', 'outline', 'layer-1', 'three')
    expect([matte(0), matte(1)]).toEqual([['outline', 'two'], ['three']])
    edits.mirrorOutline(shot, 'layer-1', 'three', 10)
    const copy = shapeAt(shot.layers[1]!.matte[0]!.shape, 0) as OutlinePoint[]
    expect(copy.map(p => [p.x, p.outX])).toEqual([
      [20, -3],
      [10, -3],
      [0, -3],
    ])
    expect(at(shot, 0)).toEqual(points)
    edits.reorderPiece(shot, 'layer-0', 'outline', 7)
    expect(matte(0)).toEqual(['two', 'outline'])
    edits.reorderPiece(shot, 'layer-0', 'outline', 0)
    expect(matte(0)).toEqual(['outline', 'two'])
  })
})

it('counts what outlines cost, so that none is opened that would keep a machine for minutes', () => {
  const points = Array.from({ length: 5000 }, (_, i) => ({ x: i % 70, y: i % 90, ...FLAT }))
  const hostile = (blur: number) => {
    const piece = { ...makePiece({ kind: 'outline', points: { keys: [key(0, points)] } }) }
    return { ...piece, id: `p${blur}`, blur: { shutter: blur, phase: 0 } }
  }
  const frame = SIZE.width * SIZE.height
  const shot = { ...testShot([testLayer(0, { matte: [hostile(0)] })]), size: SIZE }
  expect(workOf(shot)).toBe(frame * 51)
  shot.layers[0]!.matte.push(hostile(180))
  expect(workOf(shot)).toBe(frame * (51 + 50 * 16))
  shot.layers[0]!.matteOn = false
  expect(workOf(shot)).toBe(frame)
})
