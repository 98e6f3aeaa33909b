// What was made by recipe, kept until one of the files that it was made of is removed.
import { type Recipe, recipeKey } from '../../core/recipe'
import { database } from './database'

/** What a recipe made, if that is kept. `T` is what its method gives. */
export async function getMade<T>(recipe: Recipe): Promise<T | null> {
  const kept = await (await database()).get('made', recipeKey(recipe))
  return (kept?.made as T | undefined) ?? null
}

export async function keepMade(recipe: Recipe, made: unknown): Promise<void> {
  await (await database()).put('made', { of: recipe.of, made }, recipeKey(recipe))
}
