import { edits, makePiece } from '../../src/core/shot'
import { CLIPS } from '../acts'
import { HOOP_RADIUS, hoopAt, RIM } from '../hoop'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** The empty shop where a hoop is: an oval that rides on what was followed of its rim. */
export function hoop(files: Files): DemoShot {
  const { frames } = CLIPS.hoop
  const holder = layerOf('holder', 'hoop', files)
  const { x, y } = hoopAt(0)
  const side = 2 * HOOP_RADIUS - RIM + 4
  const inside = {
    ...makePiece({ kind: 'oval', frame: { x, y, width: side, height: side, angle: 0 } }),
    id: 'inside',
    name: 'Inside the hoop',
    pivot: { x, y },
    pinnedTo: 'shot' as const,
    feather: { inside: 1, outside: 1 },
  }
  const shop = silent({
    ...layerOf('shop', 'empty-shop', files, 0, frames),
    name: 'What is seen through it',
    matte: [inside],
  })
  const project = projectOf('hoop', 'Hoop', [takeOf('hoop', files), takeOf('empty-shop', files)], frames, [
    shop,
    holder,
  ])
  edits.ridePiece(project.shot, 'shop', 'inside', { first: 0, begin: 0, maps: files.hoop })
  const trick =
    'He holds up a brass hoop, and where he should be in it there is only the empty shop: an oval rides on its rim.'
  return { slug: 'hoop', trick, poster: 92, glance: { from: 40, to: 130 }, project }
}
