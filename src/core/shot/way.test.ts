// The way that a layer and its pieces take through the picture.
import { expect, it } from 'vitest'
import { testLayer } from '../../testing/documents'
import { edits, type Layer, type Piece, wayOf } from '.'

const SIZE = { width: 640, height: 360 }

/** A layer that goes to the right by 2 px a frame at half its size, with an oval that goes down by 3 of its own px. */
function moving(): { layer: Layer; piece: Piece } {
  const piece = edits.startPiece('oval', SIZE)
  piece.motion = {
    keys: [
      { frame: 0, value: { x: 0, y: 0, scale: 1, angle: 0 }, ease: 'linear' },
      { frame: 10, value: { x: 0, y: 30, scale: 1, angle: 0 }, ease: 'linear' },
    ],
  }
  const place = (x: number) => ({ x, y: 180, scale: 0.5, angle: 0 })
  const layer = testLayer(0, {
    anchor: { x: 320, y: 180 },
    place: {
      keys: [
        { frame: 0, value: place(100), ease: 'linear' },
        { frame: 10, value: place(120), ease: 'linear' },
      ],
    },
    matte: [piece],
  })
  return { layer, piece }
}

it('is the layer’s own, or with a piece pinned to it what both do, or that of a piece pinned to the shot alone', () => {
  const { layer, piece } = moving()
  expect(wayOf(layer, null, 0, 3)).toEqual([100, 102, 104].map(x => ({ x, y: 180 })))
  const { x, y } = piece.pivot
  const inLayer = wayOf(layer, { ...piece, pinnedTo: 'layer' }, 0, 3)
  inLayer.forEach((p, f) => {
    expect(p.x).toBeCloseTo(100 + 2 * f + (x - 320) / 2)
    expect(p.y).toBeCloseTo(180 + (y + 3 * f - 180) / 2)
  })
  expect(wayOf(layer, { ...piece, pinnedTo: 'shot' }, 4, 5)).toEqual([{ x, y: y + 12 }])
  expect(wayOf(layer, piece, 5, 5)).toEqual([])
})
