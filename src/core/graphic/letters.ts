// Letters that are set: which glyphs stand where, and the outlines that they are drawn by.
import { type Affine, after } from '../affine'
import { carryOutlinePoint, type OutlinePoint } from '../outline'

/** A text as it is shaped: what of a lettering says which glyphs it consists of. */
export interface Wording {
  /** Lines parted by line breaks. */
  text: string
  /** Digests of fonts: each stands in for what those before it lack. */
  fonts: readonly string[]
  /** Where on their axes variable fonts stand, by four-letter tag. */
  axes: Readonly<Record<string, number>>
  /** Letters that stand apart are not joined to one glyph. */
  loose: boolean
}

/** A glyph in a line, in em from the line's left end on its base, downwards. */
export interface SetGlyph {
  /** Its number among the outlines. */
  outline: number
  x: number
  y: number
  /** How many letters stand left of it. */
  after: number
}

export interface SetLine {
  /** em. */
  width: number
  letters: number
  /** From the left. */
  glyphs: readonly SetGlyph[]
}

/** Lengths in em. */
export interface Letters {
  kind: 'letters'
  /** How far the first font reaches above its base, and below. */
  ascent: number
  descent: number
  lines: readonly SetLine[]
  /** Letters that none of the fonts has. */
  lacks: string
  /** Rings of each glyph, downwards. */
  outlines: readonly (readonly OutlinePoint[][])[]
}

export const ALIGNS = ['left', 'middle', 'right'] as const
export type Align = (typeof ALIGNS)[number]

export interface Layout {
  /** px of an em. */
  size: number
  /** em between letters, besides what the font says. */
  spacing: number
  /** em from line to line. */
  leading: number
  align: Align
}

const SIDES: Readonly<Record<Align, number>> = { left: 0, middle: -0.5, right: -1 }

const widthOf = ({ width, letters }: SetLine, { spacing }: Layout): number => width + spacing * Math.max(0, letters - 1)

/** em from the middle of a block of lines up to the base of its first. */
const firstBase = ({ ascent, descent, lines }: Letters, { leading }: Layout): number =>
  ascent - (ascent + descent + Math.max(0, lines.length - 1) * leading) / 2

/**
 * What letters lie within, px: their lines stand about nought, as they are aligned, and halfway up.
 */
export function lettersFrame(letters: Letters, layout: Layout) {
  const { size, leading, align } = layout
  const width = Math.max(0, ...letters.lines.map(line => widthOf(line, layout))) * size
  const height = (letters.ascent + letters.descent + Math.max(0, letters.lines.length - 1) * leading) * size
  return { left: SIDES[align] * width, top: -height / 2, width, height }
}

/** What each glyph lies within, by the ends of its handles, em. */
const boxes = new WeakMap<Letters, Float64Array>()

function boxesOf(letters: Letters): Float64Array {
  const known = boxes.get(letters)
  if (known) return known
  const out = new Float64Array(letters.outlines.length * 4)
  letters.outlines.forEach((rings, i) => {
    const ends = rings
      .flat()
      .flatMap(p => [p, { x: p.x + p.inX, y: p.y + p.inY }, { x: p.x + p.outX, y: p.y + p.outY }])
    const [left, top, right, bottom] = ends.reduce(
      ([l, t, r, b], { x, y }) => [Math.min(l, x), Math.min(t, y), Math.max(r, x), Math.max(b, y)] as const,
      [Infinity, Infinity, -Infinity, -Infinity] as const,
    )
    out.set([left, top, right, bottom], i * 4)
  })
  boxes.set(letters, out)
  return out
}

/** What glyphs as they are drawn lie within, px of the lettering; null where there are none. */
export function lettersBounds(letters: Letters, layout: Layout) {
  const { size, spacing, leading, align } = layout
  const own = boxesOf(letters)
  const base = firstBase(letters, layout)
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  letters.lines.forEach((line, i) => {
    const start = SIDES[align] * widthOf(line, layout)
    for (const { outline, x, y, after: before } of line.glyphs) {
      const [across, down] = [start + x + before * spacing, base + i * leading + y]
      bounds.left = Math.min(bounds.left, (across + own[outline * 4]!) * size)
      bounds.top = Math.min(bounds.top, (down + own[outline * 4 + 1]!) * size)
      bounds.right = Math.max(bounds.right, (across + own[outline * 4 + 2]!) * size)
      bounds.bottom = Math.max(bounds.bottom, (down + own[outline * 4 + 3]!) * size)
    }
  })
  return bounds.left <= bounds.right ? bounds : null
}

/** The rings of letters in the order in which they are read, each glyph by itself, where a map carries px of the lettering. */
export function lettersRings(letters: Letters, layout: Layout, to: Affine): OutlinePoint[][][] {
  const { size, spacing, leading, align } = layout
  const base = firstBase(letters, layout)
  return letters.lines.flatMap((line, i) => {
    const left = SIDES[align] * widthOf(line, layout)
    return line.glyphs.map(({ outline, x, y, after: before }) => {
      const at = { x: (left + x + before * spacing) * size, y: (base + i * leading + y) * size }
      const map = after(to, { a: size, b: 0, c: 0, d: size, ...at })
      return letters.outlines[outline]!.map(ring => ring.map(p => carryOutlinePoint(map, p)))
    })
  })
}
