import { type Frame, type Layer, makeLettering, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { type DemoShot, type Files, layerOf, projectOf, takeOf } from '../shot'
import { duskAt } from '../walks'

/** Letters stand on the cobbles; they part for her, and close slowly behind. */
export function throughTheLetters(files: Files): DemoShot {
  const { frames } = CLIPS['dusk-walk']
  const walk = { ...layerOf('walk', 'dusk-walk', files), name: 'She crosses the yard' }
  const project = projectOf(
    'through-the-letters',
    'Through the letters',
    [takeOf('dusk-walk', files), files.font],
    frames,
    [],
  )
  /** An oval that goes along with her, so many px behind. */
  const parting = (
    id: string,
    name: string,
    behind: number,
    shape: Omit<Frame, 'x' | 'angle'>,
    soft: number,
  ): Piece => ({
    ...makePiece({
      kind: 'oval',
      frame: {
        keys: [0, frames].map(frame => ({
          frame,
          value: { ...shape, x: duskAt(frame / RATE) - behind, angle: 0 },
          ease: 'linear' as const,
        })),
      },
    }),
    id,
    name,
    join: 'subtract',
    pinnedTo: 'shot',
    feather: { inside: 10, outside: soft },
  })
  const lettering = makeLettering(project.shot, 'TOMORROW', [files.font.digest])
  const letters: Layer = {
    ...lettering,
    id: 'letters',
    source: {
      ...lettering.source,
      fill: {
        kind: 'gradient',
        form: 'straight',
        from: { x: 0, y: -60 },
        to: { x: 0, y: 70 },
        stops: [
          { at: 0, colour: '#ffe9bd', opacity: 1 },
          { at: 1, colour: '#b8743a', opacity: 1 },
        ],
      },
      border: { colour: '#2c1a10', opacity: 1, width: 3 },
      shadow: { colour: '#000000', opacity: 0.6, x: -16, y: 7, soft: 14 },
      values: { size: 172, spacing: 0.02, leading: 1 },
    } as Layer['source'],
    place: { x: 684, y: 604, scale: 1, angle: 0 },
    matte: [
      parting('about', 'About her', -6, { y: 540, width: 176, height: 420 }, 16),
      parting('behind', 'Behind her', 96, { y: 600, width: 190, height: 250 }, 42),
      parting('closing', 'Closing', 210, { y: 668, width: 150, height: 120 }, 54),
    ],
  }
  project.shot.layers = [letters, walk]
  const trick =
    'She walks through letters that stand on the ground: they part for her and close behind, by three ovals.'
  return { slug: 'through-the-letters', trick, poster: 96, glance: { from: 50, to: 140 }, project }
}
