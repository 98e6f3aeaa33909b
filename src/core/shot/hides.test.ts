// Which layers let nothing be seen of what lies behind them.
import { expect, it } from 'vitest'
import { testLayer, testProject } from '../../testing/documents'
import { edits, endsEarly, hiddenBy, hidesOthers, type Layer } from '.'

const CHANGES: Record<string, Partial<Layer>> = {
  'half there': { opacity: 0.5 },
  'on its way': { opacity: { keys: [{ frame: 0, value: 1, ease: 'linear' }] } },
  added: { blend: 'add' },
  'faded in': { fade: { in: 5, out: 0 } },
  off: { on: false },
  'over before the other begins': { span: { from: -40, to: 0 } },
}

it('is said of a film that fills the frame in front of another, and of nothing less', () => {
  const { shot, takes } = testProject([testLayer(0), testLayer(1)])
  const [near, far] = shot.layers as [Layer, Layer]
  expect(hidesOthers(near, shot, takes)).toBe(true)
  expect(hidesOthers(far, shot, takes)).toBe(false)
  expect(hiddenBy(far, shot, takes)).toBe(near)
  expect(hiddenBy(near, shot, takes)).toBe(null)
  expect(hiddenBy({ ...far, span: { ...far.span, to: far.span.to + 1 } }, shot, takes)).toBe(null)
  for (const [name, change] of Object.entries(CHANGES)) {
    const [first] = [{ ...near, ...change }]
    expect(hidesOthers(first, { ...shot, layers: [first, far] }, takes), name).toBe(false)
  }
  const place = { ...(near.place as { x: number; y: number; scale: number; angle: number }) }
  for (const moved of [
    { ...place, x: place.x + 3 },
    { ...place, scale: place.scale * 0.9 },
    { ...place, angle: 2 },
  ]) {
    const first = { ...near, place: moved }
    expect(hidesOthers(first, { ...shot, layers: [first, far] }, takes), JSON.stringify(moved)).toBe(false)
  }
  // Mirrored it fills it as well.
  const mirrored = { ...near, flip: { across: true, down: false } }
  expect(hidesOthers(mirrored, { ...shot, layers: [mirrored, far] }, takes)).toBe(true)
  edits.addPiece(shot, near.id, edits.startPiece('oval', shot.size))
  expect(hidesOthers(shot.layers[0]!, shot, takes)).toBe(false)
})

it('ends early where a take plays to its end before the shot’s, until it stands', () => {
  const { shot } = testProject([testLayer(0), testLayer(1, { span: { from: 0, to: 12 } })])
  const far = () => shot.layers[1]!
  expect([shot.layers[0]!, far()].map(layer => endsEarly(layer, shot))).toEqual([false, true])
  edits.standLayer(shot, far().id, 40)
  expect(endsEarly(far(), shot)).toBe(false)
  expect(far().span.to).toBe(shot.length)
})
