import type { Take } from '../../src/core/shot'
import { type DemoShot, type Files, layerOf, projectOf, seam, takeOf } from '../shot'

/** Two acts of a single take, the walk between thrown away, so placed that one answers the other. */
export function oneLongTake(files: Files): DemoShot {
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
