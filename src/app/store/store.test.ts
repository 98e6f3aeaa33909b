import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { checkProject } from '../../core/door'
import { LIMITS } from '../../core/shot'
import { testProject, testTake } from '../../testing/documents'
import {
  edit,
  editIn,
  frameShown,
  groupEntered,
  layerChosen,
  opened,
  projectOf,
  redo,
  shotOf,
  stagedFrame,
  store,
  takeChanged,
  takeClosed,
  takeOpened,
  takesAdded,
  undo,
  viewReset,
} from '.'

const project = testProject()
const name = () => shotOf(store.getState())?.name
const from = () => shotOf(store.getState())?.layers[0]?.span.from
const past = () => store.getState().project.past.length

beforeEach(() => {
  store.dispatch(viewReset({}))
  store.dispatch(opened(project))
})

describe('a take that is looked at alone', () => {
  it('has a playhead of its own; the shot keeps its frame', () => {
    store.dispatch(frameShown(12))
    store.dispatch(takeOpened(project.takes[0]!.digest))
    expect(stagedFrame(store.getState())).toBe(0)
    store.dispatch(frameShown(70))
    expect([stagedFrame(store.getState()), store.getState().view.frame]).toEqual([70, 12])
    store.dispatch(takeOpened(project.takes[1]!.digest))
    expect(stagedFrame(store.getState())).toBe(0)
    store.dispatch(takeClosed())
    expect(stagedFrame(store.getState())).toBe(12)
  })
})

describe('history', () => {
  it('leaves the original chosen where a chosen copy is taken back, and what was chosen where it stays', () => {
    const [, second] = shotOf(store.getState())!.layers
    const before = shotOf(store.getState())!.layers.map(l => l.id)
    store.dispatch(edit('duplicateLayers', [second!]))
    const copy = shotOf(store.getState())!.layers.find(l => !before.includes(l.id))!
    store.dispatch(layerChosen(copy.id))
    store.dispatch(edit('renameShot', 'Two'))
    store.dispatch(undo())
    expect(store.getState().view.layer).toBe(copy.id)
    store.dispatch(undo())
    expect(store.getState().view.layer).toBe(second!.id)
    store.dispatch(layerChosen(null))
    store.dispatch(redo())
    expect(store.getState().view.layer).toBeNull()
  })

  it('takes back every edit to the very document, and brings each forward again', () => {
    const seen = [projectOf(store.getState())]
    for (const action of [
      edit('renameShot', 'One'),
      edit('showLayers', ['layer-0'], false),
      edit('slideLayers', [{ layer: 'layer-0', from: 4 }]),
      edit('removeLayers', ['layer-1']),
    ]) {
      store.dispatch(action)
      seen.push(projectOf(store.getState()))
    }
    for (const want of [...seen].reverse()) {
      expect(projectOf(store.getState())).toEqual(want)
      store.dispatch(undo())
    }
    expect(projectOf(store.getState())).toEqual(project)
    for (let i = 1; i < seen.length; i++) {
      store.dispatch(redo())
      expect(projectOf(store.getState())).toEqual(seen[i])
    }
  })

  it('gives the same document after any sequence of edits and as many undos, and again after as many redos', () => {
    const takes = project.takes
    const id = fc.constantFrom('layer-0', 'layer-1')
    const n = fc.integer({ min: -20, max: 130 })
    const action = fc.oneof(
      fc.tuple(id, n).map(([layer, from]) => edit('slideLayers', [{ layer, from }])),
      fc.tuple(id, n).map(([layer, frame]) => edit('trimLayers', 'from', [{ layer, frame }], takes)),
      fc.tuple(id, n).map(([layer, frame]) => edit('splitLayers', [layer], frame)),
      fc.tuple(id, n).map(([layer, by]) => edit('slipLayer', layer, by, takes)),
      fc.tuple(id, n).map(([layer, v]) => edit('setSpeed', layer, v / 40, takes)),
      fc.tuple(id, n).map(([layer, frame]) => edit('holdLayer', layer, frame, 5, true)),
      fc.tuple(id, n).map(([layer, frame]) => edit('stutterLayer', layer, frame, 3, 2, 0)),
      fc.tuple(id, n).map(([layer, v]) => edit('setValue', layer, { of: 'opacity' }, v, 0.4, true)),
      id.map(layer => edit('groupLayers', [layer], 'G')),
      id.map(layer => edit('removeLayers', [layer], true)),
      n.map(frame => edit('putMark', frame, 'x')),
      n.map(v => takeChanged({ digest: takes[0]!.digest, marked: { from: 0, to: Math.abs(v) + 1 } })),
    )
    fc.assert(
      fc.property(fc.array(action, { maxLength: 15 }), actions => {
        store.dispatch(opened(project))
        for (const one of actions) store.dispatch(one)
        const done = projectOf(store.getState())
        const steps = past()
        for (let i = 0; i < steps; i++) store.dispatch(undo())
        expect(projectOf(store.getState())).toEqual(project)
        for (let i = 0; i < steps; i++) store.dispatch(redo())
        expect(projectOf(store.getState())).toEqual(done)
      }),
    )
  })

  it('reaches into an open group, and out of one that is taken back', () => {
    store.dispatch(edit('groupLayers', ['layer-0'], 'G', 'group'))
    store.dispatch(groupEntered({ into: ['group'], frame: 0, layer: null }))
    store.dispatch(edit('renameLayer', 'layer-0', 'inside'))
    expect(shotOf(store.getState())?.layers[0]?.name).toBe('inside')
    store.dispatch(undo())
    expect(shotOf(store.getState())?.layers[0]?.name).not.toBe('inside')
    store.dispatch(undo())
    // The group is undone: what is open is the shot itself again.
    expect(shotOf(store.getState())?.layers.map(l => l.id)).toEqual(['layer-0', 'layer-1'])
    expect(store.getState().view.into).toEqual([])
    store.dispatch(edit('renameLayer', 'layer-0', 'outside'))
    expect(projectOf(store.getState())?.shot.layers[0]?.name).toBe('outside')
  })

  it('makes no document that could not be opened again: groups too deep, names too long', () => {
    const into: string[] = []
    for (let i = 0; i < 12; i++) {
      store.dispatch(edit('groupLayers', ['layer-0'], 'G', `group-${i}`))
      if (!shotOf(store.getState())?.layers.some(l => l.id === `group-${i}`)) break
      into.push(`group-${i}`)
      store.dispatch(groupEntered({ into: [...into], frame: 0, layer: null }))
    }
    expect(into).toHaveLength(LIMITS.depth)
    store.dispatch(edit('renameLayer', 'layer-0', 'n'.repeat(500)))
    store.dispatch(edit('holdLayer', 'layer-0', 20, 5, true))
    store.dispatch(edit('detachSound', 'layer-0'))
    store.dispatch(edit('stutterLayer', 'layer-0', 3, 2, 3, 0))
    store.dispatch(
      takeChanged({ digest: project.takes[0]!.digest, acts: [{ id: 'a', name: 'a'.repeat(900), from: 0, to: 1 }] }),
    )
    expect(shotOf(store.getState())?.layers.length).toBeGreaterThan(4)
    expect(checkProject(projectOf(store.getState()))).toMatchObject({ ok: true })
  })

  it('holds a drag as one step', () => {
    for (let i = 1; i <= 20; i++) store.dispatch(editIn('drag', 'slideLayers', [{ layer: 'layer-0', from: i }]))
    for (let i = 1; i <= 5; i++) store.dispatch(editIn('another', 'slideLayers', [{ layer: 'layer-0', from: 30 + i }]))
    expect(past()).toBe(2)
    store.dispatch(undo())
    expect(from()).toBe(20)
    store.dispatch(undo())
    expect(from()).toBe(0)
  })

  it('begins anew with each project, and is not lengthened by what changes nothing', () => {
    store.dispatch(edit('renameShot', 'One'))
    store.dispatch(edit('removeLayers', ['nobody']))
    store.dispatch(opened({ ...project, id: 'other' }))
    expect(past()).toBe(0)
    store.dispatch(undo())
    expect(name()).toBe('Test')
  })

  it('keeps takes that were brought in when their layer is taken back', () => {
    const take = { ...testTake(3), name: 'new.mp4' }
    store.dispatch(takesAdded([take]))
    store.dispatch(edit('renameShot', 'One'))
    store.dispatch(undo())
    expect(projectOf(store.getState())?.takes).toContainEqual(take)
  })
})

it('changes nothing in a project that another tab holds', () => {
  store.dispatch(viewReset({ readOnly: true }))
  store.dispatch(edit('renameShot', 'Mine'))
  expect(name()).toBe('Test')
})
