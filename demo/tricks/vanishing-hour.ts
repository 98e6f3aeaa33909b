import { makePiece, type Piece } from '../../src/core/shot'
import { cutBy, type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** Frames over which he goes. */
const [BEGINS, ENDS] = [78, 132]
/** So near that the counter is his pedestal. */
const NEAR = { x: 980, y: 470, scale: 1.75, angle: 0 }

/** On the stroke of the hour he goes, from below, until only the plate is left. */
export function vanishingHour(files: Files): DemoShot {
  const keys = [
    { frame: BEGINS, value: { x: 430, y: 540, angle: -90 }, ease: 'linear' as const },
    { frame: ENDS, value: { x: 430, y: 170, angle: -90 }, ease: 'linear' as const },
  ]
  const rising: Piece = {
    ...makePiece({ kind: 'edge', line: { keys } }),
    id: 'rising',
    name: 'What is left of him',
    join: 'intersect',
    feather: { inside: 46, outside: 8 },
  }
  const him = {
    ...layerOf('him', 'clockmaker-left', files),
    name: 'He, as long as he is there',
    place: NEAR,
    // His shadow goes with the last of him.
    opacity: {
      keys: [
        { frame: ENDS - 34, value: 1, ease: 'linear' as const },
        { frame: ENDS, value: 0, ease: 'linear' as const },
      ],
    },
    matte: [cutBy(files, 'empty-shop', 0.5), rising],
  }
  const shop = silent({ ...layerOf('shop', 'empty-shop', files), name: 'The shop, empty', place: NEAR })
  const takes = (['clockmaker-left', 'empty-shop'] as const).map(name => takeOf(name, files))
  const project = projectOf('vanishing-hour', 'Vanishing hour', takes, 180, [him, shop])
  project.shot.marks = [{ frame: BEGINS, text: 'the hour' }]
  const trick =
    'On the stroke of the hour he is gone, from below: cut out by the empty shop, and a soft edge that rises.'
  return { slug: 'vanishing-hour', trick, poster: 108, glance: { from: 60, to: 150 }, project }
}
