// Frames made by recipe in a folder: found the next time, and a folder that cannot be written in said once.
import { readdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { expect, it, vi } from 'vitest'
import { temporaryFolder } from '../testing/clips'
import { folderPlace } from './frame-place'

const recipe = { method: 'cutout', version: 1, of: ['take', 'plate'], settings: { from: 0 } }

it('keeps frames by recipe and number', async () => {
  const folder = join(await temporaryFolder(), 'kept')
  const said = vi.fn()
  const place = folderPlace(folder, said)
  expect(await place.get(recipe, 4)).toBeNull()
  await place.put(recipe, 4, Uint8Array.of(1, 2))
  await place.put({ ...recipe, version: 2 }, 4, Uint8Array.of(3))
  const again = folderPlace(folder, said)
  expect([...(await again.get(recipe, 4))!, ...(await again.get({ ...recipe, version: 2 }, 4))!]).toEqual([1, 2, 3])
  const [first] = await readdir(folder)
  expect((await readdir(join(folder, first!))).sort()).toEqual(['000004.zip', 'recipe.json'])
  expect(said).not.toHaveBeenCalled()
})

it('says once that nothing can be kept', async () => {
  const folder = join(await temporaryFolder(), 'a-file')
  await writeFile(folder, '')
  const said = vi.fn()
  const place = folderPlace(folder, said)
  for (const index of [1, 2]) await place.put(recipe, index, Uint8Array.of(1))
  expect(await place.get(recipe, 1)).toBeNull()
  expect(said.mock.calls).toEqual([[expect.stringMatching(/cannot be kept in .*a-file/)]])
})
