// 1080p takes for measuring, made from the demo clips, and the shot that uses them.
import { mkdtemp, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { FilePathTarget } from 'mediabunny'
import { startEngine } from '../src/cli/engine'
import { type FoundProject, findProject } from '../src/cli/projects'
import { asTake, makePiece, type Project } from '../src/core/shot'
import { exportShot } from '../src/media/export'

/** Frames of each take. */
export const LENGTH = 60

/** Each take of the demo shot alone, enlarged to 1920 x 1080. */
async function enlarge(found: FoundProject, folder: string): Promise<Map<string, string>> {
  const paths = new Map<string, string>()
  for (const take of found.project.takes) {
    const { shot } = found.project
    const layers = shot.layers.filter(l => asTake(l.source)?.digest === take.digest).map(l => ({ ...l, matte: [] }))
    const engine = await startEngine(found)
    const path = join(folder, take.name)
    const options = {
      shot: { ...shot, layers },
      format: 'mp4',
      span: { from: 60, to: 60 + LENGTH },
      scale: 1.5,
    } as const
    await exportShot(options, new FilePathTarget(path), engine)
    await engine.frames.close()
    paths.set(take.digest, path)
  }
  return paths
}

/** Three layers of 1080p: a split with feather, an oval with feather, and the plate. */
export async function fullHdShot(): Promise<FoundProject> {
  const demo = await findProject('two-at-the-counter')
  const folder = await mkdtemp(join(tmpdir(), 'jolly-ghost-bench-'))
  const paths = await enlarge(demo, folder)
  const size = { width: 1920, height: 1080 }
  const [right, left, shop] = demo.project.shot.layers
  const edge = makePiece({ kind: 'edge', line: { x: 978, y: 540, angle: 4.4 } })
  const oval = makePiece({ kind: 'oval', frame: { x: 620, y: 560, width: 700, height: 620, angle: 8 } })
  const feather = { inside: 18, outside: 18 }
  const span = { from: 0, to: LENGTH }
  const middle = { x: size.width / 2, y: size.height / 2 }
  const whole = { span, anchor: middle, place: { ...middle, scale: 1, angle: 0 } }
  const project: Project = {
    ...demo.project,
    takes: await Promise.all(
      demo.project.takes.map(async t => ({
        ...t,
        picture: { kind: 'film' as const, size, rate: { num: 30, den: 1 }, seconds: LENGTH / 30, varies: false },
        bytes: (await stat(paths.get(t.digest)!)).size,
      })),
    ),
    shot: {
      ...demo.project.shot,
      size,
      length: LENGTH,
      layers: [
        { ...right!, ...whole, matte: [{ ...edge, feather }] },
        { ...left!, ...whole, matte: [{ ...oval, feather }] },
        { ...shop!, ...whole },
      ],
    },
  }
  return { project, pathOf: take => paths.get(take.digest)!, close: async () => {} }
}
