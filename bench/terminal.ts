// What a terminal waits for: an answer, numbered pictures, a film against a plain composite by a well-known transcoder.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { encode } from 'fast-png'
import { bitrate } from '../src/media/export'
import { atMost, inTurns, median, type Row, timed } from './measure'

const DEMO = 'two-at-the-counter'
const WIDTH = 1280
const HEIGHT = 720
/** The demo shot's edge: where it crosses the middle row, how far it leans, px of feather at either side. */
const EDGE = { x: 652, angle: 4.4, feather: 12 }

const ghost = (...args: string[]) => execFileSync(process.execPath, ['bin/ghost.mjs', ...args], { stdio: 'ignore' })

/** Milliseconds a frame takes, start-up left out: what many frames take beyond a few. */
async function perFrame(run: (frames: number) => void): Promise<number> {
  const [few, many] = [10, 130]
  const short = await timed(() => run(few))
  const long = await timed(() => run(many))
  return (long - short) / (many - few)
}

/** The edge as a grey picture: white where the nearer take is kept. */
function writeMatte(path: string): void {
  const turn = (EDGE.angle * Math.PI) / 180
  const data = new Uint8Array(WIDTH * HEIGHT)
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const inside = (x + 0.5 - EDGE.x) * Math.cos(turn) + (y + 0.5 - HEIGHT / 2) * Math.sin(turn)
      data[y * WIDTH + x] = Math.round(255 * Math.max(0, Math.min(1, 0.5 + inside / (2 * EDGE.feather))))
    }
  }
  writeFileSync(path, encode({ width: WIDTH, height: HEIGHT, data, channels: 1 }))
}

/** The same takes laid over each other in 8 bits, coded with the settings that ours are. */
function transcode(folder: string, frames: number): void {
  const clip = (name: string) => `demo/clips/${name}.mp4`
  const inputs = [
    '-i',
    clip('clockmaker-left'),
    '-i',
    clip('clockmaker-right'),
    '-loop',
    '1',
    '-i',
    `${folder}/matte.png`,
  ]
  const graph = '[2]format=gray[matte];[1][matte]alphamerge[cut];[0][cut]overlay=format=yuv420[out]'
  const picture = [
    '-frames:v',
    String(frames),
    '-c:v',
    'libx264',
    '-g',
    '60',
    '-b:v',
    String(bitrate({ width: WIDTH, height: HEIGHT }, 30)),
  ]
  const sound = ['-map', '0:a', '-t', String(frames / 30), '-c:a', 'aac', '-b:a', '192k']
  const args = ['-v', 'error', '-y', ...inputs, '-filter_complex', graph, '-map', '[out]', ...picture, ...sound]
  const { status } = spawnSync('ffmpeg', [...args, `${folder}/plain.mp4`], { stdio: ['ignore', 'ignore', 'inherit'] })
  if (status !== 0) throw new Error('the transcoder failed')
}

export async function terminalRows(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'jolly-ghost-terminal-'))
  const last = (frames: number) => `0-${frames - 1}`
  const ms = (v: number) => `${v.toFixed(1)} ms`
  try {
    const answer = await median(7, () => ghost('info', DEMO))
    const frames = (count: number) => ghost('render', DEMO, '--out', `${folder}/frames`, '--frames', last(count))
    const pngs = [await perFrame(frames), await perFrame(frames), await perFrame(frames)].sort((a, b) => a - b)
    const rows = [
      atMost('`ghost info`, from the command to its answer', 0.6, answer / 1000, 's', 'a project, median of seven'),
      atMost('a PNG sequence, 720p, two cores', 40, pngs[1]!, 'ms a frame', 'start-up left out'),
    ]
    if (spawnSync('ffmpeg', ['-version']).status !== 0) return rows
    writeMatte(`${folder}/matte.png`)
    const film = (count: number) => ghost('render', DEMO, '--out', `${folder}/film.mp4`, '--frames', last(count))
    const { one, other, ratio } = await inTurns(
      5,
      () => perFrame(film),
      () => perFrame(count => transcode(folder, count)),
    )
    const detail = `${ms(one)} / ${ms(other)} a frame in five turns, start-up left out of both`
    return [...rows, atMost('the demo shot rendered / a plain 8-bit composite by `ffmpeg`', 1, ratio, '×', detail)]
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
