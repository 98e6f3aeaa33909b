// `ghost follow`: where a point of a take goes, or something flat.
import type { Point } from '../core/affine'
import { canHold, project, type Quad } from '../core/projective'
import { type Span, spanLength } from '../core/time'
import { followMoves, followThrough } from '../media/follow'
import { Complaint } from './complaint'
import { openFrames, start } from './cut'
import { parseFrames, progress } from './render'

interface FollowOptions {
  take?: string
  at?: string
  corners?: string
  from?: string
  frames?: string
  json: boolean
}

const pointOf = (said: string): Point | null => {
  const [x, y] = (/^(-?[\d.]+),(-?[\d.]+)$/.exec(said) ?? []).slice(1).map(Number)
  return Number.isFinite(x) && Number.isFinite(y) ? { x: x!, y: y! } : null
}

const milli = (v: number): number => Number(v.toFixed(3))

/** Four corners, from the top left one on round. */
function cornersIn(said: string): Quad {
  const points = said.trim().split(/\s+/).map(pointOf)
  const quad = points.length === 4 && points.every(p => p !== null) ? (points as unknown as Quad) : null
  if (!quad || !canHold(quad))
    throw new Complaint('Say four corners, one after the other round it: --corners "10,10 90,12 90,70 10,72".')
  return quad
}

/** The frames that are looked through, and the one of them in which places are named. */
function stretchOf({ from, frames }: FollowOptions, count: number): { span: Span; first: number } {
  const span = parseFrames(frames, count, 'take')
  const { from: first } = parseFrames(from ?? `${span.from}`, count, 'take')
  if (first < span.from || first >= span.to)
    throw new Complaint(`Frame ${first}, in which it is pointed at, is not one of the frames ${frames}.`)
  return { span, first }
}

/** Where the corners of something flat go, frame after frame. */
async function followFlat(options: FollowOptions): Promise<void> {
  const { take: path, corners, json } = options
  const surface = cornersIn(corners!)
  const { k, frames } = await start()
  const take = await openFrames(frames, path!)
  const { span, first } = stretchOf(options, take.count)
  const tell = progress(spanLength(span))
  const moved = await followMoves(k, frames, take, first, { surface }, span, done => {
    tell(done)
    return true
  })
  await frames.close()
  const rows = moved.map(({ frame, move, sure }) => ({
    frame,
    corners: move && surface.map(p => project(move, p)).map(p => ({ x: milli(p.x), y: milli(p.y) })),
    sure: milli(sure),
    isLost: move === null,
  }))
  if (json) process.stdout.write(`${JSON.stringify(rows, null, 2)}\n`)
  else
    for (const { frame, corners: at } of rows)
      process.stdout.write(`${frame}\t${at ? at.map(p => `${p.x},${p.y}`).join('\t') : 'lost'}\n`)
}

export async function follow(options: FollowOptions): Promise<void> {
  const { take: path, at, json } = options
  if (!path) throw new Complaint('Say which take: --take film.')
  if (options.corners) return followFlat(options)
  const said = pointOf(at ?? '')
  if (!said) throw new Complaint('Say which point, in px from the left top corner: --at 640,360.')
  const { x, y } = said
  const { k, frames } = await start()
  const take = await openFrames(frames, path)
  if (x < 0 || y < 0 || x > take.size.width || y > take.size.height) {
    throw new Complaint(`The point ${at} lies outside of the picture, which is ${take.size.width}×${take.size.height}.`)
  }
  const { span, first } = stretchOf(options, take.count)
  const places = await followThrough(k, frames, take, first, { x, y }, span, progress(spanLength(span)))
  await frames.close()
  const rounded = places.map(p => ({
    ...p,
    x: milli(p.x),
    y: milli(p.y),
    sure: milli(p.sure),
  }))
  if (json) process.stdout.write(`${JSON.stringify(rounded, null, 2)}\n`)
  else for (const p of rounded) process.stdout.write(`${p.frame}\t${p.x}\t${p.y}${p.isLost ? '\tlost' : ''}\n`)
}
