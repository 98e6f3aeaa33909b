import { type Frame, type Layer, makePiece } from '../../src/core/shot'
import { CLIPS, CROSSING } from '../acts'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** One who crosses the shop six times more behind himself. */
export function sevenClockmakers(files: Files): DemoShot {
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
