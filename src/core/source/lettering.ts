// Letters: a text that stands in the picture, drawn by the outlines of its fonts.
import { type Affine, type Box, boundsOf, carry, carryBy, scaleOf, UNMOVED } from '../affine'
import {
  ALIGNS,
  type Align,
  type Border,
  castSchema,
  type Fill,
  filled,
  fillSchema,
  type Layout,
  type Letters,
  lettersBounds,
  lettersRings,
  type Shadow,
  type Wording,
} from '../graphic'
import { keysOf, type NumberKind, sample, type Value } from '../keys'
import type { OutlinePoint } from '../outline'
import type { ColourPicture } from '../picture/colour'
import type { GradientPicture } from '../picture/gradient'
import type { Making } from '../picture/kind'
import { digestOf } from '../plan/digest'
import { quadOf } from '../projective'
import type { Kernels } from '../render/kernels'
import { stillRows } from '../render/still'
import { type Coverage, type Feather, openRings } from '../shape'
import { DRAWN } from './drawn'
import type { SourceKind } from './kind'

/** px of its own stand about nought, halfway up the lines and where they are aligned. */
export interface LetteringSource {
  kind: 'lettering'
  text: string
  /** Digests; each stands in for what those before it lack. */
  fonts: string[]
  /** Where variable fonts stand on their axes. */
  axes: Record<string, number>
  align: Align
  fill: Fill | null
  border: Border | null
  shadow: Shadow | null
  values: Record<string, Value<number>>
}

/** Lengths in px of the output. */
export interface LetteringPicture {
  kind: 'lettering'
  wording: Wording
  layout: Layout
  to: Affine
  fill: ColourPicture | GradientPicture | null
  border: Border | null
  shadow: Shadow | null
}

export const LETTERING_LIMITS = { letters: 10_000, fonts: 16 } as const

const VALUES = {
  size: { name: 'Size', unit: 'px', least: 1, most: 4000, initial: 120 },
  spacing: { name: 'Spacing', least: -1, most: 10, initial: 0, step: 0.01, digits: 3 },
  leading: { name: 'Leading', least: -10, most: 10, initial: 1.2, step: 0.05, digits: 2 },
} as const satisfies Record<string, NumberKind>

/** What a lettering's glyphs depend on. */
export const wordingOf = ({ text, fonts, axes, values }: LetteringSource): Wording => ({
  text,
  fonts,
  axes,
  // Joined letters cannot stand apart.
  loose: values.spacing !== 0,
})

/** How a lettering stands at a frame. */
export function layoutAt({ align, values }: LetteringSource, frame: number): Layout {
  const at = (of: keyof typeof VALUES) => sample(values[of] ?? VALUES[of].initial, frame)
  return { size: at('size'), spacing: at('spacing'), leading: at('leading'), align }
}

/** Something that is laid over what lies behind it, cut by a coverage. */
interface Cut {
  coverage: Coverage
  picture: ColourPicture | GradientPicture
  opacity: number
}

const HARD: Feather = { grow: 0, inside: 0, outside: 0 }

/** What letters consist of, the farthest first: their shadow, the line round them, and themselves. */
function cutsOf(k: Kernels, picture: LetteringPicture, letters: Letters, { size }: Making): Cut[] {
  const { layout, to, fill, border, shadow } = picture
  const ringsAt = (x: number, y: number) => lettersRings(letters, layout, { ...to, x: to.x + x, y: to.y + y }).flat()
  const rings = ringsAt(0, 0)
  const open = (of: OutlinePoint[][], feather: Feather) => openRings(k, of, feather, size)
  const sheet = (colour: string): ColourPicture => ({ kind: 'colour', colour })
  const grow = border?.width ?? 0
  const half = (shadow?.soft ?? 0) / 2
  return [
    ...(shadow
      ? [
          {
            coverage: open(ringsAt(shadow.x, shadow.y), { grow, inside: half, outside: half }),
            picture: sheet(shadow.colour),
            opacity: shadow.opacity,
          },
        ]
      : []),
    ...(border
      ? [{ coverage: open(rings, { ...HARD, grow }), picture: sheet(border.colour), opacity: border.opacity }]
      : []),
    ...(fill ? [{ coverage: open(rings, HARD), picture: fill, opacity: 1 }] : []),
  ]
}

/** What letters show something in, with their line and shadow, px of the output. */
function extentOf(
  { layout, to, border, shadow }: Pick<LetteringPicture, 'layout' | 'to' | 'border' | 'shadow'>,
  letters: Letters,
): Box {
  const bounds = lettersBounds(letters, layout)
  if (!bounds) return { left: 0, top: 0, right: 0, bottom: 0 }
  const { left, top, right, bottom } = bounds
  const corners = [left, right].flatMap(x => [top, bottom].map(y => carry(to, { x, y })))
  const wide = (border?.width ?? 0) + 1
  const soft = wide + (shadow?.soft ?? 0) / 2
  const reach = (of: 'x' | 'y', sign: 1 | -1) => {
    const far = Math.max(...corners.map(c => sign * c[of]))
    return sign * Math.max(far + wide, shadow ? far + sign * shadow[of] + soft : far)
  }
  return { left: reach('x', -1), top: reach('y', -1), right: reach('x', 1), bottom: reach('y', 1) }
}

/** What letters show something in at any of their keys, with their line and shadow, px of the source. */
export function letteringReach(source: LetteringSource, letters: Letters): Box {
  const frames = [0, ...Object.values(source.values).flatMap(value => keysOf(value).map(k => k.frame))]
  const reach = (frame: number) => extentOf({ ...source, layout: layoutAt(source, frame), to: UNMOVED }, letters)
  return boundsOf(frames.map(reach).flatMap(quadOf))
}

/** Opens what makes a row of letters. */
function openLetters(k: Kernels, picture: LetteringPicture, letters: Letters, making: Making) {
  const { width } = making.size
  const cuts = cutsOf(k, picture, letters, making).map(cut => ({ ...cut, rows: making.rows(cut.picture)! }))
  const coverage = k.alloc(width * 4)
  const source = k.alloc(width * 16)
  const codes = k.alloc(width * 4)
  return (y: number, out: number) => {
    k.fillRow(out, width, 0, 0, 0, 0)
    for (const { coverage: cut, rows, opacity } of cuts) {
      if (y < cut.top || y >= cut.bottom) continue
      cut.row(y, coverage)
      rows.open(y)
      rows.linear(0, width, source, codes)
      k.overRow(out, source, coverage, width, opacity)
    }
  }
}

export const LETTERING: SourceKind<LetteringSource, LetteringPicture> = {
  ...DRAWN,
  name: 'lettering',
  schema: words => ({
    text: words.text(LETTERING_LIMITS.letters),
    fonts: words.list(words.digest, 1, LETTERING_LIMITS.fonts),
    axes: words.axes,
    align: words.oneOf(...ALIGNS),
    fill: words.maybe(fillSchema(words)),
    ...castSchema(words),
  }),
  values: VALUES,
  files: ({ fonts }) => fonts,
  plan(source, { frame, to }) {
    const { fill, border, shadow } = source
    const scale = scaleOf(to)
    return {
      kind: 'lettering',
      wording: wordingOf(source),
      layout: layoutAt(source, frame),
      to,
      fill: fill && filled(fill, to),
      border: border && { ...border, width: border.width * scale },
      shadow: shadow && { ...shadow, ...carryBy(to, shadow), soft: shadow.soft * scale },
    }
  },
  picture: {
    needs: ({ wording }) => [{ letters: wording }],
    rows(k, picture, making) {
      const letters = making.find({ letters: picture.wording })
      if (letters?.kind !== 'letters') return null
      const open = () => openLetters(k, picture, letters, making)
      return stillRows(k, making.size, digestOf(picture), open, extentOf(picture, letters))
    },
  },
}
