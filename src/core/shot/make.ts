// New shots, layers and pieces with everything a person would expect them to start with.
import { framesIn, type Rate } from '../time'
import {
  FORMAT,
  type Layer,
  type Piece,
  type Project,
  type Shape,
  type Shot,
  type Size,
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

/** A file's name without its extension, as a layer's or shot's name. */
export const bareName = (file: string): string => file.replace(/\.[^.]{1,5}$/, '') || file

/** The scale and corner that fit a picture inside a frame, centred. */
export function fitPlace(picture: Size, frame: Size): { x: number; y: number; scale: number } {
  const scale = Math.min(frame.width / picture.width, frame.height / picture.height)
  return { x: (frame.width - picture.width * scale) / 2, y: (frame.height - picture.height * scale) / 2, scale }
}

export function makeLayer(take: Take, size: Size, rate: Rate, at = 0): Layer {
  return {
    id: newId(),
    name: bareName(take.name),
    span: { from: at, to: at + framesIn(take.seconds, rate) },
    source: { kind: 'take', digest: take.digest },
    timing: { kind: 'play', from: 0 },
    place: fitPlace(take.size, size),
    opacity: 1,
    matte: [],
    matteOn: true,
    sound: { on: take.sound !== null, gain: 1 },
    on: true,
  }
}

/** Size, rate and length come from the first take; the first take is the farthest layer. */
export function makeProject(takes: readonly Take[], name: string): Project {
  const first = takes[0]
  if (!first) throw new Error('A shot needs at least one take.')
  const { size, rate } = first
  const shot: Shot = {
    id: newId(),
    name,
    size: { ...size },
    rate: { ...rate },
    length: framesIn(first.seconds, rate),
    backdrop: '#000000',
    layers: takes.map(take => makeLayer(take, size, rate)).reverse(),
  }
  return {
    format: FORMAT,
    version: VERSION,
    id: newId(),
    takes: [...new Map(takes.map(t => [t.digest, t])).values()],
    shot,
  }
}

/** A shape of the given kind in the middle of a picture. */
export function makeShape(kind: Shape['kind'], size: Size): Shape {
  const x = size.width / 2
  const y = size.height / 2
  if (kind === 'edge') return { kind, line: { x, y, angle: 0 } }
  const side = Math.round(Math.min(size.width, size.height) / 2)
  return { kind, frame: { x, y, width: side, height: side, angle: 0 } }
}

export const SHAPE_NAMES: Readonly<Record<Shape['kind'], string>> = { edge: 'Edge', box: 'Box', oval: 'Oval' }

export function makePiece(shape: Shape): Piece {
  return {
    id: newId(),
    name: SHAPE_NAMES[shape.kind],
    shape,
    join: 'add',
    inverted: false,
    pinnedTo: 'layer',
    on: true,
    grow: 0,
    feather: { inside: 0, outside: 0 },
    strength: 1,
  }
}
