// The generator tells the truth about the clips that are shipped.
import { statSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { createCanvas, loadImage, type SKRSContext2D } from '@napi-rs/canvas'
import { beforeAll, expect, it } from 'vitest'
import { nodeMedia, pathSource } from '../src/cli/engine'
import { findProject } from '../src/cli/projects'
import { sample } from '../src/core/keys'
import { type Kernels, toCodesPicture } from '../src/core/render'
import { sheetCell, sheetLayout, sheetSize } from '../src/core/small-frames'
import { PEAKS_A_SECOND } from '../src/core/sound'
import { frameStore } from '../src/media/frames'
import { describeTake, openMedia } from '../src/media/open'
import { demoClip } from '../src/testing/clips'
import { testKernels } from '../src/testing/kernels'
import { CLIPS, type ClipName } from './acts'
import { footageFrame } from './footage'
import { hoopAt } from './hoop'

let k: Kernels
beforeAll(async () => {
  nodeMedia()
  k = await testKernels()
})

const NAMES: readonly ClipName[] = ['empty-shop', 'clockmaker-left', 'clockmaker-right']

async function decoded(name: ClipName, frame: number): Promise<Uint8Array> {
  const store = frameStore(k, 32 << 20)
  store.add(name, await demoClip(name))
  const codes = toCodesPicture(k, await store.get(name, frame / 30))
  const bytes = k.bytes(codes.ptr, 1280 * 720 * 4).slice()
  k.free(codes.ptr)
  await store.close()
  return bytes
}

/** Mean difference where `where` allows it. */
function difference(a: ArrayLike<number>, b: ArrayLike<number>, where: (i: number) => boolean): number {
  let sum = 0
  let n = 0
  for (let i = 0; i < 1280 * 720; i += 3) {
    if (!where(i)) continue
    for (let c = 0; c < 3; c++) sum += Math.abs(a[i * 4 + c]! - b[i * 4 + c]!)
    n += 3
  }
  return sum / Math.max(1, n)
}

/** Where something is written on the set: above the counter, and on the door. */
function isSign(i: number): boolean {
  const [x, y] = [i % 1280, Math.floor(i / 1280)]
  return (x > 556 && x < 724 && y > 300 && y < 342) || (x > 1110 && x < 1240 && y > 60 && y < 90)
}

it.each([...NAMES, 'walk-across'] as const)(
  '%s is what the generator makes, noise apart, its signs too',
  async name => {
    const [film, made] = [await decoded(name, 75), footageFrame(name, 75).pixels]
    expect(difference(film, made, () => true)).toBeLessThan(2.2)
    expect(difference(film, made, isSign)).toBeLessThan(8)
  },
)

it.each(Object.keys(CLIPS) as ClipName[])('%s brings its small frames and its loudness along', async name => {
  const path = fileURLToPath(new URL(`./clips/${name}.mp4`, import.meta.url))
  const take = await describeTake(await openMedia(pathSource(path), name), statSync(path).size)
  const layout = sheetLayout({ ...take, digest: name })!
  const sheet = await loadImage(path.replace('.mp4', '.small.jpg'))
  expect({ width: sheet.width, height: sheet.height }).toEqual(sheetSize(layout))
  expect(
    Math.abs(statSync(path.replace('.mp4', '.loud')).size / PEAKS_A_SECOND - CLIPS[name].frames / 30),
  ).toBeLessThan(0.1)
  const at = 5
  const full = createCanvas(1280, 720)
  const image = full.getContext('2d').createImageData(1280, 720)
  image.data.set(await decoded(name, Math.floor(at * layout.every * 30 + 0.01)))
  full.getContext('2d').putImageData(image, 0, 0)
  const small = (draw: (context: SKRSContext2D) => void): Uint8ClampedArray => {
    const context = createCanvas(layout.width, layout.height).getContext('2d')
    context.imageSmoothingQuality = 'high'
    draw(context)
    return context.getImageData(0, 0, layout.width, layout.height).data
  }
  const made = small(context => context.drawImage(full, 0, 0, layout.width, layout.height))
  const off = Array.from({ length: layout.count }, (_, i) => {
    const { x, y } = sheetCell(layout, i)
    const kept = small(context => context.drawImage(sheet, -x, -y))
    return kept.reduce((sum, v, p) => sum + Math.abs(v - made[p]!), 0) / kept.length
  })
  expect(off[at]).toBeLessThan(5)
  // In an empty set all are alike.
  expect(off[at]).toBeLessThan(Math.min(...off) + 0.02)
})

it('its matte covers all that differs from the empty shop, its shadow all that is darker', () => {
  const shop = footageFrame('empty-shop', 75)
  const act = footageFrame('clockmaker-left', 75)
  const clear = (i: number) => act.matte[i]! === 0 && act.shadow[i]! < 0.004
  // Second hands differ from clip to clip: the wall of clocks is left out.
  const below = (i: number) => i > 240 * 1280
  expect(difference(act.pixels, shop.pixels, i => clear(i) && below(i))).toBeLessThan(2.5)
  expect(difference(act.pixels, shop.pixels, i => act.matte[i]! > 0.99)).toBeGreaterThan(15)
  const cover = act.matte.reduce((s, v) => s + v, 0) / act.matte.length
  expect(cover).toBeGreaterThan(0.04)
  expect(cover).toBeLessThan(0.12)
})

it('the right act is darker and warmer by the exposure that is told', () => {
  const shop = footageFrame('empty-shop', 20)
  const right = footageFrame('clockmaker-right', 20)
  const mean = (pixels: Uint8ClampedArray, c: number) => {
    let sum = 0
    let n = 0
    for (let i = 300 * 1280; i < 480 * 1280; i += 5) {
      if (i % 1280 > 500 || right.shadow[i]! > 0.002 || right.matte[i]! > 0) continue
      sum += (pixels[i * 4 + c]! / 255) ** 2.2
      n++
    }
    return sum / n
  }
  for (const c of [0, 1, 2]) expect(mean(right.pixels, c) / mean(shop.pixels, c)).toBeCloseTo(right.exposure[c]!, 1)
  expect(right.exposure[0] - right.exposure[2]).toBeGreaterThan(0.05)
})

it('no two frames share their noise', () => {
  const [a, b] = [footageFrame('empty-shop', 3), footageFrame('empty-shop', 4)]
  expect(difference(a.pixels, b.pixels, () => true)).toBeGreaterThan(0.5)
})

it('what rides on the hoop stays in it', async () => {
  const { project, close } = await findProject('hoop')
  const [shop] = project.shot.layers
  const [inside] = shop!.matte
  for (let frame = 0; frame < CLIPS.hoop.frames; frame += 3) {
    const { x, y, scale } = sample(inside!.motion, frame)
    // The shutter is open for half a frame.
    const truth = hoopAt((frame + 0.25) / 30)
    expect(Math.hypot(inside!.pivot.x + x - truth.x, inside!.pivot.y + y - truth.y)).toBeLessThan(3)
    expect(Math.abs(scale - 1)).toBeLessThan(0.02)
  }
  await close()
})
