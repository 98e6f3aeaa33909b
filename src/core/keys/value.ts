// A value that stands still or moves by keys: one sampler for everything numeric in a shot.

export type Ease = 'hold' | 'linear' | 'smooth'

/** A number, or a record of numbers that move together, such as a line or a frame. */
export type Numeric = number | { readonly [name: string]: number }

export interface Key<T extends Numeric> {
  frame: number
  value: T
  /** How the value leaves this key towards the next. */
  ease: Ease
}

export type Value<T extends Numeric> = T | { keys: Key<T>[] }

export const isKeyed = <T extends Numeric>(value: Value<T>): value is { keys: Key<T>[] } =>
  typeof value === 'object' && Array.isArray((value as { keys?: unknown }).keys)

export const keysOf = <T extends Numeric>(value: Value<T>): readonly Key<T>[] => (isKeyed(value) ? value.keys : [])

function blend<T extends Numeric>(a: T, b: T, t: number): T {
  if (typeof a === 'number') return (a + ((b as number) - a) * t) as T
  const from = a as Record<string, number>
  const to = b as Record<string, number>
  return Object.fromEntries(Object.keys(from).map(k => [k, from[k]! + (to[k]! - from[k]!) * t])) as T
}

/** The index of the last key at or before a frame, -1 before the first. */
function keyBefore<T extends Numeric>(keys: readonly Key<T>[], frame: number): number {
  let low = 0
  let high = keys.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (keys[middle]!.frame <= frame) low = middle + 1
    else high = middle
  }
  return low - 1
}

/** The value at a frame (fractions allowed). Before the first and after the last key the nearest key's value holds. */
export function sample<T extends Numeric>(value: Value<T>, frame: number): T {
  if (!isKeyed(value)) return value
  const { keys } = value
  const i = keyBefore(keys, frame)
  if (i < 0) return keys[0]!.value
  const key = keys[i]!
  const next = keys[i + 1]
  if (!next || key.ease === 'hold' || key.frame === frame) return key.value
  const t = (frame - key.frame) / (next.frame - key.frame)
  return blend(key.value, next.value, key.ease === 'smooth' ? t * t * (3 - 2 * t) : t)
}
