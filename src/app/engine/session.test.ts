// Opening that fails lets go of what it has taken hold of.
import 'fake-indexeddb/auto'
import { beforeEach, expect, it, vi } from 'vitest'
import { testProject } from '../../testing/documents'
import { fakeLocks } from '../../testing/locks'
import { hold } from '../storage/locks'
import { saveProject } from '../storage/projects'
import { projectOf, store } from '../store'
import { openSession } from './session'

beforeEach(async () => {
  vi.stubGlobal('cancelAnimationFrame', () => {})
  vi.stubGlobal('navigator', { locks: fakeLocks(), storage: { persist: async () => true } })
  await saveProject(testProject())
})

it('a start that fails keeps no lock, so that the next one is not told of another tab', async () => {
  const broken = {
    transferControlToOffscreen() {
      throw new Error('no canvas to be had')
    },
  } as unknown as HTMLCanvasElement
  vi.stubGlobal(
    'Worker',
    class {
      addEventListener() {}
      postMessage() {}
      terminate() {}
    },
  )
  for (let i = 0; i < 2; i++) {
    await expect(openSession('project', broken, () => {})).rejects.toThrow('no canvas')
    expect(projectOf(store.getState())).toBeNull()
    await new Promise(resolve => setTimeout(resolve))
    const release = await hold('project project')
    expect(release).not.toBeNull()
    release!()
    await new Promise(resolve => setTimeout(resolve))
  }
  expect(await openSession('nobody', broken, () => {})).toMatch(/no such shot/)
})
