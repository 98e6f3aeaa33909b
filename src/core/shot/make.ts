// New shots, layers and pieces with everything a person would expect them to start with.

import { type Beside, SHAPES, shapeWith } from '../shape'
import { takeSeconds } from '../source'
import { fps, framesIn, type Rate, rateInUse } from '../time'
import { LIMITS, within } from './limits'
import { bareName } from './names'
import { framesOf, possibleSpeed, STILL_SECONDS } from './timing'
import {
  type Act,
  type Film,
  FORMAT,
  type Layer,
  type Motion,
  type Piece,
  type Place,
  type Project,
  type Shape,
  type Shot,
  type Size,
  type Source,
  type Stretch,
  type Take,
  VERSION,
} from './types'

const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789'

/** A short identifier, unique enough inside one machine's work. */
export function newId(): string {
  let id = ''
  for (let i = 0; i < 12; i++) id += ALPHABET[Math.floor(Math.random() * ALPHABET.length)]
  return id
}

/** The place that fits a picture inside a frame, about its middle. */
export function fitPlace(picture: Size, frame: Size): Place {
  const scale = Math.min(frame.width / picture.width, frame.height / picture.height)
  return { x: frame.width / 2, y: frame.height / 2, scale, angle: 0 }
}

/** A layer of a source of some size, fitted into a frame, with nothing done to it. */
export function blankLayer(source: Source, picture: Size, frame: Size): Layer {
  return {
    id: newId(),
    name: '',
    span: { from: 0, to: 1 },
    source,
    timing: { kind: 'play', from: 0, speed: 1, mixed: null },
    place: fitPlace(picture, frame),
    anchor: { x: picture.width / 2, y: picture.height / 2 },
    flip: { across: false, down: false },
    opacity: 1,
    fade: { in: 0, out: 0 },
    blend: 'normal',
    copies: null,
    matte: [],
    matteOn: true,
    looks: [],
    sound: { on: true, gain: 1, fade: { in: 0, out: 0 } },
    on: true,
    locked: false,
    tag: 'none',
  }
}

export interface Placing {
  /** The shot's frame at which the layer begins. */
  at?: number
  /** The part of the take that is meant; all of it if left out. */
  stretch?: Stretch | null
  /** One frame of the take for each of the shot, however long those last. */
  frameForFrame?: boolean
}

/** A layer of a take in a shot of some size and rate. */
export function makeLayer(take: Take, size: Size, rate: Rate, placing: Placing = {}): Layer {
  const { at = 0, stretch = null, frameForFrame = false } = placing
  const film = take.picture?.kind === 'film' ? take.picture : null
  const speed = possibleSpeed(frameForFrame && film ? fps(rate) / fps(film.rate) : 1) ?? 1
  const all = takeSeconds(take)
  const from = stretch ? Math.min(stretch.from, all) : 0
  const seconds = stretch ? Math.min(stretch.to, all) - from : all
  const frames = framesIn(Number.isFinite(seconds) ? seconds / speed : STILL_SECONDS, rate)
  const { digest, picture } = take
  const source: Source =
    picture?.kind === 'drawing'
      ? { kind: 'drawing', digest, size: { ...picture.size } }
      : { kind: 'take', digest, use: picture === null ? 'sound' : 'both' }
  return {
    ...blankLayer(source, picture?.size ?? size, size),
    name: bareName(take.name),
    span: { from: at, to: at + frames },
    timing: { kind: 'play', from, speed, mixed: null },
    sound: { on: take.sound !== null, gain: 1, fade: { in: 0, out: 0 } },
  }
}

/** An empty picture of the set over all of a shot: of a film the stretch in which nobody is there, there and back, without its sound; one frame of it stands still. */
export function plateLayer(take: Take, { from, to }: Stretch, { size, rate, length }: Shot): Layer {
  const layer = makeLayer(take, size, rate)
  const film = take.picture?.kind === 'film' ? take.picture : null
  const isLong = film !== null && (to - from) * fps(film.rate) > 1.5
  const still: Layer['timing'] = film ? { kind: 'freeze', at: from } : layer.timing
  return {
    ...layer,
    name: 'Plate',
    span: { from: 0, to: length },
    timing: isLong ? { kind: 'loop', from, to, style: 'swing', over: 0, speed: 1, begun: 0 } : still,
    sound: { ...layer.sound, on: false },
  }
}

/** A layer for each act of a take, all beginning at one frame, the first act nearest the lens. */
export function actLayers(take: Take, acts: readonly Act[], size: Size, rate: Rate, at: number): Layer[] {
  return acts.map(act => ({ ...makeLayer(take, size, rate, { at, stretch: act }), name: act.name }))
}

/** What a shot is like whose takes say nothing of it. */
const USUAL = { size: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } } as const

/** The rate of a shot that is made of a film: its own, or where that varies the nearest one in use. */
export const shotRate = ({ rate, varies }: Film): Rate => (varies ? rateInUse(fps(rate)) : rate)

/** Size, rate and length come from the first take with a picture; the first take is the farthest layer. Fonts come along, but show nothing. */
export function makeProject(takes: readonly Take[], name: string): Project {
  const shownTakes = takes.filter(t => !t.font)
  const first = shownTakes[0]
  if (!first) throw new Error('A shot needs at least one take.')
  const film = takes.find(t => t.picture?.kind === 'film')
  const shown = film ?? takes.find(t => t.picture)
  const size = shown?.picture?.size ?? USUAL.size
  const filmed = film?.picture?.kind === 'film' ? shotRate(film.picture) : USUAL.rate
  const rate = within(fps(filmed), LIMITS.rate) === fps(filmed) ? filmed : USUAL.rate
  const shot: Shot = {
    id: newId(),
    name,
    size: { ...size },
    rate: { ...rate },
    length: framesOf(film ?? first, rate),
    backdrop: '#000000',
    layers: shownTakes.map(take => makeLayer(take, size, rate)).reverse(),
    marks: [],
  }
  return {
    format: FORMAT,
    version: VERSION,
    id: newId(),
    takes: [...new Map(takes.map(t => [t.digest, t])).values()],
    shot,
  }
}

const ALONE: Beside = { layer: '', plate: null }

/** A shape of the given kind in the middle of a picture. */
export const makeShape = (kind: Shape['kind'], size: Size, beside = ALONE): Shape =>
  shapeWith(kind, SHAPES[kind].make(size, beside))

const UNMOVED: Motion = { x: 0, y: 0, scale: 1, angle: 0 }

export function makePiece(shape: Shape): Piece {
  const { name, soft = 0, shows } = SHAPES[shape.kind]
  return {
    id: newId(),
    name,
    shape,
    join: 'add',
    inverted: false,
    // Another layer is meant where it is seen.
    pinnedTo: shows ? 'shot' : 'layer',
    on: true,
    motion: UNMOVED,
    pivot: { x: 0, y: 0 },
    blur: { shutter: 0, phase: 0 },
    grow: 0,
    feather: { inside: soft, outside: soft },
    strength: 1,
  }
}
