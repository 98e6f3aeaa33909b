// Frames made by recipe, kept in a browser: found again, told to other threads, given up with their takes or where room is short.
import 'fake-indexeddb/auto'
import { afterEach, expect, it, vi } from 'vitest'
import { cutoutRecipe } from '../core/plate'
import { packFrame } from '../media/derived-frame'
import { soon } from '../testing/soon'
import { browserPlace, type FrameNews, forgetFramesOf, framesKept, onFrameNews } from './frame-place'

const recipe = (take: string, sensitive = 50) =>
  cutoutRecipe(take, { plate: 'plate', from: 0, to: 0.5, sensitive, shadow: 100 })

const frame = (index: number, unsure: number) =>
  packFrame({ index, parts: { alpha: new Uint8Array(64).fill(index) }, colours: new Uint8Array(192), told: { unsure } })

afterEach(() => vi.restoreAllMocks())

it('finds what was kept, each recipe by itself, and tells of what comes', async () => {
  const news: FrameNews[] = []
  const leave = onFrameNews(one => news.push(one))
  const place = browserPlace()
  await place.put(recipe('a'), 3, frame(3, 0.25))
  await place.put(recipe('a'), 11, frame(11, 0.5))
  await place.put(recipe('a', 60), 3, frame(3, 1))
  expect(await place.get(recipe('a'), 3)).toEqual(frame(3, 0.25))
  expect(await place.get(recipe('a'), 4)).toBeNull()
  expect([...(await framesKept(recipe('a')))]).toEqual([
    [3, { unsure: 0.25 }],
    [11, { unsure: 0.5 }],
  ])
  await soon(() => expect(news.map(n => ('index' in n ? n.index : n.problem))).toEqual([3, 11, 3]))
  leave()
})

it('forgets what was made of files that are gone, as takes and as plates, and nothing else', async () => {
  const place = browserPlace()
  await place.put(recipe('b'), 0, frame(0, 0))
  await forgetFramesOf(new Set(['a', 'nobody']))
  expect(await place.get(recipe('a'), 3)).toBeNull()
  expect(await place.get(recipe('b'), 0)).not.toBeNull()
  await forgetFramesOf(new Set(['plate']))
  expect((await framesKept(recipe('b'))).size).toBe(0)
})

it('gives up other recipes where room is short, and says so where there is none at all', async () => {
  const news: FrameNews[] = []
  const leave = onFrameNews(one => news.push(one))
  const place = browserPlace()
  await place.put(recipe('old'), 0, frame(0, 0))
  const put = IDBObjectStore.prototype.put
  const full = () => {
    throw new DOMException('no room', 'QuotaExceededError')
  }
  // Once: as if the room that the others took were given back.
  const spy = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementationOnce(full)
  await place.put(recipe('new'), 1, frame(1, 0))
  expect(await place.get(recipe('new'), 1)).not.toBeNull()
  expect(await place.get(recipe('old'), 0)).toBeNull()
  spy.mockImplementation(full)
  for (const index of [2, 3]) await place.put(recipe('new'), index, frame(index, 0))
  spy.mockImplementation(put)
  await soon(() => expect(news).toHaveLength(5))
  expect(news.filter(n => 'problem' in n)).toEqual([{ problem: expect.stringMatching(/cannot be kept.*no room/) }])
  expect(await place.get(recipe('new'), 1)).not.toBeNull()
  leave()
})
