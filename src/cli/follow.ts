// `ghost follow`: where a point of a take goes.
import { followThrough } from '../media/follow'
import { Complaint } from './complaint'
import { openFrames, start } from './cut'
import { parseFrames, progress } from './render'

interface FollowOptions {
  take?: string
  at?: string
  from?: string
  json: boolean
}

export async function follow({ take: path, at, from, json }: FollowOptions): Promise<void> {
  if (!path) throw new Complaint('Say which take: --take film.')
  const said = /^(-?[\d.]+),(-?[\d.]+)$/.exec(at ?? '')
  const [x, y] = [Number(said?.[1]), Number(said?.[2])]
  if (!Number.isFinite(x) || !Number.isFinite(y))
    throw new Complaint('Say which point, in px from the left top corner: --at 640,360.')
  const { k, frames } = await start()
  const take = await openFrames(frames, path)
  if (x < 0 || y < 0 || x > take.size.width || y > take.size.height) {
    throw new Complaint(`The point ${at} lies outside of the picture, which is ${take.size.width}×${take.size.height}.`)
  }
  const { from: first } = parseFrames(from ?? '0', take.count, 'take')
  const places = await followThrough(k, frames, take, first, { x, y }, progress(take.count))
  await frames.close()
  const rounded = places.map(p => ({
    ...p,
    x: Number(p.x.toFixed(3)),
    y: Number(p.y.toFixed(3)),
    sure: Number(p.sure.toFixed(3)),
  }))
  if (json) process.stdout.write(`${JSON.stringify(rounded, null, 2)}\n`)
  else for (const p of rounded) process.stdout.write(`${p.frame}\t${p.x}\t${p.y}${p.isLost ? '\tlost' : ''}\n`)
}
