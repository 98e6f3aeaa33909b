import { type Layer, makePiece, type Piece } from '../../src/core/shot'
import { RATE } from '../acts'
import { FIGURE, UNDER_ARM } from '../figure'
import { type DemoShot, type Files, layerOf, projectOf, silent, takeOf } from '../shot'

/** He stops in the middle of a gesture, and goes into the wall: less and less of him, along his own outline. */
export function intoThePanelling(files: Files): DemoShot {
  const [stops, goes, gone, length] = [78, 104, 158, 180]
  const whole = layerOf('alive', 'before-the-panels', files)
  const alive = { ...whole, name: 'He, alive', span: { from: 0, to: stops } }
  const still = (id: string, name: string, at: number, from: number, to: number): Layer =>
    silent({ ...whole, id, name, span: { from, to }, timing: { kind: 'freeze', at: at / RATE } })
  const over = <T>(from: T, to: T) => ({
    keys: [
      { frame: goes, value: from, ease: 'smooth' as const },
      { frame: gone, value: to, ease: 'smooth' as const },
    ],
  })
  const piece = (id: string, name: string, points: Piece['shape']): Piece => ({
    ...makePiece(points),
    id,
    name,
    feather: { inside: 2, outside: 0 },
  })
  const frozen: Layer = {
    ...still('frozen', 'He, frozen', stops, stops, gone + 1),
    place: over({ x: 640, y: 360, scale: 1, angle: 0 }, { x: 838, y: 330, scale: 0.86, angle: 0 }),
    matte: [
      { ...piece('figure', 'He', { kind: 'outline', points: FIGURE }), grow: over(0, -118) },
      { ...piece('between', 'Under his arm', { kind: 'outline', points: UNDER_ARM }), join: 'subtract' },
    ],
  }
  // So that his shadow fades from the wall before he moves.
  const shadow = { ...still('shadow', 'His shadow', stops, stops, goes), fade: { in: 0, out: goes - stops - 2 } }
  const room = still('room', 'The panelling', 176, 0, length)
  const takes = [takeOf('before-the-panels', files)]
  const project = projectOf('into-the-panelling', 'Into the panelling', takes, length, [frozen, shadow, alive, room])
  const trick = 'He freezes, and shrinks along his own outline to nothing as he slides into the wall.'
  return { slug: 'into-the-panelling', trick, poster: 117, glance: { from: 70, to: 160 }, project }
}
