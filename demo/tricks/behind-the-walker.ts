import { freshValues, type Look } from '../../src/core/look'
import { type Layer, makeLettering, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { cutBy, type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'
import { duskAt } from '../walks'

/** The yard long after dusk, and nearer. */
const NIGHT: Look = {
  id: 'night',
  kind: 'light',
  on: true,
  values: { ...freshValues('light'), exposure: -1.6, red: -0.5, blue: 0.4 },
}
const NEAR = { x: 600, y: 250, scale: 1.32, angle: 0 }
/** px of the shot by which what she leaves behind is behind her middle. */
const BEHIND = 34

/** Words that are there where she has been. */
export function behindTheWalker(files: Files): DemoShot {
  const { frames } = CLIPS['dusk-walk']
  const walk: Layer = { ...layerOf('walk', 'dusk-walk', files), place: NEAR, looks: [NIGHT] }
  // The yard is empty before she comes: that is the plate.
  const her = silent({ ...walk, id: 'her', name: 'She, cut out', matte: [cutBy(files, 'dusk-walk', 0.2)] })
  const yard = { ...walk, id: 'yard', name: 'The yard by night' }
  const project = projectOf(
    'behind-the-walker',
    'Behind the walker',
    [takeOf('dusk-walk', files), files.font],
    frames,
    [],
  )
  const inShot = (x: number): number => NEAR.x + (x - 640) * NEAR.scale
  const wake: Piece = {
    ...makePiece({
      kind: 'edge',
      line: {
        // She goes at one pace: two places tell all of it.
        keys: [0, frames].map(frame => ({
          frame,
          value: { x: inShot(duskAt(frame / RATE)) - BEHIND, y: 360, angle: 180 },
          ease: 'linear' as const,
        })),
      },
    }),
    id: 'wake',
    name: 'Where she has been',
    pinnedTo: 'shot',
    feather: { inside: 60, outside: 0 },
  }
  const lettering = makeLettering(project.shot, 'HALF PAST\nNEVER', [files.font.digest])
  const letters: Layer = {
    ...lettering,
    id: 'letters',
    source: {
      ...lettering.source,
      fill: { kind: 'plain', colour: '#ffdf9a' },
      shadow: { colour: '#ffb040', opacity: 0.5, x: 0, y: 0, soft: 30 },
      values: { size: 168, spacing: 0.04, leading: 0.95 },
    } as Layer['source'],
    place: { x: 690, y: 280, scale: 1, angle: 0 },
    matte: [wake],
  }
  project.shot.layers = [her, letters, yard]
  const trick =
    'Words shine on the wall where she has been, and she walks in front of them: cut out by the empty yard, no key drawn by hand.'
  return { slug: 'behind-the-walker', trick, poster: 130, glance: { from: 60, to: 150 }, project }
}
