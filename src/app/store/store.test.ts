import { beforeEach, describe, expect, it } from 'vitest'
import { testProject, testTake } from '../../testing/documents'
import { edit, editIn, opened, projectOf, redo, shotOf, store, takesAdded, undo, viewReset } from '.'

const project = testProject()
const name = () => shotOf(store.getState())?.name
const from = () => shotOf(store.getState())?.layers[0]?.span.from
const past = () => store.getState().project.past.length

beforeEach(() => {
  store.dispatch(viewReset({}))
  store.dispatch(opened(project))
})

describe('history', () => {
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
