// Exposure, balance and offset: brings the light of one take to that of another.
import type { LookKind } from './kind'

/** What linear red, green and blue are multiplied by, and what is added to each then. */
export interface PlannedLight {
  kind: 'light'
  r: number
  g: number
  b: number
  offset: number
}

const balance = (name: string) => ({ name, unit: 'st', least: -2, most: 2, initial: 0, step: 0.02, digits: 2 })

/** Told in stops, each of which doubles the light; the offset is light that is added. */
export const LIGHT: LookKind<PlannedLight> = {
  name: 'Light',
  use: 'Brings its light to that of what lies beside it.',
  values: {
    exposure: { name: 'Exposure', unit: 'st', least: -8, most: 8, initial: 0, step: 0.05, digits: 2 },
    red: balance('Red'),
    blue: balance('Blue'),
    // Of white: what a veil of stray light adds to everything.
    offset: { name: 'Offset', unit: '%', least: -20, most: 20, initial: 0, step: 0.02, digits: 2 },
  },
  plan({ exposure = 0, red = 0, blue = 0, offset = 0 }) {
    if (exposure === 0 && red === 0 && blue === 0 && offset === 0) return null
    return {
      kind: 'light',
      r: 2 ** (exposure + red),
      g: 2 ** exposure,
      b: 2 ** (exposure + blue),
      offset: offset / 100,
    }
  },
  rows(k, { r, g, b, offset }, source) {
    const { width, height, opaque } = source
    const codes = k.alloc(width * 4)
    const lit = k.alloc(width * 16)
    const linear = (x: number, n: number, dst: number, spare: number) => {
      source.linear(x, n, dst, spare)
      k.gainRow(dst, n, r, g, b, offset)
      // What is brighter than white is white, as a sensor has it, and nothing is darker than black.
      k.boundRow(dst, n)
    }
    return {
      width,
      height,
      opaque,
      ...(source.steady && { steady: true }),
      open: y => source.open(y),
      linear,
      codes(x, n, dst) {
        linear(x, n, lit, codes)
        k.toCodes(lit, dst, n)
      },
    }
  },
}
