// What layers and pieces are called.
import { LIMITS } from './limits'

/** A name with a word after it, no longer than names may be. */
export function named(name: string, word: string | number): string {
  const tail = `, ${word}`
  return `${name.slice(0, LIMITS.name - tail.length)}${tail}`
}

/** A file's name without its extension, as a layer's or shot's name. */
export const bareName = (file: string): string => file.replace(/\.[^.]{1,5}$/, '') || file

/** A name without the number that told it from others of that name. */
export const unnumbered = (name: string): string => name.replace(/(?<=.), \d+$/, '')

/** A name that none of the others has: the wanted one, with the next number behind it where that is taken. */
export function freeName(wanted: string, others: readonly { name: string }[]): string {
  const taken = new Set(others.map(o => o.name))
  let name = wanted
  for (let i = 2; taken.has(name); i++) name = named(unnumbered(wanted), i)
  return name
}
