// Editing keys. Every function returns a new value and leaves the old one alone.
import { type Ease, reversedEase } from './ease'
import { isKeyed, type Key, sample, type Value } from './value'

const keyed = <T>(keys: Key<T>[]): Value<T> => ({ keys: [...keys].sort((a, b) => a.frame - b.frame) })

/** Sets a key at a frame, replacing one that is there; a new one takes the ease of the key before it. */
export function setKey<T>(value: Value<T>, frame: number, to: T, ease?: Ease): Value<T> {
  const keys = isKeyed(value) ? value.keys : []
  const old = keys.find(k => k.frame === frame)
  const before = keys.filter(k => k.frame < frame).at(-1)
  const key: Key<T> = { frame, value: to, ease: ease ?? old?.ease ?? before?.ease ?? 'smooth' }
  return keyed([...keys.filter(k => k.frame !== frame), key])
}

/** Changes the value as seen at a frame: at a key if the value is keyed, as a whole if it is not. */
export const setAt = <T>(value: Value<T>, frame: number, to: T): Value<T> =>
  isKeyed(value) ? setKey(value, frame, to) : to

/** Takes a key away; with the last one gone the value stands still where that key held it. */
export function removeKey<T>(value: Value<T>, frame: number): Value<T> {
  if (!isKeyed(value)) return value
  const keys = value.keys.filter(k => k.frame !== frame)
  return keys.length > 0 ? { keys } : sample(value, frame)
}

/**
 * Brings the keys at some frames to others, whole ones. A key that is there already gives way; of those that meet the later one stays. With
 * `copying` they stay where they were as well.
 */
export function retimeKeys<T>(
  value: Value<T>,
  frames: readonly number[],
  to: (frame: number) => number,
  copying = false,
): Value<T> {
  if (!isKeyed(value)) return value
  const chosen = new Set(frames)
  const moved = value.keys.filter(k => chosen.has(k.frame)).map(k => ({ ...k, frame: Math.round(to(k.frame)) }))
  if (moved.length === 0) return value
  const left = value.keys.filter(k => copying || !chosen.has(k.frame))
  return keyed([...new Map([...left, ...moved].map(k => [k.frame, k])).values()])
}

export function setEase<T>(value: Value<T>, frame: number, ease: Ease): Value<T> {
  if (!isKeyed(value)) return value
  return { keys: value.keys.map(k => (k.frame === frame ? { ...k, ease } : k)) }
}

/** Does the same to the value of every key, or to one that stands still. */
export const mapKeys = <T>(value: Value<T>, change: (value: T) => T): Value<T> =>
  isKeyed(value) ? { keys: value.keys.map(k => ({ ...k, value: change(k.value) })) } : change(value)

/** Moves every key by a number of frames. */
export function shiftKeys<T>(value: Value<T>, by: number): Value<T> {
  return isKeyed(value) ? { keys: value.keys.map(k => ({ ...k, frame: k.frame + by })) } : value
}

/** Spreads keys in time about a frame, to whole frames; of those that meet the later one stays. */
export function spreadKeys<T>(value: Value<T>, about: number, factor: number): Value<T> {
  if (!isKeyed(value)) return value
  const at = (frame: number) => about + Math.round((frame - about) * factor)
  return { keys: [...new Map(value.keys.map(k => [at(k.frame), { ...k, frame: at(k.frame) }])).values()] }
}

/** Turns keys round in time: what was at a frame is then at `sum` less that frame, and each way between two keys is as it was. */
export function mirrorKeys<T>(value: Value<T>, sum: number): Value<T> {
  if (!isKeyed(value)) return value
  const eases = [...value.keys.slice(0, -1).map(k => k.ease), value.keys.at(-1)!.ease]
  const keys = value.keys.map((k, i) => ({
    ...k,
    frame: sum - k.frame,
    ease: reversedEase(eases[Math.max(0, i - 1)]!),
  }))
  return { keys: keys.reverse() }
}
