import { type Layer, makeLettering, makePiece, type Piece } from '../../src/core/shot'
import { CLIPS, RATE } from '../acts'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'
import { trolleyAt, trolleyOutline } from '../trolley'

/** One word goes as the trolley passes, and another is there behind it. */
export function trolley(files: Files): DemoShot {
  const { frames } = CLIPS['trolley-morning']
  const along = <T>(at: (x: number) => T) => ({
    keys: [0, frames].map(frame => ({ frame, value: at(trolleyAt(frame / RATE)), ease: 'linear' as const })),
  })
  const outline: Piece = {
    ...makePiece({ kind: 'outline', points: trolleyOutline() }),
    id: 'outline',
    name: 'The trolley',
    motion: along(x => ({ x, y: 0, scale: 1, angle: 0 })),
    feather: { inside: 2, outside: 1 },
  }
  const roll = layerOf('cut-out', 'trolley-morning', files)
  const cutOut = silent({ ...roll, name: 'The trolley, cut out', matte: [outline] })
  const yard = { ...roll, id: 'yard', name: 'The yard' }
  const takes = [takeOf('trolley-morning', files), files.font]
  const project = projectOf('trolley', 'Trolley', takes, frames, [])
  /** Painted on the wall; one side of the trolley's middle. */
  const word = (id: string, text: string, inverted: boolean): Layer => {
    const layer = makeLettering(project.shot, text, [files.font.digest])
    const edge: Piece = {
      ...makePiece({ kind: 'edge', line: along(x => ({ x, y: 262, angle: 0 })) }),
      id: `${id}-edge`,
      name: 'Where it is',
      inverted,
      pinnedTo: 'shot',
      feather: { inside: 8, outside: 8 },
    }
    const fill = { kind: 'plain', colour: '#14504a' } as const
    const source = {
      ...layer.source,
      fill,
      border: null,
      shadow: null,
      values: { size: 158, spacing: 0.02, leading: 1 },
    } as Layer['source']
    return {
      ...layer,
      id,
      source,
      place: { x: 540, y: 262, scale: 1, angle: 0 },
      blend: 'multiply',
      opacity: 0.86,
      matte: [edge],
    }
  }
  project.shot.layers = [cutOut, word('never', 'NEVER', true), word('half-past', 'HALF PAST', false), yard]
  const trick = 'The trolley rolls by, swallows one word and leaves another: two edges that ride along behind it.'
  return { slug: 'trolley', trick, poster: 92, glance: { from: 40, to: 130 }, project }
}
