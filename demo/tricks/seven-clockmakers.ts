import { type Layer, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS } from '../acts'
import { cutBy, type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** One who crosses the shop six times more behind himself. */
export function sevenClockmakers(files: Files): DemoShot {
  const { frames } = CLIPS['walk-across']
  // The hands of the clocks go on as well: what is above his head is no part of him.
  const below: Piece = {
    ...makePiece({ kind: 'edge', line: { x: 640, y: 192, angle: 90 } }),
    id: 'below',
    name: 'Below the clocks',
    join: 'intersect',
  }
  const walk: Layer = {
    ...layerOf('walk', 'walk-across', files),
    copies: { count: 6, later: 30, x: 0, y: 0, keep: 1 },
    // The shop is empty before he comes in: that is the plate.
    matte: [cutBy(files, 'walk-across', 0), below],
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
  const trick = 'He crosses the shop, and six of him follow: one take in a row of copies, cut out by the empty shop.'
  return { slug: 'seven-clockmakers', trick, poster: 232, glance: { from: 190, to: 280 }, project }
}
