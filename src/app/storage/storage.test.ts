import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import type { Recipe } from '../../core/recipe'
import { testProject } from '../../testing/documents'
import { fakeLocks } from '../../testing/locks'
import { database } from './database'
import { hold } from './locks'
import { getMade, keepMade } from './made'
import { keepPlace, placeLeft } from './places-left'
import {
  asItWas,
  getMedia,
  listProjects,
  loadProject,
  projectMedia,
  removeProject,
  saveMedia,
  saveProject,
  saveWithMedia,
  storageProblem,
} from './projects'

const project = testProject()
const media = project.takes.map(t => ({ digest: t.digest, blob: new Blob([t.name]) }))

beforeAll(() => void vi.stubGlobal('navigator', { locks: fakeLocks() }))

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
    expect(await loadProject('project')).toEqual({ ok: true, value: { project, aside: [] } })
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
    expect(await loadProject('project')).toMatchObject({ value: { project: { shot: { name: 'Test' } } } })
  })

  it('removes a project, and only the media and what is made of them that nobody else uses', async () => {
    await saveWithMedia(project, media)
    await saveProject({ ...project, id: 'second', takes: project.takes.slice(0, 1) })
    const recipe = (...takes: number[]): Recipe => ({
      method: 'test',
      version: 1,
      of: takes.map(i => media[i]!.digest),
      settings: { b: 1, a: 'x' },
    })
    const recipes = [recipe(0), recipe(1), recipe(0, 1)]
    for (const [i, one] of recipes.entries()) await keepMade(one, i)
    expect(await getMade({ ...recipe(0), settings: { a: 'x', b: 1 } })).toBe(0)
    expect(await getMade({ ...recipe(0), version: 2 })).toBeNull()
    await removeProject('project')
    expect(await Promise.all(recipes.map(one => getMade(one)))).toEqual([0, null, null])
    expect((await listProjects()).map(p => p.id)).toEqual(['second'])
    expect(await getMedia(media[0]!.digest)).toBeDefined()
    expect(await getMedia(media[1]!.digest)).toBeUndefined()
  })

  it('lists what cannot be read, gives it back as it was, and removes it', async () => {
    const db = await database()
    for (const [id, text] of [
      ['odd', '{"nonsense":true}'],
      ['torn', '{"format":'],
    ] as const) {
      await db.put('projects', { id, project: text, savedAt: 0 })
      expect(await loadProject(id)).toMatchObject({ ok: false })
      expect((await listProjects()).find(p => p.id === id)?.project).toBeNull()
      expect(await asItWas(id)).toBe(text)
      expect(await removeProject(id)).toBeNull()
      expect(await asItWas(id)).toBeNull()
    }
  })

  it('opens a damaged shot as far as it goes, and keeps it as it was until it is removed', async () => {
    const shot = { ...project.shot, layers: [...project.shot.layers, { name: 'Broken' }] }
    const text = JSON.stringify({ ...project, id: 'a/b', shot })
    await (await database()).put('projects', { id: 'a/b', project: text, savedAt: 0 })
    const loaded = await loadProject('a/b')
    if (!loaded?.ok) throw new Error('not opened')
    expect(loaded.value).toMatchObject({ project: { id: 'a/b', shot: { layers: project.shot.layers } } })
    expect(loaded.value.aside).toEqual(['the layer “Broken”'])
    await saveProject(loaded.value.project)
    expect(await asItWas('a/b')).toBe(text)
    expect(await loadProject('a/b')).toMatchObject({ value: { aside: [] } })
    await removeProject('a/b')
    expect(await asItWas('a/b')).toBeNull()
  })

  it('removes nothing that another tab has open, and no media that are just being brought in', async () => {
    await saveWithMedia(project, media)
    const release = await hold('project project')
    expect(await removeProject('project')).toMatch(/open in another tab/)
    expect(await hold('project project')).toBeNull()
    release!()
    await new Promise(resolve => setTimeout(resolve))
    const bringing = saveMedia(media, async () => {
      await new Promise(resolve => setTimeout(resolve, 30))
      await saveProject({ ...project, id: 'later' })
    })
    expect(await removeProject('project')).toBeNull()
    await bringing
    expect(await getMedia(media[0]!.digest)).toBeDefined()
  })

  it('opens the database again after it failed to', async () => {
    vi.resetModules()
    const fresh = await import('./database')
    const broken = vi.spyOn(indexedDB, 'open').mockImplementationOnce(() => {
      throw new DOMException('not now', 'UnknownError')
    })
    await expect(fresh.database()).rejects.toThrow('not now')
    broken.mockRestore()
    expect((await fresh.database()).name).toBe('jolly-ghost')
  })

  it('says a full disk in words, with what became of what was there', async () => {
    const full = new DOMException('full', 'QuotaExceededError')
    await saveWithMedia(project, media)
    expect(await storageProblem(full, project)).toMatch(/no room left.*safe/)
    expect(await storageProblem(full, { ...project, id: 'nobody' })).toMatch(/no longer in the browser/)
  })
})

describe('the place where a shot was left', () => {
  const { shot } = project
  const [first, second] = shot.layers
  const nearest = { frame: 0, layer: first!.id, piece: first!.matte[0]?.id ?? null }
  let text: string | null = null
  const full = { is: false }
  beforeAll(
    () =>
      void vi.stubGlobal('localStorage', {
        getItem: () => text,
        setItem(_: string, value: string) {
          if (full.is) throw new DOMException('full', 'QuotaExceededError')
          text = value
        },
      }),
  )

  it('is gone back to, as far as it is still there', () => {
    expect(placeLeft('a', shot)).toEqual(nearest)
    keepPlace('a', { frame: 7, layer: second!.id, piece: 'gone' })
    keepPlace('b', { frame: 9999, layer: 'gone', piece: null })
    expect(placeLeft('a', shot)).toEqual({ frame: 7, layer: second!.id, piece: null })
    expect(placeLeft('b', shot)).toEqual({ ...nearest, frame: shot.length - 1 })
    for (let i = 0; i < 60; i++) keepPlace(`other-${i}`, { frame: 3, layer: null, piece: null })
    expect(placeLeft('a', shot)).toEqual(nearest)
    expect(text!.length).toBeLessThan(5000)
  })

  it('is the beginning where what is kept is broken or nothing can be kept', () => {
    for (const broken of [
      '{',
      '{}',
      '[1]',
      '[["a"]]',
      '[["a",null]]',
      '[["a",{"frame":"x","layer":{}}]]',
      '[["a",{"frame":-1e99}]]',
    ]) {
      text = broken
      expect(placeLeft('a', shot)).toEqual(nearest)
    }
    full.is = true
    expect(() => keepPlace('a', nearest)).not.toThrow()
  })
})
