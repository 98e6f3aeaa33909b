/** How something is made that can be thrown away and made again: equal recipes make equal things. */
export interface Recipe {
  method: string
  /** Grows whenever the method gives something else than before. */
  version: number
  /** Digests of the files that it is made of. */
  of: readonly string[]
  settings: Readonly<Record<string, number | string | boolean>>
}

/** A recipe as text, by which what it makes is kept. */
export function recipeKey({ method, version, of, settings }: Recipe): string {
  const sorted = Object.entries(settings).sort(([a], [b]) => (a < b ? -1 : 1))
  return JSON.stringify([method, version, of, sorted])
}
