// A shape that moves while the shutter is open, against sixty-four moments of it.

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../testing/documents'
import { flat } from '../../testing/flat'
import { testKernels } from '../../testing/kernels'
import { planFrame } from '../plan'
import type { Kernels } from '../render'
import { openShape } from '../shape'
import { edits, makePiece, makeShape, type Shot } from '../shot'
import { openMatte } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const SIZE = { width: 160, height: 90 }

/** A shot with one piece that goes across by so many px a frame, turning as it goes. */
function moving(kind: 'edge' | 'box' | 'oval' | 'outline', perFrame: number, turn: number, shutter: number): Shot {
  const shot = testShot([testLayer(0, { matte: [{ ...makePiece(makeShape('box', SIZE)), id: 'piece' }] })])
  shot.size = SIZE
  if (kind !== 'box') edits.swapShape(shot, 'layer-0', 'piece', kind, SIZE, [])
  const still = { x: 0, y: 0, scale: 1, angle: 0 }
  const middle = { x: 80, y: 45 }
  edits.changePiece(shot, 'layer-0', 'piece', { pinnedTo: 'shot', blur: { shutter, phase: -shutter / 2 } })
  edits.movePiece(shot, 'layer-0', 'piece', 0, { ...still, x: -5 * perFrame }, true, middle)
  edits.movePiece(shot, 'layer-0', 'piece', 10, { ...still, x: 5 * perFrame, angle: 10 * turn }, true, middle)
  edits.easeKey(shot, 'layer-0', { of: 'motion', piece: 'piece' }, 0, 'linear')
  return shot
}

const pieceAt = (shot: Shot, frame: number) => planFrame(shot, frame).layers[0]!.matte[0]!

function matteOf(shot: Shot, frame: number): number[] {
  return k.scope(() => {
    const [out, spare] = [k.alloc(SIZE.width * 4 + 64), k.alloc(SIZE.width * 4 + 64)]
    const row = openMatte(k, [pieceAt(shot, frame)], flat(SIZE))
    return Array.from({ length: SIZE.height }, (_, y) => {
      row(y, out, spare)
      return [...k.floats(out, SIZE.width)]
    }).flat()
  })
}

/** The mean of the piece at moments spread evenly over the time that the shutter is open. */
function meanOf(shot: Shot, frame: number, shutter: number, moments: number): number[] {
  const sum = new Array<number>(SIZE.width * SIZE.height).fill(0)
  const still = structuredClone(shot)
  edits.changePiece(still, 'layer-0', 'piece', { blur: { shutter: 0, phase: 0 } })
  for (let i = 0; i < moments; i++) {
    const at = frame + (shutter * ((i + 0.5) / moments - 0.5)) / 360
    const { shape } = pieceAt(still, at)
    k.scope(() => {
      const out = k.alloc(SIZE.width * 4 + 64)
      const { top, bottom, row } = openShape(k, shape, { grow: 0, inside: 0, outside: 0 }, flat(SIZE))
      for (let y = Math.max(0, top); y < Math.min(SIZE.height, bottom); y++) {
        row(y, out)
        k.floats(out, SIZE.width).forEach((c, x) => {
          sum[y * SIZE.width + x]! += c / moments
        })
      }
    })
  }
  return sum
}

describe('a piece that blurs as it moves', () => {
  it('covers what sixty-four moments of it cover, at the cost of few', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('edge' as const, 'box' as const, 'oval' as const, 'outline' as const),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: -6, max: 6 }),
        fc.constantFrom(90, 180, 360),
        (kind, perFrame, turn, shutter) => {
          const shot = moving(kind, perFrame, turn, shutter)
          expect(pieceAt(shot, 5).sweep.length).toBeLessThanOrEqual(64)
          const truth = meanOf(shot, 5, shutter, 64)
          const differ = matteOf(shot, 5).map((c, i) => Math.abs(c - truth[i]!))
          // Corners of boxes are themselves sampled.
          expect(Math.max(...differ)).toBeLessThan(0.07)
          expect(differ.reduce((a, b) => a + b) / differ.length).toBeLessThan(0.002)
        },
      ),
      { numRuns: 24 },
    )
  })

  it('is as it is where it stands still, and whole where all moments cover', () => {
    expect(pieceAt(moving('box', 0, 0, 180), 5).sweep).toEqual([])
    expect(pieceAt(moving('box', 9, 0, 0), 5).sweep).toEqual([])
    const shot = moving('box', 8, 0, 180)
    expect(pieceAt(shot, 5).sweep.length).toBeLessThanOrEqual(8)
    const matte = matteOf(shot, 5)
    expect(matte[45 * SIZE.width + 80]).toBe(1)
    // Four px of movement: a ramp as wide, half-way where the border is at the frame.
    const ramp = matte.slice(45 * SIZE.width + 52, 45 * SIZE.width + 64)
    expect(ramp.filter(c => c > 0 && c < 1).length).toBeGreaterThanOrEqual(4)
  })
})
