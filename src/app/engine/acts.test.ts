import { beforeEach, expect, it } from 'vitest'
import { testProject, testTake } from '../../testing/documents'
import {
  frameShown,
  opened,
  projectOf,
  shotOf,
  stagedFrame,
  stagedShot,
  store,
  takeClosed,
  takeOpened,
  takeRemoved,
  undo,
  viewReset,
} from '../store'
import { canMark, keepAct, markIn, markOut } from './acts'
import { placeActs, placePlate, placeTake } from './place'

const { digest } = testTake(0)
const take = () => projectOf(store.getState())!.takes[0]!
const at = (frame: number) => store.dispatch(frameShown(frame))

beforeEach(() => {
  store.dispatch(opened(testProject()))
  store.dispatch(viewReset({ frame: 33 }))
})

it('looks at a take alone and comes back to where it was', () => {
  expect(canMark()).toBe(false)
  store.dispatch(takeOpened(digest))
  expect(stagedShot(store.getState())).toMatchObject({ name: 'take-0.mp4', length: 100 })
  expect(stagedFrame(store.getState())).toBe(0)
  at(70)
  store.dispatch(takeClosed())
  expect(store.getState().view.frame).toBe(33)
  expect(stagedShot(store.getState())).toBe(shotOf(store.getState()))
})

it('marks in and out on whole frames, the out frame included, and lets neither pass the other', () => {
  store.dispatch(takeOpened(digest))
  at(25)
  markIn()
  expect(take().marked).toEqual({ from: 1, to: 4 })
  at(49)
  markOut()
  expect(take().marked).toEqual({ from: 1, to: 2 })
  at(75)
  markIn()
  expect(take().marked).toEqual({ from: 3, to: 4 })
  at(24)
  markOut()
  expect(take().marked).toEqual({ from: 0, to: 1 })
})

it('keeps acts, and places them together at the playhead of the shot', () => {
  store.dispatch(takeOpened(digest))
  for (const [from, to] of [
    [0, 24],
    [50, 99],
  ] as const) {
    at(from)
    markIn()
    at(to)
    markOut()
    keepAct()
  }
  keepAct()
  expect(take()).toMatchObject({ marked: null, acts: [{ name: 'Act 1' }, { name: 'Act 2' }] })
  placeActs(take(), take().acts)
  const { view } = store.getState()
  expect(view.take).toBeNull()
  expect(
    shotOf(store.getState())!
      .layers.slice(0, 2)
      .map(l => [l.name, l.span]),
  ).toEqual([
    ['Act 1', { from: 33, to: 58 }],
    ['Act 2', { from: 33, to: 83 }],
  ])
  expect([view.layer, ...view.others]).toHaveLength(2)
})

it('puts a plate farthest over all of the shot, one frame of it standing still, and undo takes it back', () => {
  const before = projectOf(store.getState())
  for (const [stretch, timing] of [
    [
      { from: 0.5, to: 1 },
      { kind: 'loop', from: 0.5, to: 1, style: 'swing' },
    ],
    [
      { from: 0, to: 0 },
      { kind: 'freeze', at: 0 },
    ],
  ] as const) {
    placePlate(take(), stretch)
    const { layers, length } = shotOf(store.getState())!
    expect(layers.at(-1)).toMatchObject({ name: 'Plate', span: { from: 0, to: length }, timing, sound: { on: false } })
    store.dispatch(undo())
    expect(projectOf(store.getState())).toEqual(before)
  }
})

it('removes a take with its layers, and undo brings all back', () => {
  placeTake(take(), {})
  const before = projectOf(store.getState())
  store.dispatch(takeRemoved(digest))
  expect(projectOf(store.getState())!.takes).toHaveLength(2)
  expect(shotOf(store.getState())!.layers.map(l => l.id)).toEqual(['layer-1'])
  store.dispatch(undo())
  expect(projectOf(store.getState())).toEqual(before)
})
