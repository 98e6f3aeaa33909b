// What moves in a take, there and back, through the frame store: a sheet of cloth that turns.
import { beforeAll, expect, it } from 'vitest'
import type { Point } from '../core/affine'
import { project, projectAfter, type Quad, unproject } from '../core/projective'
import type { Kernels } from '../core/render'
import { testKernels } from '../testing/kernels'
import { filmSheet, SHEET_SIZE, sheetAt } from '../testing/sheet'
import { grainOf } from '../testing/texture'
import { followMoves, type Inside } from './follow'
import { frameStore } from './frames'
import type { OpenSequence } from './sequence'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const COUNT = 14
const FROM = 5
const { width, height } = SHEET_SIZE

/** Frames 10 and more of the sheet, by when it has begun to turn. */
const BEGUN = 10

/** Slips of the sheet that part from each other from the tenth frame on: px wide, and px of a frame by which each goes farther down than the one before. */
const [SLIP, PARTING] = [24, 3]

/** With a strip that hides two of the marks from the tenth frame on, cut into slips from there on, or plain. */
function sequence(kind: 'clear' | 'hidden' | 'cut' | 'plain'): OpenSequence {
  const grain = grainOf()
  const decode = async (i: number) => {
    const values = new Float32Array(width * height)
    if (kind === 'plain') values.fill(90)
    else filmSheet(BEGUN + i, kind === 'hidden' && i >= 10 ? 205 : null, grain, values)
    const data = new Uint8ClampedArray(values.length * 4).fill(255)
    const down = (x: number) => (kind === 'cut' && i >= 10 ? Math.floor(x / SLIP - 6) * PARTING * (i - 9) : 0)
    for (const p of values.keys()) {
      const [x, y] = [p % width, Math.floor(p / width)]
      const from = Math.max(0, Math.min(height - 1, y - down(x)))
      data.fill(values[from * width + x]!, p * 4, p * 4 + 3)
    }
    return { ...SHEET_SIZE, data }
  }
  const rate = { num: 25, den: 1 }
  return {
    kind: 'sequence',
    name: 'sheet.zip',
    type: 'application/zip',
    rate,
    count: COUNT,
    decode,
    close() {},
  } as unknown as OpenSequence
}

/** Places of the sheet as frame `FROM` shows them. */
const onIt = (points: readonly (readonly [number, number])[]): Point[] =>
  points.map(([x, y]) => project(sheetAt(BEGUN + FROM), { x, y }))

const CORNERS = onIt([
  [85, 55],
  [235, 55],
  [235, 145],
  [85, 145],
])
const MARKS = onIt([
  [104, 74],
  [214, 72],
  [216, 128],
  [102, 126],
]) as unknown as Quad

it.each<[string, Inside, number]>([
  ['a surface, in perspective', { surface: CORNERS }, 0.15],
  ['four points that it hangs on', { marks: MARKS }, 0.6],
  ['what is inside of it, as a turn, a scale and a shift', { corners: CORNERS }, 6],
])('tells where corners go there and back: %s', async (_, what, within) => {
  const store = frameStore(k, 16 << 20)
  store.add('sheet', sequence('clear'))
  const moved = await followMoves(k, store, await store.counted('sheet'), FROM, what, { from: 0, to: COUNT })
  expect(moved.map(m => m.frame)).toEqual(Array.from({ length: COUNT }, (_, i) => i))
  const start = unproject(sheetAt(BEGUN + FROM))
  for (const { frame, move, sure } of moved) {
    expect(sure).toBeGreaterThan(0.7)
    const truth = projectAfter(sheetAt(BEGUN + frame), start)
    for (const p of CORNERS) {
      const [one, other] = [project(move!, p), project(truth, p)]
      expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeLessThan(within)
    }
  }
  await store.close()
})

it('lets points that are hidden go with the others, and says how sure it is then', async () => {
  const store = frameStore(k, 16 << 20)
  store.add('sheet', sequence('hidden'))
  const take = await store.counted('sheet')
  const moved = await followMoves(k, store, take, FROM, { marks: MARKS }, { from: 0, to: COUNT })
  const start = unproject(sheetAt(BEGUN + FROM))
  for (const { frame, move, sure } of moved) {
    expect(sure > 0.7).toBe(frame < 10)
    for (const p of MARKS) {
      const [one, other] = [project(move!, p), project(projectAfter(sheetAt(BEGUN + frame), start), p)]
      expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeLessThan(frame < 10 ? 0.6 : 8)
    }
  }
  await store.close()
})

it('is lost where what is inside no longer keeps together', async () => {
  const store = frameStore(k, 16 << 20)
  store.add('sheet', sequence('cut'))
  const take = await store.counted('sheet')
  const moved = await followMoves(k, store, take, FROM, { corners: CORNERS }, { from: 0, to: COUNT })
  expect(moved.flatMap(m => (m.move ? [] : [m.frame]))).toEqual([12, 13])
  await store.close()
})

it('says in words where there is nothing to hold on to, and ends where nobody wants to know more', async () => {
  const store = frameStore(k, 16 << 20)
  store.add('plain', sequence('plain'))
  store.add('sheet', sequence('clear'))
  const [plain, sheet] = [await store.counted('plain'), await store.counted('sheet')]
  const all = { from: 0, to: COUNT }
  await expect(followMoves(k, store, plain, FROM, { surface: CORNERS }, all)).rejects.toThrow(/inside of the corners/)
  await expect(followMoves(k, store, plain, FROM, { marks: MARKS }, all)).rejects.toThrow(/one of the corners/)
  await expect(followMoves(k, store, plain, FROM, { point: MARKS[0] }, all)).rejects.toThrow(/at this point/)
  const some = await followMoves(k, store, sheet, FROM, { marks: MARKS }, all, done => done < 4)
  expect(some).toHaveLength(4)
  await store.close()
})
