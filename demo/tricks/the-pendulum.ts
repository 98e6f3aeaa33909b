import { type Layer, makePiece } from '../../src/core/shot'
import { PENDULUM, SWING } from '../clocks'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** A room that stands still but for its pendulum. */
export function thePendulum(files: Files): DemoShot {
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
