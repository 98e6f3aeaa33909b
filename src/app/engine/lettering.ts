// Letters of the open shot and the fonts that they are set in.
import { UNMOVED } from '../../core/affine'
import { lettersRings, type Wording } from '../../core/graphic'
import { flatten, type OutlinePoint, roundOutlinePoint } from '../../core/outline'
import { type Layer, LIMITS, makeLettering, makePiece, newId, type Piece, type Take } from '../../core/shot'
import { layoutAt, wordingOf } from '../../core/source'
import { SHIPPED, type ShippedFont, STAND_INS } from '../fonts/shipped'
import { editIn, layersChosen, projectOf, refusalTold, sectionOpened, shotOf, store, typingSet } from '../store'
import { bringTakes } from './bring-takes'
import { takeEarlyLetters } from './early-letters'
import type { StageEngine } from './stage-engine'

const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

const say = (sentence: string) => void store.dispatch(refusalTold(sentence))

/** Digests of font files that were fetched before. */
const fetched = new Map<string, string>()

/** Brings font files into the open project; the digests of those that are fonts, in the order of the files. */
export async function bringFonts(files: readonly File[], stage: StageEngine): Promise<string[]> {
  const { signal } = new AbortController()
  const brought = await bringTakes(
    files,
    { stage },
    signal,
    () => {},
    async () => null,
  )
  for (const problem of brought.problems) say(problem)
  const none = brought.takes.filter(t => !t.font)
  if (none.length > 0) say(`“${none[0]!.name}” is no font; it came in as a take.`)
  return brought.takes.filter(t => t.font).map(t => t.digest)
}

const isHere = (digest: string | undefined): digest is string =>
  projectOf(store.getState())?.takes.some((t: Take) => t.digest === digest) ?? false

/** A font file of the program, brought into the open project once. */
async function shippedFile(url: string, name: string, stage: StageEngine): Promise<string[]> {
  const known = fetched.get(url)
  if (isHere(known)) return [known]
  const answer = await fetch(url)
  if (!answer.ok) throw new Error(`the font “${name}” is not to be had`)
  const digests = await bringFonts([new File([await answer.blob()], `${name}.woff2`)], stage)
  if (digests[0]) fetched.set(url, digests[0])
  return digests
}

/** The files of a font of the program. */
export async function shippedFonts({ name, urls }: ShippedFont, stage: StageEngine): Promise<string[]> {
  return (await Promise.all(urls.map(url => shippedFile(url, name, stage)))).flat()
}

/** Brings in what stands in for the letters that a text's fonts lack. Digests of those, none where nothing lacks. */
async function standIns(wording: Wording, stage: StageEngine): Promise<string[]> {
  const letters = await stage.letters(wording)
  const lacks = letters ? [...letters.lacks] : []
  const wanted = STAND_INS.filter(({ scripts }) => lacks.some(letter => scripts.test(letter)))
  const digests: string[] = []
  for (const { url } of wanted) digests.push(...(await shippedFile(url, 'Noto', stage)))
  return digests.filter(digest => !wording.fonts.includes(digest))
}

const letteringOf = (id: string) => {
  const source = shotOf(store.getState())?.layers.find(l => l.id === id)?.source
  return source?.kind === 'lettering' ? source : null
}

/** Sets a lettering in fonts, and in what stands in for whatever these lack. Part of a gesture. */
export async function setFonts(layer: string, fonts: readonly string[], stage: StageEngine, gesture: string) {
  const source = letteringOf(layer)
  if (!source || fonts.length === 0) return
  const more = await standIns({ ...wordingOf(source), fonts }, stage)
  store.dispatch(editIn(gesture, 'changeGraphic', layer, { fonts: [...fonts, ...more], axes: source.axes }))
}

/** Lets a lettering say something, and brings in what its fonts lack for that. */
export async function writeLetters(layer: string, text: string, stage: StageEngine, gesture: string): Promise<void> {
  store.dispatch(editIn(gesture, 'writeText', layer, text))
  const source = letteringOf(layer)
  if (!source || source.text !== text) return
  const more = await standIns(wordingOf(source), stage).catch(error => {
    say(`What the font lacks cannot be had (${reasonOf(error)}).`)
    return []
  })
  const now = letteringOf(layer)
  if (more.length === 0 || !now) return
  const fonts = [...new Set([...now.fonts, ...more])]
  store.dispatch(editIn(gesture, 'changeGraphic', layer, { fonts }))
}

/** Adds a layer nearest the lens, or right behind another one, and opens what can be set about it. */
export function addGraphic(layer: Layer, before: string | null = null): void {
  const gesture = newId()
  const at = shotOf(store.getState())?.layers.findIndex(l => l.id === before) ?? -1
  store.dispatch(editIn(gesture, 'addLayers', [layer]))
  if (at >= 0) store.dispatch(editIn(gesture, 'reorderLayer', layer.id, at + 1))
  store.dispatch(layersChosen([layer.id]))
  store.dispatch(sectionOpened('source'))
}

/** How much a ring encloses, px²: positive one way round, negative the other. */
const enclosed = (ring: readonly OutlinePoint[]): number => {
  const ends = flatten(ring, 0.5)
  let sum = 0
  for (let i = 0; i < ends.length; i += 2) {
    const j = i + 2 < ends.length ? i + 2 : 0
    sum += ends[i]! * ends[j + 1]! - ends[j]! * ends[i + 1]!
  }
  return sum / 2
}

/** The rings of a glyph as pieces: what goes round the other way than the largest is taken away. */
function piecesOf(rings: readonly OutlinePoint[][], name: string): Piece[] {
  const areas = rings.map(enclosed)
  const largest = areas.reduce((most, area) => (Math.abs(area) > Math.abs(most) ? area : most), 0)
  return rings.map((ring, i) => {
    const isHole = areas[i]! * largest < 0
    const piece = makePiece({ kind: 'outline', points: ring.map(roundOutlinePoint) })
    return { ...piece, name: isHole ? `${name}, hole` : name, join: isHole ? 'subtract' : 'add' }
  })
}

/** Makes a panel of letters, each of which is a piece that can be moved by itself; the letters are hidden. */
export async function lettersToPieces(layer: Layer, stage: StageEngine): Promise<void> {
  const { source } = layer
  if (source.kind !== 'lettering') return
  const letters = await stage.letters(wordingOf(source))
  if (!letters) return say('A font of these letters is missing.')
  const glyphs = lettersRings(letters, layoutAt(source, store.getState().view.frame), UNMOVED)
  const matte = glyphs.flatMap((rings, i) => piecesOf(rings, `Letter ${i + 1}`))
  if (matte.length > LIMITS.pieces)
    return say(`These letters would be ${matte.length} pieces; a matte holds up to ${LIMITS.pieces}.`)
  const { border, shadow } = source
  const fill = source.fill ?? { kind: 'plain', colour: '#f4efe6' }
  const panel: Layer = {
    ...structuredClone(layer),
    id: newId(),
    source: structuredClone({ kind: 'panel', fill, border, shadow }),
    matte,
  }
  const gesture = newId()
  store.dispatch(editIn(gesture, 'addLayers', [panel]))
  store.dispatch(editIn(gesture, 'showLayers', [layer.id], false))
  store.dispatch(layersChosen([panel.id]))
}

/** A new lettering, ready to be typed over: nearest the lens, or right behind a layer. */
export async function addLettering(stage: StageEngine, before: string | null = null): Promise<void> {
  const shot = shotOf(store.getState())
  if (!shot) return
  // Whoever types on while the font is fetched is not to be taken for somebody who calls commands.
  store.dispatch(typingSet(true))
  try {
    const fonts = await shippedFonts(SHIPPED[0]!, stage)
    const now = shotOf(store.getState())
    if (fonts.length === 0 || now?.id !== shot.id) return void store.dispatch(typingSet(false))
    const isLeft = !store.getState().view.typing
    const layer = makeLettering(now, 'Lettering', fonts)
    addGraphic(layer, before)
    if (!isLeft) return void store.dispatch(typingSet(true))
    // Whoever was done before the font was there has typed all the same.
    const typed = takeEarlyLetters()
    if (typed !== '') await writeLetters(layer.id, typed, stage, newId())
  } catch (error) {
    store.dispatch(typingSet(false))
    say(`Letters cannot be set: ${reasonOf(error)}.`)
  }
}
