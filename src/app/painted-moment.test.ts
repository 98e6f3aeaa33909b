import { expect, it } from 'vitest'
import type { Take } from '../core/shot'
import { testLayer, testTake } from '../testing/documents'
import { paintedMoment } from './painted-moment'

it('is the same for all frames of a shot that show one of the take', () => {
  const take = testTake(0) as Take & { picture: { kind: 'film' } }
  const rate = { num: 25, den: 1 }
  const takes = [{ ...take, picture: { ...take.picture, rate } }]
  const slow = testLayer(0, { timing: { kind: 'play', from: 1, speed: 0.5, mixed: null } })
  const at = [10, 11, 12, 13].map(frame => paintedMoment(slow, frame, rate, takes))
  expect(at).toEqual([1.2, 1.2, 1.24, 1.24])
  // A still has no frames: any moment will do.
  expect(paintedMoment(slow, 11, rate, [{ ...take, picture: null }])).toBeCloseTo(1.22)
})
