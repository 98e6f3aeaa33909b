// Whatever is done with whatever numbers: what is made can be opened again, or is refused with a sentence.
import fc from 'fast-check'
import { beforeEach, expect, it } from 'vitest'
import { parseProject, salvage } from '../../core/door'
import { corner } from '../../core/outline'
import { cornersAt, quadOf } from '../../core/projective'
import { LIMITS, makeLettering, makePanel, makePiece, makeShape, workOf } from '../../core/shot'
import { testLayer, testProject, testShot } from '../../testing/documents'
import { edit, editIn, gestureLeft, opened, projectOf, store, takeChanged, takesAdded, undo, viewReset } from '.'
import type { EditName } from './project'

const square = [0, 1, 2, 3].map(i => corner({ x: 30 * (i & 1), y: 30 * (i >> 1) }))
const drawn = {
  keys: [0, 20].map(frame => ({ frame, value: square.map(p => ({ ...p, x: p.x + frame })), ease: 'linear' as const })),
}
const keyed = (i: number) =>
  testLayer(i, {
    looks: [{ id: 'look', kind: 'light', on: true, values: { exposure: 1, red: 0, blue: 0, offset: 0 } }],
    matte: [
      { ...makePiece(makeShape('box', { width: 64, height: 36 })), id: 'piece', pinnedTo: 'shot' },
      { ...makePiece({ kind: 'outline', points: drawn }), id: 'outline' },
      { ...makePiece({ kind: 'strip', points: square.map(p => ({ ...p, width: 4 })) }), id: 'strip' },
    ],
    opacity: {
      keys: [
        { frame: 0, value: 0.2, ease: 'linear' },
        { frame: 20_000, value: 1, ease: 'smooth' },
      ],
    },
  })
const corners = cornersAt(quadOf({ left: 0, top: 0, right: 64, bottom: 36 }))
const pinned = {
  box: { left: 0, top: 0, right: 64, bottom: 36 },
  corners: {
    keys: [0, 20].map(frame => ({
      frame,
      value: { ...corners, topLeft: { x: frame, y: 1 } },
      ease: 'linear' as const,
    })),
  },
}
const base = testShot([])
const drawnLayers = [
  { ...makeLettering(base, 'Words', ['a'.repeat(64)]), id: 'letters' },
  { ...makePanel(base, 'oval'), id: 'panel' },
]
const project = testProject([
  keyed(0),
  testLayer(1, { copies: { count: 3, later: 2, x: 4, y: 0, keep: 1 } }),
  { ...keyed(2), pin: pinned },
  ...drawnLayers,
])
const { takes } = project
const now = () => projectOf(store.getState())!
const refusal = () => store.getState().view.refusal

beforeEach(() => {
  store.dispatch(viewReset({}))
  store.dispatch(opened(project))
})

const id = fc.constantFrom('layer-0', 'layer-1', 'layer-2', 'letters', 'panel', 'nobody')
const some = fc.uniqueArray(id, { maxLength: 3 })
const n = fc.oneof(
  fc.integer({ min: -300, max: 300 }),
  fc.constantFrom(0, 0.5, 60, 4000, 10_000, 999_999, 1e6, 1e9, -1e9, 1e300, Number.NaN, Number.POSITIVE_INFINITY),
)
const way = fc.constantFrom<1 | -1>(1, -1)
const end = fc.constantFrom<'from' | 'to'>('from', 'to')
const on = fc.boolean()
const text = fc.oneof(fc.string(), fc.constant('x'.repeat(5000)))
const path = fc.constantFrom(
  { of: 'opacity' as const },
  { of: 'place' as const },
  { of: 'gain' as const },
  { of: 'corners' as const },
  { of: 'shape' as const, piece: 'piece' },
  { of: 'grow' as const, piece: 'piece' },
  { of: 'outside' as const, piece: 'piece' },
  { of: 'exposure', look: 'look' },
  { of: 'size', source: true as const },
)
const record = fc.record({ x: n, y: n, scale: n, angle: n, width: n, height: n })
const point = fc.record({ x: n, y: n })
const anyCorners = fc.record({ topLeft: point, topRight: point, bottomRight: point, bottomLeft: point })
const numeric = fc.oneof(n, record, anyCorners)
const size = fc.record({ width: n, height: n })
const copies = fc.option(fc.record({ count: n, later: n, x: n, y: n, keep: n }))
const t = fc.tuple

const light = fc.record({ gain: t(n, n, n), offset: n })
const grain = fc.record({ dark: n, middle: n, light: n, size: n, colour: n })
const ride = fc.record({
  first: n,
  begin: n,
  maps: fc.array(fc.record({ a: n, b: n, c: n, d: n, x: n, y: n }), { maxLength: 5 }),
})

const planeRide = fc.record({
  first: n,
  begin: n,
  maps: fc.array(fc.record({ a: n, b: n, c: n, d: n, x: n, y: n, g: n, h: n, w: n }), { maxLength: 5 }),
})

/** Arguments for every edit there is. */
const ARGUMENTS: Record<EditName, fc.Arbitrary<unknown[]>> = {
  addLayers: t(
    fc.array(fc.constant(0), { maxLength: 300 }).map(list => list.map((_, i) => testLayer(3, { id: `new-${i}` }))),
  ),
  changeGraphic: t(
    id,
    fc.record(
      {
        fonts: fc.array(fc.constantFrom('a'.repeat(64), 'b'.repeat(64), 'e'.repeat(64), 'no digest'), {
          maxLength: 20,
        }),
        axes: fc.dictionary(fc.string({ minLength: 3, maxLength: 5 }), n, { maxKeys: 40 }),
        align: fc.constantFrom('left', 'middle', 'right', 'nowhere'),
        fill: fc.constantFrom(null, { kind: 'plain', colour: '#abcdef' }, { kind: 'plain', colour: 'red' }),
        border: fc.option(fc.record({ colour: fc.constant('#000000'), opacity: n, width: n })),
        shadow: fc.option(fc.record({ colour: fc.constant('#000000'), opacity: n, x: n, y: n, soft: n })),
      },
      { requiredKeys: [] },
    ),
  ),
  writeText: t(id, fc.oneof(text, fc.constant('x\n'.repeat(9000)))),
  addLook: t(
    id,
    n.map(exposure => ({
      id: 'new',
      kind: 'light' as const,
      on: true,
      values: { exposure, red: 0, blue: 0, offset: 0 },
    })),
  ),
  addOutlinePoint: t(id, fc.constant('outline'), n, n),
  removeOutlinePoints: t(id, fc.constant('outline'), fc.array(n)),
  reshapeOutline: t(
    id,
    fc.constant('outline'),
    n,
    fc.array(fc.record({ x: n, y: n, inX: n, inY: n, outX: n, outY: n })),
    on,
  ),
  drawOutline: t(
    id,
    fc.constant('outline'),
    n,
    fc.array(fc.record({ x: n, y: n, inX: n, inY: n, outX: n, outY: n })),
    on,
  ),
  retimeKeys: t(
    id,
    fc.array(fc.record({ path, frames: fc.array(n) }), { maxLength: 3 }),
    fc.record({ about: n, factor: n, by: n }),
    on,
  ),
  dropKeys: t(id, fc.array(fc.record({ path, frames: fc.array(n) }), { maxLength: 3 })),
  reverseOutline: t(id, fc.constant('outline')),
  addPiece: t(
    id,
    fc.record({ width: fc.constant(64), height: fc.constant(36) }).map(s => makePiece(makeShape('oval', s))),
  ),
  addMatteLayer: t(
    id,
    fc.constantFrom(testLayer(3, { id: 'lent' })),
    fc
      .constantFrom('lent', 'layer-1', 'layer-2')
      .map(layer => makePiece({ kind: 'layer', shows: { layer, of: 'alpha' } })),
  ),
  blendLayer: t(id, fc.constantFrom('add', 'screen')),
  changeLoop: t(id, fc.record({ from: n, to: n, over: n }, { requiredKeys: [] }), fc.constant(takes)),
  changePiece: t(
    id,
    fc.constant('piece'),
    fc.record({ name: text, inverted: on, blur: fc.record({ shutter: n, phase: n }) }, { requiredKeys: [] }),
  ),
  detachSound: t(id),
  cutIntoActs: t(id, fc.array(fc.record({ name: text, from: n, to: n }), { maxLength: 5 })),
  copyPiece: t(id, fc.constantFrom('piece', 'outline'), id, fc.constantFrom('one', 'two', 'piece')),
  reorderPiece: t(id, fc.constant('piece'), n),
  mirrorOutline: t(id, fc.constant('outline'), n),
  dissolveLayers: t(id, id),
  dropKey: t(id, path, n),
  dropMark: t(n),
  dropSound: t(id),
  duplicateLayers: t(fc.constant(project.shot.layers)),
  calmKeys: t(id, path),
  easeKey: t(id, path, n, fc.oneof(fc.constantFrom('hold', 'linear'), fc.record({ curve: fc.tuple(n, n, n, n) }))),
  flipLayers: t(some, fc.constantFrom('across', 'down')),
  freezeLayer: t(id, n),
  standLayer: t(id, n),
  groupLayers: t(some, text),
  holdLayer: t(id, n, n, on),
  joinLayers: t(id, id),
  lockLayers: t(some, fc.constant(false)),
  loopLayer: t(
    id,
    fc.record({ from: n, to: n, style: fc.constantFrom('cut', 'dissolve'), over: n, until: n }),
    fc.constant(takes),
  ),
  movePiece: t(
    id,
    fc.constantFrom('piece', 'outline'),
    n,
    fc.record({ x: n, y: n, scale: n, angle: n }),
    on,
    fc.record({ x: n, y: n }),
  ),
  limitPiece: t(id, fc.constantFrom('piece', 'outline'), n, fc.constantFrom('from', 'until')),
  matchLight: t(id, fc.record({ rate: fc.constantFrom(null, { num: 25, den: 1 }), values: fc.array(light) })),
  matchLightAt: t(id, fc.array(fc.record({ frame: n, light }), { maxLength: 4 })),
  matchGrain: t(id, grain, fc.option(grain)),
  ridePiece: t(id, fc.constant('piece'), ride),
  ridePieceWith: t(id, fc.constant('piece'), fc.constantFrom('piece', 'nobody'), n),
  rideLayer: t(id, ride),
  steadyLayer: t(
    id,
    fc.record({
      rate: fc.constantFrom(null, { num: 25, den: 1 }),
      values: fc.array(fc.record({ x: n, y: n, turn: n, scale: n })),
    }),
    fc.record({ x: n, y: n }),
  ),
  moveLook: t(id, fc.constant('look'), n),
  mixFrames: t(id, fc.option(n)),
  pasteLayers: t(fc.constant([keyed(3)]), n),
  playLayer: t(id, fc.constant(takes)),
  putKey: t(id, path, n, numeric),
  putMark: t(n, text),
  reformShot: t(fc.record({ size, rate: fc.record({ num: n, den: n }), length: n, grow: on })),
  removeLayers: t(some, on),
  removeLook: t(id, fc.constant('look')),
  removePiece: t(id, fc.constant('piece')),
  pinCorners: t(id, fc.record({ left: n, top: n, right: n, bottom: n }), n, fc.constantFrom('pinned', 'layer-1')),
  unpinCorners: t(id),
  widenPin: t(id, fc.record({ left: n, top: n, right: n, bottom: n })),
  rideCorners: t(id, planeRide),
  rideOutline: t(id, fc.constant('piece'), planeRide),
  putDepth: t(some, fc.constantFrom('nearest', 'farthest')),
  renameLayer: t(id, text),
  renameShot: t(text),
  reorderLayer: t(id, n),
  setAnchor: t(id, fc.record({ x: n, y: n })),
  setCopies: t(id, copies),
  setFade: t(id, fc.constantFrom('picture', 'sound'), fc.record({ in: n, out: n }, { requiredKeys: [] })),
  setSpeed: t(id, n, fc.constant(takes)),
  setValue: t(id, path, n, numeric, on),
  showLayers: t(some, on),
  slideLayers: t(fc.array(fc.record({ layer: id, from: n }), { maxLength: 3 })),
  slideMark: t(n, n, fc.constant([{ frame: 3, text: 'a' }])),
  slipLayer: t(id, n, fc.constant(takes)),
  slipLayers: t(some, n, fc.constant(takes)),
  soundLayers: t(some, on),
  splitLayers: t(some, n),
  stepDepth: t(some, way),
  stretchLayer: t(id, n, fc.constant(takes), fc.constant(project.shot.layers[0])),
  stutterLayer: t(id, n, n, n, n),
  swapShape: t(
    id,
    fc.constant('piece'),
    fc.constantFrom('oval', 'edge', 'outline', 'cutout'),
    size,
    fc.constant(takes),
  ),
  switchLook: t(id, fc.constant('look'), on),
  switchMatte: t(id, on),
  tagLayers: t(some, fc.constantFrom('amber', 'none')),
  trimLayers: t(end, fc.array(fc.record({ layer: id, frame: n }), { maxLength: 3 }), fc.constant(takes)),
  ungroup: t(id),
}

const anyEdit = fc
  .constantFrom(...(Object.keys(ARGUMENTS) as EditName[]))
  .chain(name => ARGUMENTS[name].map(args => ({ name, args })))

it('opens again after any edits with any numbers, to the very same document', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 8 }), edits => {
      store.dispatch(opened(project))
      for (const { name, args } of edits) {
        const before = now()
        store.dispatch(edit(name, ...(args as never)))
        if (refusal()) expect(now()).toBe(before)
      }
      const reopened = parseProject(JSON.stringify(now()))
      expect(reopened).toEqual({ ok: true, value: now() })
    }),
    { numRuns: 400 },
  )
})

it.each<[string, () => void, RegExp]>([
  ['a stutter too long', () => store.dispatch(edit('stutterLayer', 'layer-1', 10, 2, 60, 20_000)), /a frame/],
  ['a key slowed out of sight', () => store.dispatch(edit('setSpeed', 'layer-0', 0.01, takes)), /a frame/],
  [
    'a feather grown with the shot',
    () => {
      store.dispatch(edit('setValue', 'layer-0', { of: 'outside', piece: 'piece' }, 0, 3000))
      const form = { size: { width: 640, height: 360 }, rate: { num: 25, den: 1 }, length: 100, grow: true }
      store.dispatch(edit('reformShot', form))
    },
    /a feather \(0 to 4,000 px\)/,
  ],
  [
    'a cut-out of what is seen in perspective',
    () => store.dispatch(edit('addPiece', 'layer-2', makePiece(makeShape('cutout', { width: 64, height: 36 })))),
    /take the pins out/,
  ],
  ['an anchor far out', () => store.dispatch(edit('setAnchor', 'layer-0', { x: 1e7, y: 0 })), /a length/],
  [
    'work without end',
    () => {
      for (let i = 0; i < 7; i++) {
        store.dispatch(edit('groupLayers', [now().shot.layers[0]!.id], 'G'))
        const row = { count: 60, later: 0, x: 0, y: 0, keep: 1 }
        store.dispatch(edit('setCopies', now().shot.layers[0]!.id, row))
      }
    },
    /take minutes/,
  ],
  [
    'an act longer than any take',
    () => store.dispatch(takeChanged({ digest: takes[0]!.digest, marked: { from: 0, to: 1e9 } })),
    /a length/,
  ],
])('refuses %s, and says why', (_, run, why) => {
  run()
  expect(refusal()).toMatch(why)
  expect(parseProject(JSON.stringify(now())).ok).toBe(true)
  store.dispatch(edit('renameShot', 'Goes on'))
  expect(refusal()).toBeNull()
})

it('makes no step of an edit that changes nothing, nor of a gesture that was left', () => {
  const steps = () => store.getState().project.past.length
  store.dispatch(edit('setCopies', 'layer-1', { count: 3, later: 2, x: 4, y: 0, keep: 1 }))
  expect(steps()).toBe(0)
  store.dispatch(editIn('g', 'setCopies', 'layer-1', { count: 9, later: 2, x: 4, y: 0, keep: 1 }))
  store.dispatch(editIn('g', 'setCopies', 'layer-1', { count: 12, later: 2, x: 4, y: 0, keep: 1 }))
  expect(steps()).toBe(1)
  store.dispatch(gestureLeft('g'))
  expect([steps(), now()]).toEqual([0, project])
})

it('goes back to the very beginning after 500 edits, and never drops a take that came in', () => {
  for (let i = 0; i < 500; i++) store.dispatch(edit('renameShot', `Name ${i}`))
  const late = { ...takes[0]!, digest: 'f'.repeat(64) }
  store.dispatch(takesAdded([late]))
  for (let i = 0; i < 500; i++) store.dispatch(undo())
  expect(now().shot.name).toBe('Test')
  expect(now().takes.map(t => t.digest)).toContain(late.digest)
  store.dispatch(edit('renameShot', 'On'))
  expect(now().takes.map(t => t.digest)).toContain(late.digest)
})

it('counts work by what shows at once', () => {
  const layer = testLayer(0, { span: { from: 0, to: 10 } })
  const later = testLayer(1, { span: { from: 10, to: 20 } })
  const px = 64 * 36
  expect(workOf(testShot([layer, later]))).toBe(px)
  expect(workOf(testShot([layer, { ...later, span: { from: 9, to: 20 } }]))).toBe(2 * px)
  expect(workOf(testShot([{ ...layer, copies: { count: 60, later: 0, x: 0, y: 0, keep: 1 } }]))).toBe(61 * px)
  expect(workOf(testShot([{ ...layer, on: false }]))).toBe(0)
})

it('opens what can be kept of any damaged document, and names the rest', () => {
  const damaged = structuredClone(project) as never as Record<string, never>
  const shot = damaged.shot as never as { layers: Record<string, unknown>[]; rate: unknown; marks: unknown[] }
  const list = damaged.takes as never as Record<string, unknown>[]
  list.push({
    ...list[0]!,
    digest: 'e'.repeat(64),
    name: 'wide.png',
    picture: { kind: 'still', size: { width: 16_000, height: 10 } },
  })
  shot.layers.push({
    ...structuredClone(shot.layers[0]!),
    id: 'wide',
    name: 'Wide',
    source: { kind: 'take', digest: 'e'.repeat(64), use: 'both' },
  })
  shot.layers[0]!.name = 'n'.repeat(900)
  shot.layers[1]!.opacity = 'much'
  shot.layers[2]!.place = { x: 5e7, y: 0, scale: 1, angle: 0 }
  shot.rate = { num: 1, den: 1_000_000 }
  shot.marks = [
    { frame: 3, text: 'a' },
    { frame: -9, text: 'b' },
  ]
  const saved = salvage(JSON.parse(JSON.stringify(damaged)))
  if (!saved.ok) throw new Error(saved.problem)
  const { project: kept, aside } = saved.value
  expect(kept.shot.layers.map(l => l.id)).toEqual(['layer-0', 'layer-2', 'letters', 'panel'])
  expect(kept.takes).toHaveLength(3)
  expect(kept.shot.rate).toEqual({ num: 25, den: 1 })
  for (const word of ['wide.png', 'take-1', 'Wide', 'rate', 'name', 'within bounds'])
    expect(aside.join('; ')).toContain(word)
  expect(parseProject(JSON.stringify(kept)).ok).toBe(true)
})

it('opens any project, whatever one value of it is turned into', () => {
  const places: (string | number)[][] = []
  const walk = (value: unknown, path: (string | number)[]) => {
    if (path.length > 0) places.push(path)
    if (typeof value !== 'object' || value === null) return
    for (const [key, part] of Object.entries(value)) walk(part, [...path, Array.isArray(value) ? Number(key) : key])
  }
  walk(project, [])
  const odd = fc.constantFrom<unknown>(1e99, -1, 0.3, null, 'x', [], {}, 'y'.repeat(3000), undefined)
  fc.assert(
    fc.property(fc.constantFrom(...places), odd, (path, value) => {
      const data = JSON.parse(JSON.stringify(project))
      const owner = path.slice(0, -1).reduce((o, key) => o[key], data)
      owner[path.at(-1)!] = value
      const saved = salvage(data)
      // Without these there is nothing to be opened.
      if (path.length === 1 && path[0] !== 'id' && path[0] !== 'takes') return
      expect(saved).toMatchObject({ ok: true })
      if (saved.ok) expect(parseProject(JSON.stringify(saved.value.project)).ok).toBe(true)
    }),
    { numRuns: 400 },
  )
  const many = {
    ...project,
    shot: { ...project.shot, layers: Array.from({ length: 100_000 }, (_, i) => testLayer(0, { id: `l${i}` })) },
  }
  expect(parseProject(JSON.stringify(many))).toMatchObject({ ok: false })
  const opened = salvage(many)
  expect(opened.ok && opened.value.project.shot.layers.length).toBe(LIMITS.layers)
})
