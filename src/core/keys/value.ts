// A value that stands still or moves by keys: one sampler for everything in a shot that moves.
import { type Ease, eased } from './ease'
import { type Mixer, mixParts } from './mix'

/** `T` is a number, or lists and records of such: a line, a frame, an outline. */
export interface Key<T> {
  frame: number
  value: T
  /** How the value leaves this key towards the next. */
  ease: Ease
}

export type Value<T> = T | { keys: Key<T>[] }

export const isKeyed = <T>(value: Value<T>): value is { keys: Key<T>[] } =>
  typeof value === 'object' && Array.isArray((value as { keys?: unknown }).keys)

export const keysOf = <T>(value: Value<T>): readonly Key<T>[] => (isKeyed(value) ? value.keys : [])

/** The index of the last key at or before a frame, -1 before the first. */
function keyBefore<T>(keys: readonly Key<T>[], frame: number): number {
  let low = 0
  let high = keys.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (keys[middle]!.frame <= frame) low = middle + 1
    else high = middle
  }
  return low - 1
}

/** The value at a frame (fractions allowed), with what lies between two keys as `mix` says. Before the first and after the last key the nearest key's value holds. */
export function sample<T>(value: Value<T>, frame: number, mix: Mixer<T> = mixParts): T {
  if (!isKeyed(value)) return value
  const { keys } = value
  const i = keyBefore(keys, frame)
  if (i < 0) return keys[0]!.value
  const key = keys[i]!
  const next = keys[i + 1]
  if (!next || key.ease === 'hold' || key.frame === frame) return key.value
  const t = (frame - key.frame) / (next.frame - key.frame)
  return mix(key.value, next.value, eased(key.ease, t))
}
