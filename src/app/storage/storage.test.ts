import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { describe, expect, it } from 'vitest'
import { testProject } from '../../testing/documents'
import { database, storageProblem } from './database'
import {
  getMedia,
  listProjects,
  loadProject,
  projectMedia,
  removeProject,
  saveProject,
  saveWithMedia,
} from './projects'

const project = testProject()
const media = project.takes.map(t => ({ digest: t.digest, blob: new Blob([t.name]) }))

describe('storage', () => {
  it('reads what an older version kept as objects', async () => {
    const older = await openDB('jolly-ghost', 2, {
      upgrade(db) {
        db.createObjectStore('projects', { keyPath: 'id' })
        for (const name of ['media', 'posters', 'derived']) db.createObjectStore(name)
      },
    })
    await older.put('projects', { id: 'older', project: { ...project, id: 'older' }, savedAt: 7 })
    older.close()
    expect(await listProjects()).toEqual([{ id: 'older', project: { ...project, id: 'older' }, savedAt: 7 }])
    await removeProject('older')
  })

  it('keeps a project with its media, and names what is missing', async () => {
    await saveWithMedia(project, media.slice(0, 1))
    expect(await loadProject('project')).toEqual({ ok: true, value: project })
    const { files, missing } = await projectMedia(project)
    expect(files.map(f => f.name)).toEqual(['take-0.mp4'])
    expect(missing.map(t => t.name)).toEqual(['take-1.mp4'])
    expect(await loadProject('nobody')).toBeNull()
  })

  it('saves all or nothing: a write that fails leaves the last good state', async () => {
    await saveWithMedia(project, media)
    const broken = { digest: 'e'.repeat(64), blob: (() => {}) as unknown as Blob }
    const changed = { ...project, shot: { ...project.shot, name: 'Changed' } }
    await expect(saveWithMedia(changed, [broken])).rejects.toThrow()
    expect(await loadProject('project')).toMatchObject({ value: { shot: { name: 'Test' } } })
  })

  it('removes a project and only the media nobody else uses', async () => {
    await saveWithMedia(project, media)
    await saveProject({ ...project, id: 'second', takes: project.takes.slice(0, 1) })
    await removeProject('project')
    expect((await listProjects()).map(p => p.id)).toEqual(['second'])
    expect(await getMedia(media[0]!.digest)).toBeDefined()
    expect(await getMedia(media[1]!.digest)).toBeUndefined()
  })

  it('does not trust what an older version may have written', async () => {
    await (await database()).put('projects', { id: 'odd', project: '{"nonsense":true}', savedAt: 0 })
    expect(await loadProject('odd')).toMatchObject({ ok: false })
  })

  it('says a full disk in words', () => {
    expect(storageProblem(new DOMException('full', 'QuotaExceededError'))).toMatch(/no room left.*safe/)
  })
})
