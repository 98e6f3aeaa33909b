import fc from 'fast-check'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { testLayer, testProject, testTake } from '../../testing/documents'
import { checkProject, parseProject } from '../door'
import { migrate } from '../door/migrate'
import { keysOf, sample } from '../keys'
import { planFrame } from '../plan'
import { edits, type Film, getValue, makePiece, makeProject, makeShape, type Project, type Shot, type Size } from '.'

const size = { width: 64, height: 36 }
const film = (of: Size, seconds: number): Film => ({
  kind: 'film',
  size: of,
  rate: { num: 25, den: 1 },
  seconds,
  varies: false,
})

/** A project whose first layer has an edge keyed at 10 and 20. */
function keyed(): Project {
  const project = testProject()
  const layer = project.shot.layers[0]!
  layer.matte = [{ ...makePiece(makeShape('edge', size)), id: 'edge' }]
  edits.putKey(project.shot, layer.id, { of: 'shape', piece: 'edge' }, 10, { x: 1, y: 2, angle: 0 })
  edits.putKey(project.shot, layer.id, { of: 'shape', piece: 'edge' }, 20, { x: 5, y: 2, angle: 90 })
  return project
}

describe('a new project', () => {
  it('takes size, rate and length from its first take and is valid', () => {
    const tall = testTake(1, { picture: film({ width: 100, height: 200 }, 9) })
    const project = makeProject([testTake(0), tall], 'Mine')
    expect(project.shot).toMatchObject({ size, rate: { num: 25, den: 1 }, length: 100 })
    // The other take is fitted into the picture, its own length kept.
    const [near, far] = project.shot.layers
    expect(near).toMatchObject({
      span: { from: 0, to: 225 },
      place: { scale: 0.18, x: 32, y: 18 },
      anchor: { x: 50, y: 100 },
    })
    expect(far!.source).toEqual({ kind: 'take', digest: testTake(0).digest, use: 'both' })
    expect(checkProject(project)).toEqual({ ok: true, value: project })
  })
})

describe('edits', () => {
  it('slide a layer with its keys, but not those pinned to the shot', () => {
    const { shot } = keyed()
    const layer = shot.layers[0]!
    edits.slideLayers(shot, [{ layer: layer.id, from: 7 }])
    expect(layer.span).toEqual({ from: 7, to: 107 })
    const line = () => keysOf(getValue(layer, { of: 'shape', piece: 'edge' })!).map(k => k.frame)
    expect(line()).toEqual([17, 27])
    edits.changePiece(shot, layer.id, 'edge', { pinnedTo: 'shot' })
    edits.slideLayers(shot, [{ layer: layer.id, from: 0 }])
    expect(line()).toEqual([17, 27])
    edits.slideLayers(shot, [{ layer: layer.id, from: 5000 }])
    expect(layer.span.from).toBe(99)
    edits.slideLayers(shot, [{ layer: layer.id, from: -5000 }])
    expect(layer.span.to).toBe(1)
  })

  it('swap a shape, the feather kept and the frame handed on', () => {
    const { shot } = keyed()
    const layer = shot.layers[0]!
    edits.setValue(shot, layer.id, { of: 'inside', piece: 'edge' }, 0, 9)
    edits.swapShape(shot, layer.id, 'edge', 'box', size, [])
    edits.setValue(
      shot,
      layer.id,
      { of: 'shape', piece: 'edge' },
      0,
      { x: 3, y: 4, width: 5, height: 6, angle: 7 },
      true,
    )
    edits.swapShape(shot, layer.id, 'edge', 'oval', size, [])
    const piece = layer.matte[0]!
    expect(piece.name).toBe('Oval')
    expect(piece.feather.inside).toBe(9)
    expect(piece.shape.kind === 'oval' && sample(piece.shape.frame, 0)).toMatchObject({ x: 3, angle: 7 })
  })

  it('reorder in depth', () => {
    const { shot } = testProject([testLayer(0), testLayer(1), testLayer(2)])
    edits.reorderLayer(shot, 'layer-2', 0)
    expect(shot.layers.map(l => l.id)).toEqual(['layer-2', 'layer-0', 'layer-1'])
    edits.reorderLayer(shot, 'layer-2', 99)
    expect(shot.layers.at(-1)!.id).toBe('layer-2')
  })

  it('whatever their order, leave a valid document and the one before untouched', () => {
    const layerIds = fc.constantFrom('layer-0', 'layer-1', 'nobody')
    const paths = fc.constantFrom(
      { of: 'opacity' } as const,
      { of: 'shape', piece: 'edge' } as const,
      { of: 'inside', piece: 'edge' } as const,
      { of: 'grow', piece: 'nothing' } as const,
    )
    const frames = fc.integer({ min: -50, max: 150 })
    const change = fc.oneof(
      fc.tuple(layerIds, frames).map(
        ([l, f]) =>
          (s: Shot) =>
            edits.slideLayers(s, [{ layer: l, from: f }]),
      ),
      fc.tuple(layerIds, frames).map(
        ([l, f]) =>
          (s: Shot) =>
            edits.reorderLayer(s, l, f),
      ),
      fc.tuple(layerIds, paths, frames).map(
        ([l, p, f]) =>
          (s: Shot) =>
            edits.dropKey(s, l, p, f),
      ),
      fc.tuple(layerIds, paths, frames, frames).map(
        ([l, p, f, t]) =>
          (s: Shot) =>
            edits.retimeKeys(s, l, [{ path: p, frames: [f] }], { about: 0, factor: 1, by: t - f }),
      ),
      fc.tuple(layerIds, frames).map(
        ([l, f]) =>
          (s: Shot) =>
            edits.setValue(s, l, { of: 'opacity' }, f, 0.3, true),
      ),
      fc.tuple(layerIds, paths, frames).map(
        ([l, p, f]) =>
          (s: Shot) =>
            edits.easeKey(s, l, p, f, 'hold'),
      ),
      layerIds.map(l => (s: Shot) => edits.removePiece(s, l, 'edge')),
      layerIds.map(l => (s: Shot) => edits.removeLayers(s, [l])),
      layerIds.map(l => (s: Shot) => edits.swapShape(s, l, 'edge', 'oval', size, [])),
      layerIds.map(l => (s: Shot) => edits.addPiece(s, l, edits.startPiece('box', size))),
    )
    fc.assert(
      fc.property(fc.array(change, { maxLength: 25 }), changes => {
        const before = keyed()
        const frozen = structuredClone(before)
        const after = changes.reduce((p, apply) => produce(p, draft => apply(draft.shot)), before)
        expect(before).toEqual(frozen)
        expect(checkProject(after).ok).toBe(true)
      }),
    )
  })
})

describe('validation', () => {
  const broken = (change: (p: Record<string, never> & Project) => void): unknown => {
    const project = structuredClone(keyed()) as never
    change(project)
    return project
  }
  const any = (v: unknown) => v as never
  it.each<[string, unknown, RegExp]>([
    ['nothing', null, /not a Jolly Ghost project/],
    ['another format', { format: 'other' }, /not a Jolly Ghost project/],
    ['no version', broken(p => any(delete (p as { version?: number }).version)), /which version/],
    ['a later version', broken(p => Object.assign(p, { version: 99 })), /newer version/],
    ['a number where text belongs', broken(p => Object.assign(p.shot, { name: 7 })), /shot\.name must be a string/],
    [
      'text where a number belongs',
      broken(p => Object.assign(p.shot.layers[0]!, { opacity: '1' })),
      /opacity must be a number/,
    ],
    ['a span of no length', broken(p => Object.assign(p.shot.layers[0]!, { span: { from: 3, to: 3 } })), /span/],
    [
      'an infinite value',
      broken(p => Object.assign(p.shot.layers[0]!, { opacity: Number.POSITIVE_INFINITY })),
      /opacity/,
    ],
    ['no keys', broken(p => Object.assign(p.shot.layers[0]!, { opacity: { keys: [] } })), /keys/],
    [
      'keys out of order',
      broken(p =>
        Object.assign(p.shot.layers[0]!, {
          opacity: {
            keys: [
              { frame: 5, value: 1, ease: 'hold' },
              { frame: 2, value: 1, ease: 'hold' },
            ],
          },
        }),
      ),
      /in order/,
    ],
    ['an unknown field', broken(p => Object.assign(p.shot, { surprise: true })), /surprise/],
    ['a take nobody lists', broken(p => Object.assign(p, { takes: [] })), /does not list/],
    ['a digest that is none', broken(p => Object.assign(p.takes[0]!, { digest: '../../etc' })), /digest/],
    ['two layers of one id', broken(p => Object.assign(p.shot.layers[1]!, { id: 'layer-0' })), /duplicate/],
    ['a huge picture', broken(p => Object.assign(p.shot.size, { width: 1e9 })), /width/],
    ['an unknown shape', broken(p => Object.assign(p.shot.layers[0]!.matte[0]!, { shape: { kind: 'blob' } })), /kind/],
  ])('refuses %s', (_, data, problem) => {
    const checked = checkProject(data)
    expect(checked.ok).toBe(false)
    expect(!checked.ok && checked.problem).toMatch(problem)
  })

  it('refuses groups without end and text that is no JSON', () => {
    let shot = testProject().shot
    for (let i = 0; i < 12; i++) shot = { ...shot, layers: [testLayer(0, { source: { kind: 'group', shot } })] }
    expect(checkProject({ ...testProject(), shot })).toMatchObject({
      ok: false,
      problem: expect.stringMatching(/deep/),
    })
    expect(parseProject('{')).toMatchObject({ ok: false, problem: expect.stringMatching(/not JSON/) })
  })

  it('takes of a take without a picture only its sound', () => {
    const project = structuredClone(keyed())
    project.takes[0]!.picture = null
    const checked = checkProject(project)
    expect(checked.ok && checked.value.shot.layers.map(l => l.source)).toMatchObject([
      { use: 'sound' },
      { use: 'both' },
    ])
  })

  it('survives any JSON at all', () => {
    fc.assert(fc.property(fc.json(), text => void expect(parseProject(text).ok).toBe(false)))
  })

  it('migrates step by step', () => {
    const steps = { 1: (d: object) => ({ ...d, b: 1 }), 2: (d: object) => ({ ...d, c: 2 }) }
    expect(migrate({ format: 'jolly-ghost-project', version: 1 }, steps, 3)).toEqual({
      ok: true,
      value: { format: 'jolly-ghost-project', version: 3, b: 1, c: 2 },
    })
    expect(migrate({ format: 'jolly-ghost-project', version: 1 }, {}, 3).ok).toBe(false)
  })
})

it('brings a project of version 1 up to date: the same picture at the same frames', () => {
  const take = { digest: 'a'.repeat(64), name: 'a.mp4', type: 'video/mp4', bytes: 9, sound: null }
  const first = {
    format: 'jolly-ghost-project',
    version: 1,
    id: 'old',
    takes: [{ ...take, size: { width: 100, height: 50 }, rate: { num: 25, den: 1 }, seconds: 4 }],
    shot: {
      id: 'shot',
      name: 'Old',
      size,
      rate: { num: 25, den: 1 },
      length: 100,
      backdrop: '#000000',
      layers: [
        {
          id: 'l',
          name: 'L',
          span: { from: 0, to: 100 },
          source: { kind: 'take', digest: take.digest },
          timing: { kind: 'play', from: 0.5 },
          place: {
            keys: [
              { frame: 0, value: { x: 3, y: 4, scale: 0.5 }, ease: 'linear' },
              { frame: 10, value: { x: 13, y: 4, scale: 1.5 }, ease: 'linear' },
            ],
          },
          opacity: 1,
          matte: [
            {
              id: 'p',
              name: 'Box',
              shape: { kind: 'box', frame: { x: 20, y: 10, width: 8, height: 6, angle: 0 } },
              join: 'add',
              inverted: false,
              pinnedTo: 'layer',
              on: true,
              grow: 0,
              feather: { inside: 0, outside: 0 },
              strength: 1,
            },
          ],
          matteOn: true,
          sound: { on: true, gain: 1 },
          on: true,
        },
      ],
    },
  }
  const now = checkProject(first)
  expect(now).toMatchObject({ ok: true, value: { version: 5, takes: [{ picture: { kind: 'film', seconds: 4 } }] } })
  if (!now.ok) return
  for (const [frame, x, scale] of [
    [0, 3, 0.5],
    [5, 8, 1],
    [10, 13, 1.5],
  ] as const) {
    const { place, picture, matte } = planFrame(now.value.shot, frame).layers[0]!
    expect(matte[0]?.shape).toMatchObject({
      x: expect.closeTo(x + 20 * scale, 9),
      halfWidth: expect.closeTo(4 * scale, 9),
    })
    expect(place).toMatchObject({ a: scale, x: expect.closeTo(x, 9), y: expect.closeTo(4, 9) })
    expect(picture).toMatchObject({ seconds: expect.closeTo(0.5 + frame / 25, 9) })
  }
  const half = structuredClone(first) as { shot: { layers: unknown[] } }
  half.shot.layers = [null, 7, { id: 'x' }]
  expect(checkProject(half)).toMatchObject({ ok: false, problem: expect.stringMatching(/not valid/) })
})
