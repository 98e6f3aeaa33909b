// Text -> glyphs at their places, and their outlines: kerning, ligatures and scripts of every direction, as fonts tell them.
import bidiFactory from 'bidi-js'
import * as hb from 'harfbuzzjs'
import type { Letters, SetGlyph, SetLine, Wording } from '../core/graphic'
import { corner, type OutlinePoint } from '../core/outline'
import type { FontFace } from '../core/shot'

/** A font that is open. */
export interface Face {
  face: hb.Face
  characters: ReadonlySet<number>
}

/** Opens a font's tables; null where they are none. */
export function openFace(bytes: Uint8Array): Face | null {
  const face = new hb.Face(new hb.Blob(bytes))
  const characters = new Set(face.collectUnicodes())
  return characters.size > 0 && face.upem > 0 ? { face, characters } : null
}

/** What a font calls itself, and what can be varied about it. */
export function describeFace({ face }: Face, name: string): FontFace {
  const [family, legacy] = [face.getName(16, 'en'), face.getName(1, 'en')]
  const axes = Object.entries(face.getAxisInfos()).map(([tag, { min, default: initial, max }]) => ({
    tag,
    least: min,
    initial,
    most: max,
  }))
  return { family: (family || legacy || name).slice(0, 100), axes }
}

/** A stretch of a line that one font sets in one direction. */
interface Run {
  /** Which of the fonts. */
  font: number
  /** Odd: from right to left. */
  level: number
  script: string
  /** UTF-16 units of the line. */
  from: number
  to: number
}

/** Scripts that letters are told to belong to; what belongs to none goes with what stands before it. */
const SCRIPTS = [
  'Latin Greek Cyrillic Armenian Hebrew Arabic Syriac Thaana Devanagari Bengali Gurmukhi Gujarati Oriya Tamil Telugu Kannada Malayalam',
  'Sinhala Thai Lao Tibetan Myanmar Georgian Hangul Ethiopic Cherokee Khmer Mongolian Hiragana Katakana Bopomofo Han Yi Javanese Balinese',
]
  .join(' ')
  .split(' ')
  .map(name => ({ name, has: new RegExp(`\\p{Script=${name}}`, 'u') }))

const MARK = /\p{M}|\u200c|\u200d|[\ufe00-\ufe0f]/u

const bidi = bidiFactory()

/** Whether a letter can be set; breaks and marks that show nothing always can. */
const isKnown = (letter: string, faces: readonly Face[]): boolean =>
  MARK.test(letter) || /\s/.test(letter) || faces.some(({ characters }) => characters.has(letter.codePointAt(0)!))

/** A line in runs, in the order of its text. */
function runsOf(line: string, faces: readonly Face[]): Run[] {
  const { levels } = bidi.getEmbeddingLevels(line)
  const runs: Run[] = []
  let at = 0
  for (const letter of line) {
    const last = runs.at(-1)
    const isMark = MARK.test(letter)
    const code = letter.codePointAt(0)!
    const found = faces.findIndex(({ characters }) => characters.has(code))
    const own = SCRIPTS.find(({ has }) => has.test(letter))?.name ?? null
    const font = isMark && last ? last.font : Math.max(0, found)
    const level = levels[at]!
    const script = own ?? last?.script ?? ''
    const goesOn = last && last.font === font && last.level === level && (last.script === script || last.script === '')
    if (goesOn) {
      last.to = at + letter.length
      last.script = script
    } else runs.push({ font, level, script, from: at, to: at + letter.length })
    at += letter.length
  }
  return runs
}

/** Runs as they stand from left to right (Unicode Standard Annex 9, rule L2). */
function inSight(runs: readonly Run[]): Run[] {
  const sorted = [...runs]
  const highest = Math.max(0, ...runs.map(r => r.level))
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < sorted.length; from++) {
      let to = from
      while (to < sorted.length && sorted[to]!.level >= level) to++
      if (to > from) sorted.splice(from, to - from, ...sorted.slice(from, to).reverse())
      from = to
    }
  }
  return sorted
}

/** Rings of a glyph in em, downwards. */
function ringsOf(font: hb.Font, glyph: number, draw: hb.DrawFuncs, upem: number): OutlinePoint[][] {
  const rings: OutlinePoint[][] = []
  const pen = { rings, em: 1 / upem }
  font.drawGlyph(glyph, draw, pen)
  return rings.map(closedRing).filter(ring => ring.length > 1)
}

/** A ring that comes back to where it began says so twice. */
function closedRing(ring: OutlinePoint[]): OutlinePoint[] {
  const [first, last] = [ring[0], ring.at(-1)]
  if (!first || !last || ring.length < 2 || first.x !== last.x || first.y !== last.y) return ring
  return [{ ...first, inX: last.inX, inY: last.inY }, ...ring.slice(1, -1)]
}

interface Pen {
  rings: OutlinePoint[][]
  em: number
}

/** Follows a glyph's outline. */
function drawing(): hb.DrawFuncs {
  const draw = new hb.DrawFuncs()
  const lastOf = ({ rings }: Pen): OutlinePoint => rings.at(-1)!.at(-1)!
  const point = (x: number, y: number, { em }: Pen) => corner({ x: x * em, y: -y * em })
  draw.setMoveToFunc((x, y, pen) => void (pen as Pen).rings.push([point(x, y, pen as Pen)]))
  draw.setLineToFunc((x, y, pen) => void (pen as Pen).rings.at(-1)!.push(point(x, y, pen as Pen)))
  const curve = (ax: number, ay: number, bx: number, by: number, x: number, y: number, pen: Pen) => {
    const { em } = pen
    const from = lastOf(pen)
    const to = point(x, y, pen)
    from.outX = ax * em - from.x
    from.outY = -ay * em - from.y
    pen.rings.at(-1)!.push({ ...to, inX: bx * em - to.x, inY: -by * em - to.y })
  }
  draw.setQuadraticToFunc((cx, cy, x, y, data) => {
    const pen = data as Pen
    const from = lastOf(pen)
    const [fx, fy] = [from.x / pen.em, -from.y / pen.em]
    // A quadratic curve is a cubic one whose handles go two thirds of the way to its one.
    const third = (a: number, b: number) => a + ((b - a) * 2) / 3
    curve(third(fx, cx), third(fy, cy), third(x, cx), third(y, cy), x, y, pen)
  })
  draw.setCubicToFunc((ax, ay, bx, by, x, y, pen) => curve(ax, ay, bx, by, x, y, pen as Pen))
  draw.setClosePathFunc(() => {})
  return draw
}

/** Joined letters are parted where they are to stand apart. */
const LOOSE = ['liga', 'clig', 'dlig'].map(tag => new hb.Feature(tag, 0))

/**
 * Sets a text in fonts, each of which stands in for what those before it lack; what none has shows as the first one's sign for that. At least one
 * font.
 */
export function setLetters(faces: readonly Face[], { text, axes, loose }: Wording): Letters {
  const fonts = faces.map(({ face }) => {
    const font = new hb.Font(face)
    const known = Object.keys(face.getAxisInfos())
    font.setVariations(known.flatMap(tag => (tag in axes ? [new hb.Variation(tag, axes[tag]!)] : [])))
    return font
  })
  const draw = drawing()
  const outlines: OutlinePoint[][][] = []
  const numbers = new Map<string, number>()
  const outlineOf = (font: number, glyph: number): number => {
    const key = `${font} ${glyph}`
    const known = numbers.get(key)
    if (known !== undefined) return known
    outlines.push(ringsOf(fonts[font]!, glyph, draw, faces[font]!.face.upem))
    numbers.set(key, outlines.length - 1)
    return outlines.length - 1
  }

  function setLine(line: string): SetLine {
    const glyphs: SetGlyph[] = []
    let [x, letters] = [0, 0]
    for (const { font, level, script, from, to } of inSight(runsOf(line, faces))) {
      const em = 1 / faces[font]!.face.upem
      const buffer = new hb.Buffer()
      buffer.addText(line, from, to - from)
      buffer.guessSegmentProperties()
      buffer.setDirection(level % 2 === 1 ? hb.Direction.RTL : hb.Direction.LTR)
      // What is no letter, such as a figure, is set as the script about it.
      if (script === '') buffer.setScript('Zyyy')
      hb.shape(fonts[font]!, buffer, loose ? LOOSE : [])
      const infos = buffer.getGlyphInfos()
      const places = buffer.getGlyphPositions()
      let cluster = -1
      infos.forEach((info, i) => {
        const { xAdvance, xOffset, yOffset } = places[i]!
        if (info.cluster !== cluster) letters++
        cluster = info.cluster
        const outline = outlineOf(font, info.codepoint)
        const place = { x: x + xOffset * em, y: -yOffset * em, after: letters - 1 }
        if (outlines[outline]!.length > 0) glyphs.push({ outline, ...place })
        x += xAdvance * em
      })
    }
    return { width: x, letters, glyphs }
  }

  const { ascender, descender } = fonts[0]!.hExtents()
  const em = 1 / faces[0]!.face.upem
  const lines = text.split(/\r\n|\r|\n/).map(setLine)
  const lacks = [...new Set(text)].filter(letter => !isKnown(letter, faces)).join('')
  return { kind: 'letters', ascent: ascender * em, descent: -descender * em, lines, lacks, outlines }
}
