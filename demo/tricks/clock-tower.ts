import { carryOutlinePoint, roundOutlinePoint } from '../../src/core/outline'
import { type Layer, makeLayer, makePanel, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { nearerLeg } from '../legs'
import { type DemoShot, type Files, layerOf, projectOf, SIZE, takeOf } from '../shot'
import { stepAt, stepsMap } from '../walks'

/** Where the model stands, and how high it is, px of the picture. */
const TOWER = { x: 668, foot: 654, height: 174 } as const

/** Frames at which the nearer leg has a key while it passes the model. */
const PASSING = Array.from({ length: 19 }, (_, i) => 88 + i * 3)

/** A model stands on the floor; she steps over it: one leg goes behind it, the other before. */
export function clockTower(files: Files): DemoShot {
  const { frames } = CLIPS['attic-steps']
  const walk = { ...layerOf('walk', 'attic-steps', files), name: 'She steps through' }
  const takes = [takeOf('attic-steps', files), files.drawing]
  const project = projectOf('clock-tower', 'Clock tower', takes, frames, [])
  const leg: Piece = {
    ...makePiece({
      kind: 'outline',
      points: {
        keys: PASSING.map(frame => ({
          frame,
          value: nearerLeg(stepAt(frame / RATE)).map(p =>
            roundOutlinePoint(carryOutlinePoint(stepsMap(frame / RATE), p)),
          ),
          ease: 'linear' as const,
        })),
      },
    }),
    id: 'leg',
    name: 'The nearer leg',
    join: 'subtract',
    pinnedTo: 'shot',
    on: {
      keys: [
        { frame: PASSING[0]! - 1, value: false, ease: 'hold' },
        { frame: PASSING[0]!, value: true, ease: 'hold' },
        { frame: PASSING.at(-1)! + 1, value: false, ease: 'hold' },
      ],
    },
    feather: { inside: 1, outside: 2 },
  }
  const size = files.drawing.picture!.size
  const tower: Layer = {
    ...makeLayer(files.drawing, SIZE, { num: RATE, den: 1 }),
    id: 'tower',
    name: 'The tower',
    span: { from: 0, to: frames },
    place: { x: TOWER.x, y: TOWER.foot - TOWER.height / 2, scale: TOWER.height / size.height, angle: 0 },
    matte: [leg],
  }
  const made = makePanel(project.shot, 'oval')
  const shadow: Layer = {
    ...made,
    id: 'shadow',
    name: 'Its shadow',
    source: { kind: 'panel', fill: { kind: 'plain', colour: '#000000' }, border: null, shadow: null },
    opacity: 0.42,
    matte: [
      {
        ...made.matte[0]!,
        id: 'under',
        shape: { kind: 'oval', frame: { x: TOWER.x + 22, y: TOWER.foot - 2, width: 96, height: 14, angle: 0 } },
        feather: { inside: 6, outside: 12 },
      },
      { ...leg, id: 'shadow-leg' },
    ],
  }
  project.shot.layers = [tower, shadow, walk]
  const trick = 'She steps over a model tower: it stands before one of her legs and behind the other.'
  return { slug: 'clock-tower', trick, poster: 116, glance: { from: 80, to: 150 }, project }
}
