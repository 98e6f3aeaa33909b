// An export that cannot even be ordered says so.
import { beforeEach, expect, it, vi } from 'vitest'
import { testProject } from '../../testing/documents'
import { fakeLocks } from '../../testing/locks'
import { store } from '../store'
import { startExport } from './exports'

vi.mock('../storage/kept-exports', () => ({
  keepExport: async () => {
    throw new DOMException('The disk is full.', 'QuotaExceededError')
  },
  dropExport: async () => {},
  keptExports: async () => [],
}))

beforeEach(() => {
  const storage = { getDirectory: async () => ({ removeEntry: async () => {} }) }
  vi.stubGlobal('navigator', { locks: fakeLocks(), storage })
})

it('is listed as failed where the order cannot be written down', async () => {
  await startExport(testProject(), { format: 'mp4', span: { from: 0, to: 3 }, scale: 1 }, '64×36 · 3 frames')
  expect(store.getState().jobs).toMatchObject([{ state: 'failed', problem: 'The disk is full.', name: 'Test.mp4' }])
})
