import { type Layer, makeLettering, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { silhouette } from '../apprentice'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'
import { strideAt } from '../walks'

/** Frames at which her outline has a key. */
const OUTLINED = Array.from({ length: 16 }, (_, i) => 18 + i * 9)

/** Letters on a wall, and somebody who walks in front of them. */
export function openLate(files: Files): DemoShot {
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
