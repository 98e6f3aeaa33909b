// How well, and how quickly, points are followed, and how quickly a take is looked through.
import { nodeKernels } from '../../src/cli/engine'
import { followPoint, followSurface, type Pyramid, pyramid, refill, spotsIn } from '../../src/core/follow'
import type { Kernels, Planes } from '../../src/core/render'
import { lookThrough } from '../../src/media/lock-off'
import { filmSheet, onSheet, SHEET_SIZE, sheetOff } from '../../src/testing/sheet'
import { cloth, grainOf } from '../../src/testing/texture'
import { atMost, median, type Row } from '../measure'

const SIZE = { width: 1920, height: 1080 }

const grain = grainOf()

/** What a camera sees of it, shifted, in `out`. */
function filmed({ width, height }: { width: number; height: number }, dx: number, dy: number, out: Float32Array): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) out[y * width + x] = cloth(x + 0.5 - dx, y + 0.5 - dy) + grain()
  }
}

const blank = (k: Kernels, { width, height }: { width: number; height: number }): Pyramid =>
  pyramid(k, { width, height, data: k.floats(k.alloc(width * height * 4), width * height) })

/** px by which twenty points of a cloth with a code of grain are off at most over a hundred frames. */
function drift(k: Kernels): number {
  const size = { width: 480, height: 300 }
  const picture = blank(k, size)
  const first = picture.levels[0]!
  filmed(size, 0, 0, first.data)
  refill(picture)
  const inside = (x: number, y: number) => x > 90 && x < 390 && y > 70 && y < 230
  const followers = spotsIn(first, inside, 20).map(at => ({ at, follower: followPoint(picture, at)! }))
  let most = 0
  for (let i = 1; i <= 100; i++) {
    const [dx, dy] = [50 * Math.sin(i * 0.06), 35 * Math.sin(i * 0.09)]
    filmed(size, dx, dy, first.data)
    refill(picture)
    for (const { at, follower } of followers) {
      const found = follower.next(picture)
      most = Math.max(most, found.isLost ? 99 : Math.hypot(found.x - at.x - dx, found.y - at.y - dy))
    }
  }
  return most
}

/** px by which a corner of a sheet that turns is off at most over a hundred frames. */
function turned(k: Kernels): number {
  const picture = blank(k, SHEET_SIZE)
  const { data } = picture.levels[0]!
  const see = (i: number) => {
    filmSheet(i, null, grain, data)
    refill(picture)
  }
  see(0)
  const follower = followSurface(picture, onSheet)!
  let most = 0
  for (let i = 1; i <= 100; i++) {
    see(i)
    const { map } = follower.next(picture)
    most = Math.max(most, map ? sheetOff(map, i) : 99)
  }
  return most
}

/** Milliseconds of a frame of 1080p in which 200 points are followed, its smaller pictures included. */
async function pace(k: Kernels): Promise<number> {
  const [one, other] = [blank(k, SIZE), blank(k, SIZE)]
  filmed(SIZE, 0, 0, one.levels[0]!.data)
  filmed(SIZE, 3.3, -2.1, other.levels[0]!.data)
  refill(one)
  const followers = spotsIn(one.levels[0]!, () => true, 200).map(at => followPoint(one, at)!)
  let back = false
  return median(60, () => {
    back = !back
    const now = back ? other : one
    refill(now)
    for (const follower of followers) follower.next(now)
  })
}

/** Milliseconds of a frame of 1080p that is looked through, decoding apart. */
async function looking(k: Kernels): Promise<number> {
  const pictures = [0, 0.4, 0.2].map((shift): Planes => {
    const data = new Float32Array(SIZE.width * SIZE.height)
    filmed(SIZE, shift, 0, data)
    const [luma, chroma] = [data.length, data.length / 4]
    const ptr = k.alloc(luma + 2 * chroma)
    k.bytes(ptr, luma).set(data.map(v => Math.max(0, Math.min(255, Math.round(v)))))
    k.bytes(ptr + luma, 2 * chroma).fill(128)
    return {
      kind: 'planes',
      ...SIZE,
      ptr,
      offsets: [0, luma, luma + chroma],
      strides: [SIZE.width, SIZE.width / 2, SIZE.width / 2],
      halfColumns: 1,
      halfRows: 1,
      chroma: { across: 'even', down: 'between' },
      matrix: 'bt709',
      fullRange: true,
    }
  })
  let asked = 0
  const frames = { get: async () => pictures[asked++ % pictures.length]!, release() {} }
  const take = { digest: 'take', size: SIZE, rate: { num: 25, den: 1 }, count: 60 }
  let before = 0
  const paces: number[] = []
  for await (const _ of lookThrough(k, frames, take, { of: take, from: 0, to: 0 })) {
    const now = performance.now()
    if (before > 0) paces.push(now - before)
    before = now
  }
  return paces.sort((a, b) => a - b)[paces.length >> 1]!
}

export async function followRows(): Promise<Row[]> {
  const k = await nodeKernels(512 << 20)
  return [
    atMost('twenty followed points over 100 frames, largest error', 0.1, drift(k), 'px', 'cloth with a code of grain'),
    atMost(
      'four corners of a flat thing that turns, over 100 frames, largest error',
      0.1,
      turned(k),
      'px',
      'by 40° and back',
    ),
    atMost('200 followed points, a frame of 1080p, one thread', 14, await pace(k), 'ms', 'median of sixty'),
    atMost(
      'lock-off report, a frame of 1080p, one thread, decoding apart',
      15,
      await looking(k),
      'ms',
      'median of sixty',
    ),
  ]
}
