// How well, and how quickly, somebody is cut out by their plate: against the truth of scenes that differ in light, noise, drift, bump, coding and
// likeness of colours.
import { nodeKernels, nodeMedia } from '../../src/cli/engine'
import {
  blankCells,
  type Cells,
  CUTTING_BYTES,
  cutout,
  type Measured as OfFrame,
  readCells,
} from '../../src/core/plate'
import type { Kernels } from '../../src/core/render'
import { countedFrames } from '../../src/media/counted'
import { frameStore } from '../../src/media/frames'
import { describeTake } from '../../src/media/open'
import { readPlate } from '../../src/media/plate'
import { atMost, median, type Row } from '../measure'
import { plainDifference, THRESHOLDS } from './plain-difference'
import { type Scene, scenes, type Truth } from './scenes'

interface Measured {
  scene: Scene
  /** Mean absolute error over the frame, and within 2 px of the true edge on both sides. */
  error: number
  edge: number
  /** The error over the frame of a plain difference to the plate, cleaned up: how hard the scene is. */
  plain: number
  /** Share of px that are in shadow only and are more than a tenth somebody. */
  shaded: number
  /** How much alpha changes from frame to frame beside the edge, in that of the truth. */
  change: number
  camera: number
  light: number
}

/** Px within 2 px of where the true matte passes a half. */
function edgeOf(matte: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(matte.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let least = 255
      let most = 0
      for (let v = Math.max(0, y - 2); v <= Math.min(height - 1, y + 2); v += 2) {
        for (let u = Math.max(0, x - 2); u <= Math.min(width - 1, x + 2); u += 2) {
          const value = matte[v * width + u]!
          if (value < least) least = value
          if (value > most) most = value
        }
      }
      if (least < 128 && most >= 128) out[y * width + x] = 1
    }
  }
  return out
}

/** The error of a plain difference in one frame, with the threshold that is best for it. */
const plainError = (frame: Cells, plate: Cells, { matte }: Truth): number =>
  Math.min(
    ...THRESHOLDS.map(threshold => {
      const found = plainDifference(frame, plate, threshold)
      return found.reduce((sum, alpha, i) => sum + Math.abs(alpha - matte[i]!), 0) / 255 / found.length
    }),
  )

async function measured(k: Kernels, scene: Scene): Promise<Measured> {
  const { size, frames } = scene
  const store = frameStore(k, 128 << 20)
  store.add('take', scene.take)
  store.add('plate', scene.plate)
  const plateFrames = countedFrames('plate', (await describeTake(scene.plate, 0)).picture)!
  const plate = await readPlate(k, store, plateFrames, { from: 0, to: 0.12 }, size, () => true)
  const cut = cutout(plate)
  const two = [blankCells(plate.k, size), blankCells(plate.k, size)] as const
  const sum = { error: 0, edge: 0, edges: 0, shaded: 0, shades: 0, change: 0, trueChange: 0 }
  let [camera, light, plain] = [0, 0, 0]
  let before: { alpha: Uint8Array; truth: Truth } | null = null
  const judge = (seen: OfFrame, truth: Truth) => {
    if (truth.camera)
      camera = Math.max(camera, Math.hypot(seen.movement.x - truth.camera.x, seen.movement.y - truth.camera.y))
    truth.gain.forEach((g, c) => {
      light = Math.max(light, Math.abs(seen.gain[c]! / g - 1))
    })
  }
  for (const frame of frames) {
    const picture = await store.get('take', frame / 30)
    const cells = two[frame % 2]!
    readCells(k, picture, cells)
    store.release(picture)
    const { alpha, ...seen } = cut.next(cells)
    const truth = scene.truth(frame)
    judge(seen, truth)
    if (frame === frames[frames.length >> 1]) plain = plainError(cells, plate, truth)
    const edge = edgeOf(truth.matte, size.width, size.height)
    for (let i = 0; i < alpha.length; i++) {
      const d = Math.abs(alpha[i]! - truth.matte[i]!) / 255
      sum.error += d / alpha.length / frames.length
      if (edge[i]) {
        sum.edge += d
        sum.edges++
        if (before) {
          sum.change += Math.abs(alpha[i]! - before.alpha[i]!)
          sum.trueChange += Math.abs(truth.matte[i]! - before.truth.matte[i]!)
        }
      } else if (truth.matte[i] === 0 && truth.shadow[i]! > 50) {
        sum.shades++
        if (alpha[i]! > 25) sum.shaded++
      }
    }
    before = { alpha, truth }
  }
  await store.close()
  return {
    scene,
    error: sum.error,
    edge: sum.edge / sum.edges,
    plain,
    shaded: sum.shaded / Math.max(1, sum.shades),
    change: sum.change / sum.trueChange,
    camera,
    light,
  }
}

/** Milliseconds of one thread for a frame of 1080p once the plate is known. */
async function pace(k: Kernels): Promise<number> {
  const size = { width: 1920, height: 1080 }
  const own = await k.apart(2 ** 22 + size.width * size.height * CUTTING_BYTES)
  const [plate, frame] = [blankCells(own, size), blankCells(own, size)]
  for (let i = 0; i < frame.luma.length; i++) {
    const [x, y] = [i % size.width, Math.floor(i / size.width)]
    plate.luma[i] = 110 + 40 * Math.sin(x * 0.07) + 20 * Math.cos(y * 0.11)
    const is = Math.hypot((x - 900) / 220, (y - 560) / 500) < 1
    frame.luma[i] = is ? 190 + 10 * Math.sin(y * 0.2) : plate.luma[i]! + ((x * 7 + y * 13) % 5) - 2
  }
  for (const cells of [plate, frame]) {
    for (let i = 0; i < cells.y.length; i++) {
      const at = Math.floor(i / cells.width) * 2 * size.width + (i % cells.width) * 2
      cells.y[i] =
        (cells.luma[at]! + cells.luma[at + 1]! + cells.luma[at + size.width]! + cells.luma[at + size.width + 1]!) / 4
    }
  }
  const cut = cutout(plate)
  return median(60, () => cut.next(frame))
}

const thousandths = (value: number): string => (value * 1000).toFixed(1)

export async function cutoutRows(): Promise<Row[]> {
  nodeMedia()
  const k = await nodeKernels(512 << 20)
  const all: Measured[] = []
  for await (const scene of scenes()) all.push(await measured(k, scene))
  const each = (of: (m: Measured) => string) => all.map(m => `${m.scene.name} ${of(m)}`).join(', ')
  const worst = (of: (m: Measured) => number) => Math.max(...all.map(of))
  return [
    atMost(
      'cut-out: alpha’s mean error over the frame, worst of the scenes',
      2,
      worst(m => m.error) * 1000,
      'in 1000',
      `in brackets a plain difference to the plate, cleaned up, with the best of five thresholds: ${each(m => `${thousandths(m.error)} [${thousandths(m.plain)}]`)}`,
    ),
    atMost(
      'the same within 2 px of the true edge',
      0.06,
      worst(m => m.edge),
      '',
      each(m => m.edge.toFixed(3)),
    ),
    atMost(
      'share of what is only shadow that is taken for somebody by more than a tenth',
      0,
      worst(m => m.shaded),
      '',
      each(m => m.shaded.toFixed(3)),
    ),
    atMost(
      'change of alpha beside the edge from frame to frame / the truth’s',
      1.3,
      worst(m => m.change),
      '×',
      each(m => m.change.toFixed(2)),
    ),
    atMost(
      'camera movement, largest error',
      0.05,
      worst(m => m.camera),
      'px',
      each(m => m.camera.toFixed(3)),
    ),
    atMost(
      'light, largest error of a channel',
      0.3,
      worst(m => m.light) * 100,
      '%',
      each(m => (m.light * 100).toFixed(2)),
    ),
    atMost('cut-out of a 1080p frame, one thread, the plate known', 25, await pace(k), 'ms', 'median of sixty'),
  ]
}
