// On a made-up clip whose outline is known at every frame.
import { describe, expect, it } from 'vitest'
import { evenKeys, LENGTH, meanError, proposedKeys, REACH } from '../../testing/moving-outlines'
import { type Looked, worstFrame } from '.'

describe('the frame that is proposed', () => {
  it('is where it pays: ten keys put there leave less than 0.6 of what ten even ones leave', () => {
    const keys = proposedKeys()
    expect(keys).toHaveLength(10)
    expect(new Set(keys).size).toBe(10)
    expect(keys.at(-1)).toBe(LENGTH - 1)
    expect(meanError(keys) / meanError(evenKeys())).toBeLessThan(0.6)
  })

  it('is none where every frame has a key, and the middle where nothing can be seen', () => {
    const blank = { across: [0, 0], strength: [0, 0], length: 9 }
    const at = (frame: number, isKey: boolean): Looked => ({ frame, isKey, edges: blank, change: 0 })
    expect(worstFrame([at(0, true), at(1, true)], REACH)).toBeNull()
    expect(worstFrame([], REACH)).toBeNull()
    const frames = Array.from({ length: 21 }, (_, f) => at(f, f % 20 === 0))
    expect(worstFrame(frames, REACH)).toBe(10)
  })
})
