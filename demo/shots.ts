// The demo shots, as projects.
import {
  blankLayer,
  edits,
  FORMAT,
  type Frame,
  type Layer,
  makeLettering,
  makePiece,
  type Piece,
  type Project,
  type Shot,
  type Take,
  VERSION,
} from '../src/core/shot'
import type { Span } from '../src/core/time'
import { CLIPS, type ClipName, CROSSING, RATE, strideAt } from './acts'
import { silhouette } from './apprentice'
import { PENDULUM, SWING } from './clocks'
import { FIGURE, UNDER_ARM } from './figure'
import { HEIGHT, WIDTH } from './shop'
import { SAMPLE_RATE } from './sound'
import { trolleyAt, trolleyOutline } from './trolley'

/** The clips by name, and the fonts by theirs. */
export interface Files {
  clips: ReadonlyMap<ClipName, { digest: string; bytes: number }>
  font: Take
}

interface DemoShot {
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

const SIZE = { width: WIDTH, height: HEIGHT }

function takeOf(name: ClipName, files: Files): Take {
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
function layerOf(id: string, name: ClipName, files: Files, from = 0, frames = CLIPS[name].frames): Layer {
  return {
    ...blankLayer({ kind: 'take', digest: files.clips.get(name)!.digest, use: 'both' }, SIZE, SIZE),
    id,
    name: CLIPS[name].title,
    span: { from: 0, to: frames },
    timing: { kind: 'play', from, speed: 1, mixed: null },
  }
}

const silent = (layer: Layer): Layer => ({ ...layer, sound: { ...layer.sound, on: false } })

function projectOf(slug: string, name: string, takes: Take[], length: number, layers: Layer[]): Project {
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
function named(shot: Shot): Shot {
  return {
    ...shot,
    layers: shot.layers.map((layer, i) => ({
      ...layer,
      id: `layer-${i + 1}`,
      matte: layer.matte.map((piece, j) => ({ ...piece, id: `piece-${i + 1}-${j + 1}` })),
    })),
  }
}

const seam = (x: number, angle: number, feather: number): Piece => ({
  ...makePiece({ kind: 'edge', line: { x, y: HEIGHT / 2, angle } }),
  id: 'seam',
  feather: { inside: feather, outside: feather },
})

function twoAtTheCounter(files: Files): DemoShot {
  const right = { ...layerOf('act-b', 'clockmaker-right', files), matte: [seam(652, 4.4, 12)] }
  const left = layerOf('act-a', 'clockmaker-left', files)
  const shop = silent(layerOf('shop', 'empty-shop', files))
  const takes = (['clockmaker-right', 'clockmaker-left', 'empty-shop'] as const).map(name => takeOf(name, files))
  const project = projectOf('two-at-the-counter', 'Two at the counter', takes, 184, [right, left, shop])
  const trick = 'He stands at both ends of his counter: two takes, one soft edge between them.'
  return { slug: 'two-at-the-counter', trick, poster: 76, glance: { from: 40, to: 130 }, project }
}

/** Two acts of a single take, the walk between thrown away, so placed that one answers the other. */
function oneLongTake(files: Files): DemoShot {
  const take: Take = {
    ...takeOf('one-long-take', files),
    acts: [
      { id: 'left', name: 'On the left', from: 0, to: 3.2 },
      { id: 'right', name: 'On the right', from: 6.4, to: 9.6 },
    ],
  }
  const left = { ...layerOf('left', 'one-long-take', files, 0, 96), name: 'On the left' }
  const right = {
    ...layerOf('right', 'one-long-take', files, 6.4, 96),
    name: 'On the right',
    matte: [seam(646, 0, 16)],
  }
  const project = projectOf('one-long-take', 'One long take', [take], 96, [right, left])
  project.shot.marks = [{ frame: 33, text: 'both speak' }]
  const trick = 'One take, cut into two acts that answer each other.'
  return { slug: 'one-long-take', trick, poster: 40, glance: { from: 0, to: 90 }, project }
}

/** The hand falls on the bell, and falls, and falls. */
function stuckSecond(files: Files): DemoShot {
  const takes = [takeOf('counter-bell', files)]
  const project = projectOf('stuck-second', 'Stuck second', takes, 180, [layerOf('bell', 'counter-bell', files)])
  const strike = Math.round((CLIPS['counter-bell'].bell ?? 0) * RATE) - 5
  edits.stutterLayer(project.shot, 'bell', strike, 10, 6, 0)
  project.shot.length = Math.max(...project.shot.layers.map(l => l.span.to))
  const trick = 'The hand falls on the bell, and falls, and falls: ten frames, six times.'
  const glance = { from: strike - 15, to: strike + 65 }
  return {
    slug: 'stuck-second',
    trick,
    poster: strike + 14,
    glance,
    project: { ...project, shot: named(project.shot) },
  }
}

/** One who crosses the shop six times more behind himself. */
function sevenClockmakers(files: Files): DemoShot {
  const { frames } = CLIPS['walk-across']
  const follow = (frame: Omit<Frame, 'x'>) => ({
    keys: [0, frames].map(at => ({
      frame: at,
      value: { ...frame, x: CROSSING.from + CROSSING.each * at },
      ease: 'linear' as const,
    })),
  })
  const head = makePiece({ kind: 'oval', frame: follow({ y: 268, width: 132, height: 156, angle: 0 }) })
  const body = makePiece({ kind: 'box', frame: follow({ y: 410, width: 206, height: 172, angle: 0 }) })
  const walk: Layer = {
    ...layerOf('walk', 'walk-across', files),
    copies: { count: 6, later: 30, x: 0, y: 0, keep: 1 },
    matte: [
      { ...head, id: 'head', name: 'Head', feather: { inside: 2, outside: 10 } },
      { ...body, id: 'body', name: 'Body', feather: { inside: 2, outside: 12 } },
    ],
  }
  const shop = {
    ...layerOf('shop', 'walk-across', files),
    name: 'The shop',
    timing: { kind: 'freeze' as const, at: 0 },
  }
  const length = frames + 30 * 6
  const plate = silent({ ...shop, span: { from: 0, to: length } })
  const project = projectOf('seven-clockmakers', 'Seven clockmakers', [takeOf('walk-across', files)], length, [
    walk,
    plate,
  ])
  const trick = 'He crosses the shop, and six of him follow: one take in a row of copies.'
  return { slug: 'seven-clockmakers', trick, poster: 232, glance: { from: 190, to: 280 }, project }
}

/** A room that stands still but for its pendulum. */
function thePendulum(files: Files): DemoShot {
  const length = 240
  const still = silent({
    ...layerOf('room', 'pendulum', files),
    name: 'The room, frozen',
    span: { from: 0, to: length },
    timing: { kind: 'freeze', at: 2.7 },
  })
  const around = { x: PENDULUM.x, y: PENDULUM.y + 68, width: 190, height: 200, angle: 0 }
  const oval = makePiece({ kind: 'oval', frame: around })
  const swing: Layer = {
    ...layerOf('swing', 'pendulum', files),
    name: 'The pendulum',
    span: { from: 0, to: length },
    timing: { kind: 'loop', from: 0, to: SWING, style: 'cut', over: 0, speed: 1, begun: 0 },
    matte: [{ ...oval, id: 'oval', feather: { inside: 10, outside: 10 } }],
  }
  const project = projectOf('the-pendulum', 'The pendulum', [takeOf('pendulum', files)], length, [swing, still])
  const trick = 'Time has stopped in the shop for all but the pendulum: a frozen frame under a loop.'
  return { slug: 'the-pendulum', trick, poster: 11, glance: { from: 0, to: 90 }, project }
}

/** Frames at which her outline has a key. */
const OUTLINED = Array.from({ length: 16 }, (_, i) => 18 + i * 9)

/** Letters on a wall, and somebody who walks in front of them. */
function openLate(files: Files): DemoShot {
  const keys = OUTLINED.map(frame => ({
    frame,
    value: silhouette(strideAt(frame / RATE)),
    ease: 'linear' as const,
  }))
  const outline: Piece = {
    ...makePiece({ kind: 'outline', points: { keys } }),
    id: 'apprentice',
    name: 'The apprentice',
    feather: { inside: 2, outside: 1 },
  }
  const walk = layerOf('cut-out', 'apprentice-late', files)
  const cutOut = silent({ ...walk, name: 'She, cut out', matte: [outline] })
  const wall = { ...walk, id: 'street', name: 'The street' }
  const { frames } = CLIPS['apprentice-late']
  const project = projectOf('open-late', 'Open late', [takeOf('apprentice-late', files), files.font], frames, [])
  const letters: Layer = {
    ...makeLettering(project.shot, 'OPEN\nLATE', [files.font.digest]),
    id: 'letters',
    place: { x: 700, y: 318, scale: 1, angle: 0 },
  }
  letters.source = {
    ...letters.source,
    fill: {
      kind: 'gradient',
      form: 'straight',
      from: { x: 0, y: -170 },
      to: { x: 0, y: 170 },
      stops: [
        { at: 0, colour: '#f6e7b8', opacity: 1 },
        { at: 1, colour: '#d99a3f', opacity: 1 },
      ],
    },
    border: { colour: '#3a2412', opacity: 1, width: 4 },
    shadow: { colour: '#000000', opacity: 0.55, x: -7, y: 9, soft: 16 },
    values: { size: 196, spacing: 0.03, leading: 0.92 },
  } as Layer['source']
  project.shot.layers = [cutOut, letters, wall]
  const trick = 'Letters stand on the wall, and she walks past in front of them: an outline with few keys.'
  return { slug: 'open-late', trick, poster: 96, glance: { from: 50, to: 140 }, project }
}

/** One word goes as the trolley passes, and another is there behind it. */
function trolley(files: Files): DemoShot {
  const { frames } = CLIPS['trolley-morning']
  const along = <T>(at: (x: number) => T) => ({
    keys: [0, frames].map(frame => ({ frame, value: at(trolleyAt(frame / RATE)), ease: 'linear' as const })),
  })
  const outline: Piece = {
    ...makePiece({ kind: 'outline', points: trolleyOutline() }),
    id: 'outline',
    name: 'The trolley',
    motion: along(x => ({ x, y: 0, scale: 1, angle: 0 })),
    feather: { inside: 2, outside: 1 },
  }
  const roll = layerOf('cut-out', 'trolley-morning', files)
  const cutOut = silent({ ...roll, name: 'The trolley, cut out', matte: [outline] })
  const yard = { ...roll, id: 'yard', name: 'The yard' }
  const takes = [takeOf('trolley-morning', files), files.font]
  const project = projectOf('trolley', 'Trolley', takes, frames, [])
  /** Painted on the wall; one side of the trolley's middle. */
  const word = (id: string, text: string, inverted: boolean): Layer => {
    const layer = makeLettering(project.shot, text, [files.font.digest])
    const edge: Piece = {
      ...makePiece({ kind: 'edge', line: along(x => ({ x, y: 262, angle: 0 })) }),
      id: `${id}-edge`,
      name: 'Where it is',
      inverted,
      pinnedTo: 'shot',
      feather: { inside: 8, outside: 8 },
    }
    const fill = { kind: 'plain', colour: '#14504a' } as const
    const source = {
      ...layer.source,
      fill,
      border: null,
      shadow: null,
      values: { size: 158, spacing: 0.02, leading: 1 },
    } as Layer['source']
    return {
      ...layer,
      id,
      source,
      place: { x: 540, y: 262, scale: 1, angle: 0 },
      blend: 'multiply',
      opacity: 0.86,
      matte: [edge],
    }
  }
  project.shot.layers = [cutOut, word('never', 'NEVER', true), word('half-past', 'HALF PAST', false), yard]
  const trick = 'The trolley rolls by, swallows one word and leaves another: two edges that ride along behind it.'
  return { slug: 'trolley', trick, poster: 92, glance: { from: 40, to: 130 }, project }
}

/** He stops in the middle of a gesture, and goes into the wall: less and less of him, along his own outline. */
function intoThePanelling(files: Files): DemoShot {
  const [stops, goes, gone, length] = [78, 104, 158, 180]
  const whole = layerOf('alive', 'before-the-panels', files)
  const alive = { ...whole, name: 'He, alive', span: { from: 0, to: stops } }
  const still = (id: string, name: string, at: number, from: number, to: number): Layer =>
    silent({ ...whole, id, name, span: { from, to }, timing: { kind: 'freeze', at: at / RATE } })
  const over = <T>(from: T, to: T) => ({
    keys: [
      { frame: goes, value: from, ease: 'smooth' as const },
      { frame: gone, value: to, ease: 'smooth' as const },
    ],
  })
  const piece = (id: string, name: string, points: Piece['shape']): Piece => ({
    ...makePiece(points),
    id,
    name,
    feather: { inside: 2, outside: 0 },
  })
  const frozen: Layer = {
    ...still('frozen', 'He, frozen', stops, stops, gone + 1),
    place: over({ x: 640, y: 360, scale: 1, angle: 0 }, { x: 838, y: 330, scale: 0.86, angle: 0 }),
    matte: [
      { ...piece('figure', 'He', { kind: 'outline', points: FIGURE }), grow: over(0, -118) },
      { ...piece('between', 'Under his arm', { kind: 'outline', points: UNDER_ARM }), join: 'subtract' },
    ],
  }
  // So that his shadow fades from the wall before he moves.
  const shadow = { ...still('shadow', 'His shadow', stops, stops, goes), fade: { in: 0, out: goes - stops - 2 } }
  const room = still('room', 'The panelling', 176, 0, length)
  const takes = [takeOf('before-the-panels', files)]
  const project = projectOf('into-the-panelling', 'Into the panelling', takes, length, [frozen, shadow, alive, room])
  const trick = 'He freezes, and shrinks along his own outline to nothing as he slides into the wall.'
  return { slug: 'into-the-panelling', trick, poster: 117, glance: { from: 70, to: 160 }, project }
}

/** Every demo shot. */
export const demoShots = (files: Files): DemoShot[] =>
  [twoAtTheCounter, openLate, trolley, intoThePanelling, oneLongTake, stuckSecond, sevenClockmakers, thePendulum].map(
    make => make(files),
  )
