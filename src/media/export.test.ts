// Films made by the exporter, decoded again and compared with the core's own pictures and sound.
import { readFile } from 'node:fs/promises'
import { decode as decodePng } from 'fast-png'
import { BufferTarget, EncodedPacketSink, VideoSampleSink } from 'mediabunny'
import { beforeAll, describe, expect, it } from 'vitest'
import { type Engine, nodeMedia, pathSource, startEngine } from '../cli/engine'
import { findProject } from '../cli/projects'
import { planFrame } from '../core/plan'
import { edits, type Shot } from '../core/shot'
import { mixdown } from '../core/sound'
import { demoClip } from '../testing/clips'
import { testKernels } from '../testing/kernels'
import { coded, exportFrame, exportShot, filmSize } from './export'
import { blobSource, type OpenFilm, openMedia } from './open'
import { packPng, pngRows } from './png'
import { soundStore } from './sound'

let engine: Engine
let shot: Shot
beforeAll(async () => {
  const found = await findProject('two-at-the-counter')
  shot = found.project.shot
  engine = await startEngine(found)
})

async function film(format: 'mp4' | 'webm', from: number, to: number, scale: number, of = shot) {
  const target = new BufferTarget()
  const pictures: Uint8Array[] = []
  for (let frame = from; frame < to; frame++) {
    const { ptr, width, height } = await exportFrame(engine.k, engine.frames, { shot: of, scale: scale }, frame)
    pictures.push(engine.k.bytes(ptr, width * height * 4).slice())
    engine.k.free(ptr)
  }
  await exportShot({ shot: of, format, span: { from, to }, scale }, target, engine)
  const media = (await openMedia(blobSource(new Blob([target.buffer!])), `x.${format}`)) as OpenFilm
  return { media, pictures }
}

/** Peak signal to noise of luma, dB. */
function likeness(a: Uint8Array, rgb: Uint8Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i += 4) {
    const luma = (p: Uint8Array) => 0.2126 * p[i]! + 0.7152 * p[i + 1]! + 0.0722 * p[i + 2]!
    sum += (luma(a) - luma(rgb)) ** 2
  }
  return 10 * Math.log10(255 ** 2 / Math.max(1e-9, sum / (a.length / 4)))
}

describe.each(['mp4', 'webm'] as const)('a film as %s', format => {
  it('has exactly the frames asked for, each like the picture that went in', async () => {
    const { media, pictures } = await film(format, 70, 82, 0.5)
    const { frameStore } = await import('./frames')
    const { toCodesPicture } = await import('../core/render')
    const packets = new EncodedPacketSink(media.video!)
    let count = 0
    for await (const _ of packets.packets()) count++
    expect(count).toBe(12)
    expect(pictures).toHaveLength(12)
    const store = frameStore(engine.k, 64 << 20)
    store.add('film', media)
    for (let i = 0; i < 12; i++) {
      const picture = await store.get('film', i / 30)
      expect(picture).toMatchObject({ width: 640, height: 360 })
      const codes = toCodesPicture(engine.k, picture)
      const bytes = engine.k.bytes(codes.ptr, 640 * 360 * 4)
      expect(likeness(bytes, pictures[i]!)).toBeGreaterThan(30)
      engine.k.free(codes.ptr)
      store.release(picture)
    }
    await store.close()
  })

  it('has its sound in step within 20 ms, and as long as its picture', async () => {
    const { media } = await film(format, 30, 90, 0.25)
    const first = 48_000
    const [want] = await mixdown(shot, 48_000, first, 96_000, engine.sounds.read)
    const sounds = soundStore()
    sounds.add('film', media)
    const [heard] = await sounds.read('film', 0, 100_000)
    // The shift at which both agree best.
    let best = { shift: 0, sum: -1 }
    for (let shift = -2400; shift <= 2400; shift += 8) {
      let sum = 0
      for (let i = 4800; i < 90_000; i += 3) sum += want[i]! * (heard[i + shift] ?? 0)
      if (sum > best.sum) best = { shift, sum }
    }
    expect(Math.abs(best.shift)).toBeLessThan(960)
    const [seen, sounding] = [await media.video!.computeDuration(), await media.sound!.computeDuration()]
    expect(sounding).toBeLessThanOrEqual(seen + 1e-3)
    expect(sounding).toBeGreaterThan(seen - 0.06)
    media.close()
  })
})

it('is of even sides, and says what is left out', () => {
  const of = (width: number, height: number) => filmSize({ ...shot, size: { width, height } }, 1)
  expect(of(321, 179)).toEqual({
    size: { width: 320, height: 178 },
    left: 'films have even sides, so its last column and its last row are left out.',
  })
  expect(of(320, 179).left).toMatch(/its last row is left out/)
  expect(of(320, 178).left).toBeNull()
  for (const length of [1, 500, 1024, 1600, 48_000, 96_001]) {
    expect(coded('aac', length)).toBeLessThanOrEqual(Math.max(1, length - 1024))
    expect(coded('opus', length) + 624).toBeLessThanOrEqual(Math.max(625, length))
  }
})

it('makes the same picture again, whatever was made between, and writes it as it is', async () => {
  const one = await exportFrame(engine.k, engine.frames, { shot, scale: 1 }, 76)
  const bytes = engine.k.bytes(one.ptr, 1280 * 720 * 4).slice()
  engine.k.free((await exportFrame(engine.k, engine.frames, { shot, scale: 1 }, 12)).ptr)
  const again = await exportFrame(engine.k, engine.frames, { shot, scale: 1 }, 76)
  expect(engine.k.bytes(again.ptr, bytes.length).every((v, i) => v === bytes[i])).toBe(true)
  const png = decodePng(await packPng(pngRows(engine.k, again)))
  expect([png.width, png.height, png.channels]).toEqual([1280, 720, 3])
  for (let i = 0; i < 1280 * 720; i += 997)
    expect([...png.data.slice(i * 3, i * 3 + 3)]).toEqual([...bytes.slice(i * 4, i * 4 + 3)])
  engine.k.free(one.ptr)
  engine.k.free(again.ptr)
})

it('shows the clockmaker twice: each side of the seam is its own take, untouched', async () => {
  const alone = async (layer: string) => {
    const only = structuredClone(shot)
    only.layers = only.layers.filter(l => l.id === layer).map(l => ({ ...l, matte: [] }))
    return exportFrame(engine.k, engine.frames, { shot: only, scale: 1 }, 76)
  }
  const [both, left, right] = [
    await exportFrame(engine.k, engine.frames, { shot, scale: 1 }, 76),
    await alone('act-a'),
    await alone('act-b'),
  ]
  const pixel = (p: { ptr: number }, x: number, y: number) => engine.k.ints(p.ptr + (y * 1280 + x) * 4, 1)[0]
  for (let y = 0; y < 720; y += 7) {
    for (let x = 0; x < 560; x += 11) expect(pixel(both, x, y)).toBe(pixel(left, x, y))
    for (let x = 740; x < 1280; x += 11) expect(pixel(both, x, y)).toBe(pixel(right, x, y))
  }
  for (const p of [both, left, right]) engine.k.free(p.ptr)
})

it('leaves its memory where it is broken off', async () => {
  const free = engine.k.largestFree()
  let told = 0
  const work = {
    ...engine,
    onProgress: (done: number) => {
      told = done
      if (done === 3) throw new Error('enough')
    },
  }
  const run = exportShot({ shot, format: 'mp4', span: { from: 70, to: 100 }, scale: 0.25 }, new BufferTarget(), work)
  await expect(run).rejects.toThrow('enough')
  expect(told).toBe(3)
  expect(engine.k.largestFree()).toBeGreaterThan(free - (200 << 20))
})

it('is made where there is room for its frames one by one, whether or not the next one fits beside each', async () => {
  const { project, pathOf } = await findProject('two-at-the-counter')
  const silent = { ...shot, layers: shot.layers.map(l => ({ ...l, sound: { ...l.sound, on: false } })) }
  const { frameStore } = await import('./frames')
  for (const room of [4.5, 6.75, 7]) {
    const k = await testKernels(room * 2 ** 20)
    const frames = frameStore(k, 256 << 20)
    for (const take of project.takes) frames.add(take.digest, await openMedia(pathSource(pathOf(take)), take.name))
    const work = { k, frames, sounds: soundStore() }
    await exportShot({ shot: silent, format: 'mp4', span: { from: 60, to: 66 }, scale: 1 }, new BufferTarget(), work)
    await frames.close()
  }
})

it('moves with its keys', async () => {
  const moved = structuredClone(shot)
  const path = { of: 'shape', piece: 'seam' } as const
  edits.putKey(moved, 'act-b', path, 0, { x: 0, y: 0, angle: 0 })
  edits.putKey(moved, 'act-b', path, 10, { x: 1000, y: 0, angle: 0 })
  edits.easeKey(moved, 'act-b', path, 0, 'linear')
  const shape = planFrame(moved, 5).layers[0]!.matte[0]!.shape
  expect(shape).toMatchObject({ x: 500 })
})

it('reads the demo clips as the generator meant them', async () => {
  nodeMedia()
  const path = new URL('../../demo/clips/empty-shop.mp4', import.meta.url).pathname
  const media = await demoClip('empty-shop')
  const sample = await new VideoSampleSink(media.video!).getSample(1)
  expect(sample!.timestamp).toBeCloseTo(1, 6)
  sample!.close()
  media.close()
  expect((await readFile(path)).length).toBeLessThan(4 << 20)
})
