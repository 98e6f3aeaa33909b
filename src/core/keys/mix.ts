/** What lies between two of a kind of value, t of the way from one to the other, 0..1. */
export type Mixer<T> = (a: T, b: T, t: number) => T

/**
 * Mixes numbers, and lists and records of the same form part by part. Whatever else there is, such as a word or a list of
 * another length, holds until the next key.
 */
export function mixParts<T>(a: T, b: T, t: number): T {
  if (typeof a === 'number' && typeof b === 'number') return (a + (b - a) * t) as T
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a
  if (Array.isArray(a)) {
    const others = Array.isArray(b) && b.length === a.length ? b : null
    return (others ? a.map((part, i) => mixParts(part, others[i], t)) : a) as T
  }
  const to = b as Record<string, unknown>
  return Object.fromEntries(
    Object.entries(a).map(([name, part]) => [name, name in to ? mixParts(part, to[name], t) : part]),
  ) as T
}
