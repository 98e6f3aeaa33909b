import { edits } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { type DemoShot, type Files, layerOf, named, projectOf, takeOf } from '../shot'

/** The hand falls on the bell, and falls, and falls. */
export function stuckSecond(files: Files): DemoShot {
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
