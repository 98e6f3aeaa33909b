// Frames made by recipe, kept in a folder of the user's choice: one folder a recipe, one zip a frame.
import { createHash, randomUUID } from 'node:crypto'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { type Recipe, recipeKey } from '../core/recipe'
import type { FramePlace } from '../media/derived-frame'

const RECIPE = 'recipe.json'

/** A folder as a place for frames; it is made when it is first needed. What cannot be written there is told by `onProblem`, once. */
export function folderPlace(folder: string, onProblem: (sentence: string) => void): FramePlace {
  const isMade = new Set<string>()
  let isBroken = false
  const folderOf = (key: string) => join(folder, createHash('sha256').update(key).digest('hex').slice(0, 24))
  const pathOf = (recipe: Recipe, index: number) =>
    join(folderOf(recipeKey(recipe)), `${String(index).padStart(6, '0')}.zip`)

  async function begin(key: string): Promise<void> {
    if (isMade.has(key)) return
    await mkdir(folderOf(key), { recursive: true })
    await writeFile(join(folderOf(key), RECIPE), key)
    isMade.add(key)
  }

  return {
    async get(recipe, index) {
      try {
        return await readFile(pathOf(recipe, index))
      } catch {
        // It is not there, or cannot be read: it is made.
        return null
      }
    },
    async put(recipe, index, packed) {
      if (isBroken) return
      const path = pathOf(recipe, index)
      try {
        await begin(recipeKey(recipe))
        // Whoever reads beside this sees a whole file or none.
        const part = `${path}.${randomUUID()}`
        await writeFile(part, packed)
        await rename(part, path)
      } catch (error) {
        isBroken = true
        onProblem(
          `What is cut out cannot be kept in “${folder}” (${error instanceof Error ? error.message : String(error)}).`,
        )
      }
    },
  }
}
