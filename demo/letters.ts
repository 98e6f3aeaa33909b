// The letters of the set, the same on every machine: takes and plates of one room are filmed at different times.
import { fileURLToPath } from 'node:url'
import { GlobalFonts } from '@napi-rs/canvas'

/** Family names: upright numerals, and signs in italics. */
export const NUMERALS = 'Shop numerals'
export const SIGNS = 'Shop signs'

function register(family: string, url: string): void {
  if (!GlobalFonts.registerFromPath(fileURLToPath(url), family)) throw new Error(`There is no font at ${url}.`)
}

register(NUMERALS, import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSerif.ttf'))
register(SIGNS, import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSerif-Italic.ttf'))
