// Where two takes are parted: between their people, where they differ least, as soft as hides what is left.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { changes, differencesOf, featherFor, findBend, findSeam, meanAlong, sideOf } from '.'

const SIZE = { width: 120, height: 68 }
const n = SIZE.width * SIZE.height

const field = (of: (x: number, y: number, frame: number) => number, frames = 6): Float32Array[] =>
  Array.from({ length: frames }, (_, f) =>
    Float32Array.from({ length: n }, (_, i) => of(i % SIZE.width, Math.floor(i / SIZE.width), f)),
  )

/** Two people who sway on either side, and a valley between them along which the takes agree. */
const scene = (valley: number, slope = 0) =>
  field((x, y, frame) => {
    const sway = 3 * Math.sin(frame)
    if (Math.abs(x - 25 - sway) < 9 && y > 15) return 80
    if (Math.abs(x - 96 + sway) < 9 && y > 15) return 80
    return 3 + Math.min(10, Math.abs(x - valley - slope * (y - 34)) * 0.8)
  })

it('finds the line along which two takes agree, wherever it lies between their people', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 42, max: 78 }),
      fc.double({ min: -0.15, max: 0.15, noNaN: true }),
      (valley, slope) => {
        const of = differencesOf(SIZE, scene(valley, slope))
        const line = findSeam(of, { x: 60, y: 34, angle: 0 })!
        const a = (line.angle * Math.PI) / 180
        const at = (y: number) => line.x - ((y - line.y) * Math.sin(a)) / Math.cos(a)
        for (const y of [4, 34, 64]) expect(Math.abs(at(y) - valley - slope * (y - 34))).toBeLessThan(3)
        expect(meanAlong(of, of.somebody, line)).toBe(0)
      },
    ),
    { numRuns: 12 },
  )
})

it('keeps to one side of nobody, goes where it lies where nobody is, and says where no line parts people', () => {
  // All agree everywhere: it stays.
  const empty = differencesOf(
    SIZE,
    field(() => 1),
  )
  expect(findSeam(empty, { x: 70, y: 34, angle: 4 })).toMatchObject({ angle: 4 })
  // Somebody in the middle of both sides' way is not cut in halves for the sake of a smooth wall.
  const one = differencesOf(
    SIZE,
    field((x, y) => (Math.hypot(x - 60, y - 34) < 20 ? 90 : 2)),
  )
  const found = findSeam(one, { x: 60, y: 34, angle: 0 })
  expect(found === null || meanAlong(one, one.somebody, found)! > 0).toBe(true)
})

it('is as soft as hides what is left, and no softer than there is room beside somebody', () => {
  const of = differencesOf(SIZE, scene(60))
  const line = { x: 60, y: 34, angle: 0 }
  expect(featherFor(of, line, 0.1, 8)).toBe(4)
  expect(featherFor(of, line, 5, 8)).toBe(45)
  // Thirty-three cells to either side are somebody's at times, and it may not reach there.
  const close = featherFor(of, { ...line, x: 39 }, 15, 8)
  expect(close).toBeLessThan(40)
  expect(meanAlong(SIZE, of.mean, { x: -500, y: 0, angle: 0 })).toBeNull()
})

/** Two who reach over each other's side: one at the top, one at the bottom. */
const reaching = (x: number, y: number): boolean => (y > 8 && y < 30 && x < 84) || (y > 40 && y < 62 && x > 36)

it('bends along where two takes agree, and past people between whom no straight line goes', () => {
  fc.assert(
    fc.property(fc.integer({ min: 48, max: 72 }), fc.integer({ min: 2, max: 9 }), (middle, swing) => {
      const valley = (y: number) => middle + swing * Math.sin(y / 9)
      const of = differencesOf(
        SIZE,
        field((x, y) => (Math.abs(x - 60) > 34 && y > 15 ? 80 : 1 + Math.min(12, 2 * Math.abs(x - valley(y))))),
      )
      const bend = findBend(of, { x: 60, y: 34, angle: 0 })!
      expect([bend.runs, bend.at.length]).toEqual(['down', SIZE.height])
      for (const [y, x] of bend.at.entries()) expect(Math.abs(x - valley(y))).toBeLessThan(2.5)
      expect(meanAlong(of, of.somebody, bend)).toBe(0)
    }),
    { numRuns: 20, endOnFailure: true },
  )
  const of = differencesOf(
    SIZE,
    field((x, y) => (reaching(x, y) ? 80 : 2)),
  )
  expect(meanAlong(of, of.somebody, findSeam(of, { x: 60, y: 34, angle: 0 })!)).toBeGreaterThan(0)
  const bend = findBend(of, { x: 60, y: 34, angle: 0 })!
  expect(meanAlong(of, of.somebody, bend)).toBe(0)
  expect([bend.at[20]! > 84, bend.at[50]! < 37]).toEqual([true, true])
  // Lying on its side it runs across.
  const across = findBend({ ...of, width: SIZE.height, height: SIZE.width, ...turned(of) }, { x: 34, y: 60, angle: 90 })
  expect(across).toEqual({ runs: 'across', at: bend.at })
})

/** Rows as columns. */
const turned = ({ mean, somebody }: { mean: Float32Array; somebody: Float32Array }) => {
  const turn = (of: Float32Array) => of.map((_, i) => of[(i % SIZE.height) * SIZE.width + Math.floor(i / SIZE.height)]!)
  return { mean: turn(mean), somebody: turn(somebody) }
}

it('knows on which side the people of a take are, straight or bent, whichever way its line looks', () => {
  const of = differencesOf(SIZE, scene(60))
  const variance = (frames: Float32Array[]) => {
    const changed = changes(n)
    for (const frame of frames) changed.add(frame)
    return changed.variance()
  }
  const person = (at: number) =>
    variance(field((x, y, f) => (Math.abs(x - at - 3 * Math.sin(f)) < 9 && y > 15 ? 120 : 60)))
  const [left, right, nobody] = [person(25), person(96), variance(field(() => 60))]
  const line = { x: 60, y: 34, angle: 0 }
  const away = { ...line, angle: 180 }
  const bend = { runs: 'down' as const, at: Array.from({ length: SIZE.height }, (_, y) => 58 + (y % 5)) }
  for (const seam of [line, bend]) {
    expect(sideOf(of, seam, line, right, left)).toBe('ahead')
    expect(sideOf(of, seam, line, left, right)).toBe('behind')
    expect(sideOf(of, seam, away, left, right)).toBe('ahead')
    // Before an empty set, one that moves says enough.
    expect(sideOf(of, seam, line, left, nobody)).toBe('behind')
    expect(sideOf(of, seam, line, nobody, nobody)).toBe('unclear')
    expect(sideOf(of, seam, line, right, right)).toBe('unclear')
  }
})
