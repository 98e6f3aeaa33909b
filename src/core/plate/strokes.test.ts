// Strokes: which of them bear on a moment, and what they say of the frames beside theirs.
import { beforeAll, describe, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { recipeKey } from '../recipe'
import type { Kernels } from '../render'
import { addHint, blankCells, cutOf, cutoutRecipe, hintOf, type Stroke } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const stroke = (at: number, does: Stroke['does'] = 'keep', x = 30): Stroke => ({
  at,
  does,
  size: 6,
  points: [
    { x, y: 20 },
    { x, y: 44 },
  ],
})

describe('which strokes bear on a moment', () => {
  const cut = { plate: 'p', from: 0, to: 1, sensitive: 50, shadow: 100 }
  const at = (strokes: Stroke[], seconds: number) =>
    cutOf(cutoutRecipe('take', { ...cut, strokes }, seconds)).strokes.map(s => s.at)

  it('those of the nearest painted frames before and after it, and on a painted frame its own alone', () => {
    const strokes = [stroke(1), stroke(2), stroke(2, 'lose'), stroke(3)]
    expect(at(strokes, 1.5)).toEqual([1, 2, 2])
    expect(at(strokes, 2)).toEqual([2, 2])
    expect(at(strokes, 2.04)).toEqual([2, 2, 3])
    expect(at(strokes, 0.2)).toEqual([1])
    expect(at(strokes, 4.4)).toEqual([3])
  })

  it('none of those that are far, so that what is far is not made anew', () => {
    const key = (strokes: Stroke[] | undefined, seconds: number) =>
      recipeKey(cutoutRecipe('take', { ...cut, ...(strokes && { strokes }) }, seconds))
    expect(key([stroke(3)], 1)).toBe(key(undefined, 1))
    expect(key([stroke(3)], 1.7)).not.toBe(key(undefined, 1.7))
    expect(key([stroke(3), stroke(9)], 3)).toBe(key([stroke(3)], 3))
  })
})

describe('what a stroke says', () => {
  /** A wall with a bar of another grey that moves by two cells a frame. */
  function picture(frame: number) {
    const cells = blankCells(k, { width: 96, height: 64 })
    for (let i = 0; i < cells.y.length; i++) {
      const x = i % cells.width
      cells.y[i] = Math.abs(x - 15 - frame * 2) < 4 ? 90 : 140 + (x % 3)
    }
    return cells
  }
  const said = (does: Stroke['does'], apart: number) => {
    const odds = new Float32Array(48 * 32)
    addHint(hintOf(stroke(0, does), picture(0)), picture(apart), apart, odds)
    return (x: number, y: number) => odds[y * 48 + x]!
  }

  it('is certain under it on its own frame, and nothing beside it', () => {
    const [keep, lose] = [said('keep', 0), said('lose', 0)]
    expect(keep(15, 16)).toBeGreaterThan(30)
    expect(lose(15, 16)).toBeLessThan(-30)
    expect([keep(21, 16), keep(15, 2), lose(10, 16)]).toEqual([0, 0, 0])
  })

  it('goes with what looks alike where it is kept, stays where it is lost, and fades', () => {
    const keep = said('keep', 2)
    expect(keep(18, 16)).toBeGreaterThan(5)
    // What was under it is wall by now.
    expect(keep(12, 16)).toBe(0)
    const lose = said('lose', 2)
    expect(lose(18, 16)).toBeLessThan(0)
    expect(lose(22, 16)).toBe(0)
    expect(said('keep', 30)(48 - 1, 16)).toBe(0)
    expect(Math.abs(said('lose', 1)(16, 16))).toBeGreaterThan(Math.abs(lose(18, 16)))
  })
})
