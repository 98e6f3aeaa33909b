// How the small frames of a take lie on one sheet, and by which recipes they and its loudness are made.
import type { Recipe } from './recipe'
import { type Take, takeSeconds } from './shot'

/** Px a small frame is high. */
export const SMALL_HEIGHT = 54
/** How many of them there are at most of a take, and in a row of its sheet. */
const MOST = 240
const COLUMNS = 16

export interface SheetLayout {
  columns: number
  count: number
  /** Seconds from one frame to the next. */
  every: number
  /** Px of one frame. */
  width: number
  height: number
}

/** Two small frames a second of a film, one of anything else; null of what has no picture. */
export function sheetLayout(take: Take): SheetLayout | null {
  if (!take.picture) return null
  const { kind, size } = take.picture
  const seconds = kind === 'film' ? takeSeconds(take) : 0
  const count = Math.max(1, Math.min(MOST, Math.ceil(seconds * 2)))
  return {
    columns: Math.min(count, COLUMNS),
    count,
    every: kind === 'film' ? seconds / count : 1,
    width: Math.max(1, Math.round((SMALL_HEIGHT * size.width) / size.height)),
    height: SMALL_HEIGHT,
  }
}

/** Px of a whole sheet. */
export const sheetSize = ({ columns, count, width, height }: SheetLayout) => ({
  width: columns * width,
  height: Math.ceil(count / columns) * height,
})

/** Where a frame lies on its sheet. */
export const sheetCell = ({ columns, width, height }: SheetLayout, i: number) => ({
  x: (i % columns) * width,
  y: Math.floor(i / columns) * height,
})

export const sheetRecipe = (digest: string): Recipe => ({
  method: 'small frames',
  version: 1,
  of: [digest],
  settings: { height: SMALL_HEIGHT, most: MOST, columns: COLUMNS },
})

export const loudnessRecipe = (digest: string): Recipe => ({
  method: 'loudness',
  version: 1,
  of: [digest],
  settings: {},
})
