import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { testProject } from '../../testing/documents'
import { fakeLocks } from '../../testing/locks'
import { soon } from '../../testing/soon'
import { loadProject, saveWithMedia, storageProblem } from '../storage/projects'
import { edit, opened, store, viewReset } from '../store'
import { startAutosave } from './autosave'

const listeners = new Map<string, () => void>()
const said = () => store.getState().view.unsaved
let stop: () => Promise<void>
const name = async () => {
  const loaded = await loadProject('project')
  return loaded?.ok ? loaded.value.project.shot.name : null
}

beforeEach(() => {
  vi.stubGlobal('navigator', { locks: fakeLocks() })
  vi.stubGlobal('addEventListener', (type: string, heard: () => void) => listeners.set(type, heard))
  vi.stubGlobal('removeEventListener', (type: string) => listeners.delete(type))
  vi.stubGlobal('document', {
    visibilityState: 'hidden',
    addEventListener: (type: string, heard: () => void) => listeners.set(type, heard),
    removeEventListener: (type: string) => listeners.delete(type),
  })
  store.dispatch(viewReset({}))
  store.dispatch(opened(testProject()))
  stop = startAutosave()
})

afterEach(async () => {
  await stop()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

describe('autosave', () => {
  it('saves the last of a run of changes, begun within half a second', async () => {
    const timer = vi.spyOn(globalThis, 'setTimeout')
    for (const next of ['A', 'B', 'C']) store.dispatch(edit('renameShot', next))
    expect(store.getState().view.saving).toBe('waiting')
    expect(timer).toHaveBeenCalledOnce()
    expect(timer.mock.calls[0]![1]).toBeLessThanOrEqual(500)
    await soon(async () => expect(await name()).toBe('C'))
    await soon(() => expect(store.getState().view.saving).toBe('saved'))
  })

  it.each(['pagehide', 'visibilitychange'])('saves at once on %s, with no timer', async moment => {
    const timer = vi.spyOn(globalThis, 'setTimeout').mockReturnValue(1 as never)
    store.dispatch(edit('renameShot', moment))
    timer.mockRestore()
    listeners.get(moment)!()
    await soon(async () => expect(await name()).toBe(moment))
  })

  it('saves what is open when it ends', async () => {
    store.dispatch(edit('renameShot', 'Last'))
    await stop()
    expect(await name()).toBe('Last')
    expect(listeners.size).toBe(0)
  })

  it('says once that it cannot, keeps what was saved, and tries again with the next change', async () => {
    store.dispatch(edit('renameShot', 'Good'))
    await soon(async () => expect(await name()).toBe('Good'))
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    store.dispatch(edit('renameShot', 'Too much'))
    await soon(() => expect(store.getState().view.saving).toBe('failed'))
    await new Promise(resolve => setTimeout(resolve, 700))
    expect(said()).toMatch(/no room left/)
    expect(await name()).toBe('Good')
    full.mockRestore()
    store.dispatch(edit('renameShot', 'Less'))
    await soon(async () => expect(await name()).toBe('Less'))
  })

  it('never says that what is gone is safe, nor that it is saved where its takes are gone', async () => {
    const project = testProject()
    await saveWithMedia(
      project,
      project.takes.map(t => ({ digest: t.digest, blob: new Blob([t.name]) })),
    )
    expect(await storageProblem(new Error('x'), project)).toMatch(/safe/)
    // The browser throws its database away; the next write opens an empty one, and succeeds.
    await new Promise(resolve => {
      indexedDB.deleteDatabase('jolly-ghost').onsuccess = resolve
    })
    expect(await storageProblem(new Error('x'), project)).toMatch(/no longer in the browser: save it as a file now/)
    store.dispatch(edit('renameShot', 'After'))
    await soon(() => expect(store.getState().view.saving).toBe('failed'))
    expect(said()).toMatch(/takes are gone/)
  })

  it('writes nothing in a tab that only reads', async () => {
    await stop()
    const before = await name()
    store.dispatch(viewReset({ readOnly: true }))
    stop = startAutosave()
    store.dispatch(opened({ ...testProject(), shot: { ...testProject().shot, name: 'Foreign' } }))
    await stop()
    expect(await name()).toBe(before)
  })
})
