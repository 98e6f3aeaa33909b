// What a take says, and what is done about it in one touch: done, known to be done, and taken back.
import { beforeEach, describe, expect, it } from 'vitest'
import { type Finding, findings, type Seen } from '../../core/plate'
import { testLayer, testProject, testTake } from '../../testing/documents'
import { seenTake as seen } from '../../testing/seen'
import { edit, groupEntered, opened, projectOf, rootShot, store, undo, viewReset } from '../store'
import { doingFor, lacksPlate, standBehind } from './advice'
import type { TakeReport } from './reports'

const stands = (x: number) => ({ x, y: 0.6, width: 0.1, height: 0.4, atBorder: false })

function reported(frames: Seen[]): TakeReport {
  const { digest } = testTake(0)
  return {
    take: digest,
    against: null,
    state: 'ready',
    seen: frames,
    of: 100,
    findings: findings(frames),
    problem: null,
  }
}

const shot = () => rootShot(store.getState())!
const layer = (name: string) => shot().layers.find(l => l.id === name || l.name === name)
const take = () => projectOf(store.getState())!.takes[0]!

/** What can be done about the first finding that gives some advice. */
function doing(report: TakeReport, advice: Finding['advice']) {
  const finding = report.findings.find(f => f.advice === advice)!
  expect(finding).toBeDefined()
  return () => doingFor(take(), report, finding)!
}

beforeEach(() => {
  store.dispatch(opened(testProject()))
  store.dispatch(viewReset({}))
})

describe('what is done about a finding', () => {
  it('matches the light of every layer of the take, knows it again, and is one step to take back', () => {
    const now = doing(reported(seen(i => ({ light: 1 + i * 0.001 }))), 'match')
    expect(now()).toMatchObject({ name: 'Match its light', hindered: null, isDone: false })
    now().run()
    expect(layer('layer-0')!.looks).toMatchObject([{ kind: 'light', on: true }])
    expect(layer('layer-1')!.looks).toEqual([])
    expect(now().isDone).toBe(true)
    now().run()
    expect(layer('layer-0')!.looks).toHaveLength(1)
    store.dispatch(undo())
    expect(layer('layer-0')!.looks).toEqual([])
    expect(now().isDone).toBe(false)
  })

  it('is done to the shot, also while a group of it is open', () => {
    store.dispatch(edit('groupLayers', ['layer-1'], 'Group'))
    const group = shot().layers.find(l => l.source.kind === 'group')!
    store.dispatch(groupEntered({ into: [group.id], frame: 0, layer: null }))
    doing(reported(seen(i => ({ x: i < 50 ? 0 : 3 }))), 'steady')().run()
    expect(layer('layer-0')!.place).toMatchObject({ keys: expect.any(Array) })
  })

  it('steadies what was bumped', () => {
    const now = doing(reported(seen(i => ({ x: i < 50 ? 0 : 3 }))), 'steady')
    now().run()
    const { place } = layer('layer-0')!
    expect(place).toMatchObject({ keys: expect.any(Array) })
    expect(now().isDone).toBe(true)
  })

  it('cuts where the light is switched, in every layer that shows it', () => {
    const now = doing(reported(seen(i => ({ light: i < 60 ? 1 : 1.4 }))), 'split')
    now().run()
    expect(
      shot()
        .layers.filter(l => l.source.kind === 'take' && l.source.digest === take().digest)
        .map(l => [l.span.from, l.span.to]),
    ).toEqual([
      [60, 100],
      [0, 60],
    ])
    expect(now().isDone).toBe(true)
  })

  it('puts an empty stretch behind everything, and parts the take into acts', () => {
    const report = reported(seen(i => ({ share: (i >= 20 && i < 50) || i >= 80 ? 0.1 : 0 })))
    const plate = doing(report, 'plate')
    plate().run()
    expect(shot().layers.at(-1)).toMatchObject({
      name: 'Plate',
      span: { from: 0, to: 100 },
      timing: { kind: 'loop', from: 0, to: 0.8, style: 'swing' },
      sound: { on: false },
    })
    expect(plate().isDone).toBe(true)
    const acts = doing(report, 'acts')
    acts().run()
    expect(take().acts.map(a => [a.name, a.from, a.to])).toEqual([
      ['Act 1', 0.8, 2],
      ['Act 2', 3.2, 4],
    ])
    expect(layer('Act 2')).toMatchObject({ timing: { from: 3.2 } })
    expect(acts().isDone).toBe(true)
    expect(shot().layers.map(l => l.name)).toEqual(['Act 1', 'Act 2', expect.anything(), 'Plate'])
    // One touch, one step back.
    store.dispatch(undo())
    expect(acts().isDone).toBe(false)
    expect(shot().layers.map(l => l.name)).not.toContain('Act 1')
    // Of several layers that play it none is the one to be cut: the acts are placed anew.
    store.dispatch(edit('duplicateLayers', [layer('layer-0')!]))
    const before = shot().layers.length
    acts().run()
    expect(shot().layers).toHaveLength(before + 2)
  })

  it('puts a plate that was made behind everything once, where somebody is there all the time', () => {
    store.dispatch(opened(testProject([testLayer(0)])))
    const always = reported(seen(() => ({ share: 0.1 })))
    expect(lacksPlate(take(), reported(seen(i => ({ share: i < 50 ? 0 : 0.1 }))))).toBe(false)
    expect(lacksPlate(take(), always)).toBe(true)
    store.dispatch(edit('groupLayers', ['layer-0'], 'Group'))
    store.dispatch(groupEntered({ into: [shot().layers[0]!.id], frame: 0, layer: null }))
    for (const _ of [1, 2]) standBehind(testTake(1))
    expect(shot().layers.map(l => l.name)).toEqual(['Group', 'Plate'])
    expect(lacksPlate(take(), always)).toBe(false)
    store.dispatch(undo())
    expect(shot().layers.map(l => l.name)).toEqual(['Group'])
  })

  it('cuts the layer of one long take with all that was done to it, the walk between two acts left out', () => {
    store.dispatch(opened(testProject([testLayer(0)])))
    const report = reported(
      seen(i => ({
        share: 0.1,
        light: 1 + i * 0.001,
        where: stands(i < 40 ? 0.2 : i < 60 ? 0.2 + (i - 40) * 0.03 : 0.8),
      })),
    )
    doing(report, 'match')().run()
    const looks = layer('layer-0')!.looks.length
    const acts = doing(report, 'acts')
    acts().run()
    expect(shot().layers.map(l => [l.name, l.span, l.looks.length])).toEqual([
      ['Act 1', { from: 0, to: expect.toSatisfy(to => Math.abs(to - 40) <= 2) }, looks],
      ['Act 2', { from: 0, to: expect.toSatisfy(to => Math.abs(to - 40) <= 2) }, looks],
    ])
    expect(shot().length).toBe(Math.max(...shot().layers.map(l => l.span.to)))
    store.dispatch(undo())
    expect(shot()).toMatchObject({ length: 100, layers: [{ id: 'layer-0' }] })
    expect(take().acts).toEqual([])
  })

  it('cuts to the one act that there is, and not into more than there is room for', () => {
    store.dispatch(opened(testProject([testLayer(0)])))
    const report = reported(seen(i => ({ share: i >= 20 && i <= 60 ? 0.1 : 0 })))
    const act = doing(report, 'acts')
    expect(act().name).toBe('Cut to this act')
    act().run()
    expect(shot()).toMatchObject({ length: 41, layers: [{ name: 'Act 1', span: { from: 0, to: 41 } }] })
    expect(act().isDone).toBe(true)
    const full = Array.from({ length: 250 }, (_, i) => testLayer(0, { id: `layer-${i}` }))
    store.dispatch(opened(testProject(full)))
    expect(act().hindered).toContain('more than the shot has room for')
  })

  it('says why it cannot be done', () => {
    store.dispatch(opened(testProject([testLayer(1)])))
    const report = reported(seen(i => ({ x: i < 50 ? 0 : 3, light: i < 50 ? 1 : 1.02 })))
    expect(doing(report, 'steady')().hindered).toContain('Nothing in the shot shows “take-0.mp4”')
    store.dispatch(opened(testProject([testLayer(0, { locked: true })])))
    expect(doing(report, 'steady')().hindered).toContain('locked')
    const nothing = report.findings.find(f => f.advice === null)
    if (nothing) expect(doingFor(take(), report, nothing)).toBeNull()
  })
})
