// The demo shots are the same pictures as ever, to the bit. Where a change means to alter them, `UPDATE_DIGESTS=1` writes what
// they are now, and the change says why.
import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { startEngine } from '../src/cli/engine'
import { findProject } from '../src/cli/projects'
import { planFrame } from '../src/core/plan'
import { edits, type Shot } from '../src/core/shot'
import { exportFrame } from '../src/media/export'

const KEPT = new URL('./digests.json', import.meta.url)

/** Frames in which something happens. */
const FRAMES: Readonly<Record<string, readonly number[]>> = {
  'two-at-the-counter': [0, 76, 150],
  'open-late': [75, 110],
  trolley: [60, 92],
  'into-the-panelling': [79, 128],
  'through-the-letters': [70, 110],
  'clock-tower': [108, 122],
  'one-long-take': [0, 60],
  'stuck-second': [50, 101],
  'seven-clockmakers': [60, 232],
  'the-pendulum': [0, 130],
  'vanishing-hour': [108],
  'behind-the-walker': [130],
  hoop: [66],
}

/** The first demo shot with all that the others do not show: turned, enlarged, mirrored, mixed, blended, copied, grouped, looping. */
function everything(shot: Shot): Shot {
  const all = structuredClone(shot)
  const [right, left, shop] = all.layers as [(typeof all.layers)[0], (typeof all.layers)[0], (typeof all.layers)[0]]
  Object.assign(right, {
    place: { x: 700, y: 400, scale: 0.7, angle: 12 },
    flip: { across: true, down: false },
    opacity: 0.8,
    blend: 'lighten',
    copies: { count: 2, later: 9, x: -70, y: 12, keep: 0.6 },
  })
  Object.assign(left, { timing: { kind: 'play', from: 0.5, speed: 0.4, mixed: 1 / 30 }, fade: { in: 40, out: 0 } })
  const loop = { kind: 'loop', from: 0, to: 0.8, style: 'dissolve', over: 10, speed: 1.3, begun: 0 }
  Object.assign(shop, { timing: loop, place: { x: 640, y: 360, scale: 1.25, angle: 0 } })
  edits.groupLayers(all, [right.id, left.id], 'Both')
  return all
}

async function digests(name: string, frames: readonly number[], change: (shot: Shot) => Shot, scale: number) {
  const found = await findProject(name)
  const engine = await startEngine(found)
  const shot = change(found.project.shot)
  const made: Record<string, string> = {}
  for (const frame of frames) {
    expect(planFrame(shot, frame).layers.length).toBeGreaterThan(0)
    const { ptr, width, height } = await exportFrame(engine.k, engine.frames, { shot, scale }, frame)
    made[frame] = createHash('sha256')
      .update(engine.k.bytes(ptr, width * height * 4))
      .digest('hex')
      .slice(0, 16)
    engine.k.free(ptr)
  }
  await engine.frames.close()
  await found.close()
  return made
}

it('are what they were', async () => {
  const made: Record<string, Record<string, string>> = {}
  for (const [name, frames] of Object.entries(FRAMES)) made[name] = await digests(name, frames, shot => shot, 0.5)
  made['everything at once'] = await digests('two-at-the-counter', [20, 76], everything, 1)
  if (process.env.UPDATE_DIGESTS) writeFileSync(KEPT, `${JSON.stringify(made, null, 2)}\n`)
  expect(made).toEqual(JSON.parse(readFileSync(KEPT, 'utf8')))
}, 60_000)
