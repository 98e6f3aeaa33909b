// A frame that was made by recipe, as it is kept: what it covers as packed runs, and what was measured on the way, in one zip.
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import type { Recipe } from '../core/recipe'
import { packedLength, packRuns } from './runs'

/** A frame of what a recipe makes. */
export interface DerivedFrame {
  index: number
  /** How much of each px is covered, 0..255, part by part; of shadow, of each cell of 2×2 px. */
  parts: Readonly<Record<string, Uint8Array>>
  /** Red, green and blue of px that the first part neither leaves out nor covers wholly, in order: what they would be by themselves. */
  colours: Uint8Array
  /** What was measured on the way. */
  told: Told
}

export type Told = Readonly<Record<string, number>>

/** Where frames made by recipe are kept beyond the thread that made them. What cannot be read counts as not there; what cannot be written is told by whoever keeps the place. */
export interface FramePlace {
  get(recipe: Recipe, index: number): Promise<Uint8Array | null>
  put(recipe: Recipe, index: number, packed: Uint8Array): Promise<void>
}

const TOLD = 'told.json'
const COLOURS = 'colours.rgb'
/** Equal frames are equal files. */
const SOMETIME = '2000-01-01T12:00:00'

export function packFrame({ parts, colours, told }: DerivedFrame): Uint8Array {
  const files = Object.entries(parts).map(([name, bytes]) => [`${name}.runs`, packRuns(bytes)] as const)
  const all = { ...Object.fromEntries(files), [COLOURS]: colours, [TOLD]: strToU8(JSON.stringify(told)) }
  return zipSync(all, { level: 1, mtime: SOMETIME })
}

/** A part of a packed frame as runs of so many bytes; null where it is damaged or has none of that name. */
export function runsOf(packed: Uint8Array, part: string, length: number): Uint8Array | null {
  try {
    const runs = unzipSync(packed, { filter: ({ name }) => name === `${part}.runs` })[`${part}.runs`]
    return runs && packedLength(runs) === length ? runs : null
  } catch {
    return null
  }
}

/** The colours of a packed frame; null where it is damaged. */
export function unpackColours(packed: Uint8Array): Uint8Array | null {
  try {
    return unzipSync(packed, { filter: ({ name }) => name === COLOURS })[COLOURS] ?? null
  } catch {
    return null
  }
}

/** What was measured of a packed frame; nothing where it is damaged. */
export function unpackTold(packed: Uint8Array): Told {
  try {
    return JSON.parse(strFromU8(unzipSync(packed, { filter: ({ name }) => name === TOLD })[TOLD]!))
  } catch {
    return {}
  }
}
