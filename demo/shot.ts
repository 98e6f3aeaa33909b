// What demo shots are put together from.
import type { Affine } from '../src/core/affine'
import {
  blankLayer,
  FORMAT,
  type Layer,
  makePiece,
  type Piece,
  type Project,
  type Shot,
  type Take,
  VERSION,
} from '../src/core/shot'
import type { Span } from '../src/core/time'
import { CLIPS, type ClipName, RATE } from './acts'
import { HEIGHT, WIDTH } from './shop'
import { SAMPLE_RATE } from './sound'

/** The clips by name, a font and a drawing. */
export interface Files {
  clips: ReadonlyMap<ClipName, { digest: string; bytes: number }>
  font: Take
  drawing: Take
  /** How the hoop's rim was found to move from the first frame of its clip to each. */
  hoop: readonly Affine[]
}

export interface DemoShot {
  /** The name it has in a terminal. */
  slug: string
  project: Project
  /** What the trick is, in a line. */
  trick: string
  /** The frame it is known by. */
  poster: number
  /** The frames that show it moving. */
  glance: Span
}

export const SIZE = { width: WIDTH, height: HEIGHT }

export function takeOf(name: ClipName, files: Files): Take {
  const seconds = CLIPS[name].frames / RATE
  return {
    ...files.clips.get(name)!,
    name: `${name}.mp4`,
    type: 'video/mp4',
    picture: { kind: 'film', size: SIZE, rate: { num: RATE, den: 1 }, seconds, varies: false },
    sound: { channels: 2, sampleRate: SAMPLE_RATE, seconds },
    marked: null,
    acts: [],
  }
}

/** A whole take as a layer; part of it from a second on. */
export function layerOf(id: string, name: ClipName, files: Files, from = 0, frames = CLIPS[name].frames): Layer {
  return {
    ...blankLayer({ kind: 'take', digest: files.clips.get(name)!.digest, use: 'both' }, SIZE, SIZE),
    id,
    name: CLIPS[name].title,
    span: { from: 0, to: frames },
    timing: { kind: 'play', from, speed: 1, mixed: null },
  }
}

/** Somebody cut out by a clip in which nobody is for its first seconds. */
export const cutBy = (files: Files, plate: ClipName, seconds: number): Piece => ({
  ...makePiece({
    kind: 'cutout',
    cut: { plate: files.clips.get(plate)!.digest, from: 0, to: seconds, sensitive: 50, shadow: 100 },
  }),
  id: 'cut-out',
})

export const silent = (layer: Layer): Layer => ({ ...layer, sound: { ...layer.sound, on: false } })

export function projectOf(slug: string, name: string, takes: Take[], length: number, layers: Layer[]): Project {
  const shot: Shot = {
    id: `${slug}-shot`,
    name,
    size: SIZE,
    rate: { num: RATE, den: 1 },
    length,
    backdrop: '#000000',
    layers,
    marks: [],
  }
  return { format: FORMAT, version: VERSION, id: slug, takes, shot }
}

/** Names that come out the same each time: edits make up theirs. */
export function named(shot: Shot): Shot {
  return {
    ...shot,
    layers: shot.layers.map((layer, i) => ({
      ...layer,
      id: `layer-${i + 1}`,
      matte: layer.matte.map((piece, j) => ({ ...piece, id: `piece-${i + 1}-${j + 1}` })),
    })),
  }
}

export const seam = (x: number, angle: number, feather: number): Piece => ({
  ...makePiece({ kind: 'edge', line: { x, y: HEIGHT / 2, angle } }),
  id: 'seam',
  feather: { inside: feather, outside: feather },
})
