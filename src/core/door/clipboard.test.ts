import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testShot, testTake } from '../../testing/documents'
import { clone, type Project } from '../shot'
import { checkLayers, checkProject, writeLayers } from '.'

describe('layers as text', () => {
  it('come back as they were, with the takes that they use', () => {
    const group = testLayer(1, { source: { kind: 'group', shot: testShot([testLayer(2)]) } })
    const layers = [testLayer(0, { timing: { kind: 'freeze', at: 1 }, tag: 'fern' }), group]
    const takes = [testTake(0), testTake(2)]
    expect(checkLayers(writeLayers(layers, takes))).toEqual({ ok: true, value: { layers, takes } })
  })

  it('are refused in a sentence if they are anything else', () => {
    const good = JSON.parse(writeLayers([testLayer(0)], [testTake(0)]))
    const bad = [
      { ...good, kind: 'other' },
      { ...good, layers: [] },
      { ...good, layers: [{ ...good.layers[0], opacity: 7 }] },
      { ...good, takes: [] },
      { ...good, version: 99 },
      [good],
      null,
    ]
    for (const data of bad) {
      const checked = checkLayers(JSON.stringify(data))
      expect(checked.ok).toBe(false)
      expect(!checked.ok && checked.problem).toMatch(/^[A-Z“].*\.$/s)
    }
    fc.assert(fc.property(fc.string(), text => !checkLayers(text).ok))
    fc.assert(fc.property(fc.json(), text => !checkLayers(text).ok))
  })
})

describe('what a layer may be', () => {
  const project = (change: (layer: Record<string, unknown>, p: Project) => void): Project => {
    const made: Project = {
      format: 'jolly-ghost-project',
      version: 5,
      id: 'p',
      takes: [testTake(0)],
      shot: testShot([clone(testLayer(0))]),
    }
    change(made.shot.layers[0] as unknown as Record<string, unknown>, made)
    return made
  }
  const loop = { kind: 'loop', from: 1, to: 2, style: 'cut', over: 0, speed: 1, begun: 0 }
  const play = { kind: 'play', from: 0, speed: 1, mixed: null }

  it.each<[string, Record<string, unknown>]>([
    ['a loop', { timing: loop }],
    ['a freeze', { timing: { kind: 'freeze', at: 3 } }],
    ['slow motion that mixes', { timing: { ...play, speed: 0.01, mixed: 0.04 } }],
    ['backwards', { timing: { ...play, speed: -100 } }],
    ['copies', { copies: { count: 6, later: -3, x: 1.5, y: 0, keep: 0.5 } }],
    ['a blend', { blend: 'difference', flip: { across: true, down: false } }],
  ])('%s is valid', (_, changes) => {
    expect(checkProject(project(layer => Object.assign(layer, changes)))).toMatchObject({ ok: true })
  })

  it.each<[string, Record<string, unknown>, RegExp]>([
    ['a speed of nothing', { timing: { ...play, speed: 0 } }, /timing\.speed/],
    ['a speed beyond all', { timing: { ...play, speed: 1e9 } }, /timing\.speed/],
    ['a speed that is no number', { timing: { ...play, speed: Number.NaN } }, /timing\.speed/],
    ['a loop of no length', { timing: { ...loop, to: 1 } }, /timing\.to/],
    ['a loop in an unknown style', { timing: { ...loop, style: 'spiral' } }, /timing\.style/],
    ['an unknown timing', { timing: { kind: 'later' } }, /timing/],
    ['a fade before its beginning', { fade: { in: -1, out: 0 } }, /fade\.in/],
    ['half a frame of fade', { fade: { in: 0.5, out: 0 } }, /fade\.in/],
    ['no scale', { place: { x: 0, y: 0, scale: 0, angle: 0 } }, /place\.scale/],
    ['an unknown blend', { blend: 'burn' }, /blend/],
    ['too many copies', { copies: { count: 1e6, later: 1, x: 0, y: 0, keep: 1 } }, /copies\.count/],
    ['a tag of its own', { tag: 'puce' }, /tag/],
    [
      'an unknown use of its take',
      { source: { kind: 'take', digest: testTake(0).digest, use: 'smell' } },
      /source\.use/,
    ],
  ])('%s is not', (_, changes, problem) => {
    const checked = checkProject(project(layer => Object.assign(layer, changes)))
    expect(!checked.ok && checked.problem).toMatch(problem)
  })

  it('marks lie in order, one a frame; in and out of a take too', () => {
    const marks = (list: unknown) => checkProject(project((_, p) => Object.assign(p.shot, { marks: list }))).ok
    expect(
      marks([
        { frame: 3, text: 'a' },
        { frame: 9, text: '' },
      ]),
    ).toBe(true)
    expect(
      marks([
        { frame: 9, text: 'a' },
        { frame: 3, text: '' },
      ]),
    ).toBe(false)
    expect(
      marks([
        { frame: 3, text: 'a' },
        { frame: 3, text: 'b' },
      ]),
    ).toBe(false)
    const marked = (m: unknown) => checkProject(project((_, p) => Object.assign(p.takes[0]!, { marked: m }))).ok
    expect(marked({ from: 1, to: 2 })).toBe(true)
    expect(marked({ from: 2, to: 2 })).toBe(false)
  })
})
