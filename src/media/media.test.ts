// Real files through real decoders.
import { readFile } from 'node:fs/promises'
import { createCanvas } from '@napi-rs/canvas'
import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  MkvOutputFormat,
  Output,
  Quality,
  VideoSampleSink,
  VideoSampleSource,
  WavOutputFormat,
} from 'mediabunny'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { type Kernels, type Picture, toCodesPicture } from '../core/render'
import { makeClip, steady, temporaryFolder } from '../testing/clips'
import { foreignFilm } from '../testing/foreign'
import { testKernels } from '../testing/kernels'
import { type FrameStore, frameStore } from './frames'
import { blobSource, describeTake, type OpenMedia, openMedia } from './open'
import { Dropped } from './problem'
import { soundStore } from './sound'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})
const opened: OpenMedia[] = []
afterAll(() => {
  for (const media of opened) media.close()
})

async function open(bytes: Uint8Array<ArrayBuffer>, name = 'clip.mp4') {
  const media = await openMedia(blobSource(new Blob([bytes])), name)
  opened.push(media)
  return media
}

async function storeOf(bytes: Uint8Array<ArrayBuffer>, limit = 64 << 20): Promise<FrameStore> {
  const store = frameStore(k, limit)
  store.add('x', await open(bytes))
  return store
}

/** Red, green and blue in the middle of a picture. */
function middle(picture: Picture): number[] {
  const out = toCodesPicture(k, picture)
  const at = ((picture.height >> 1) * picture.width + (picture.width >> 1)) * 4
  const rgb = [...k.bytes(out.ptr + at, 3)]
  k.free(out.ptr)
  return rgb
}

/** Frames whose grey tells their number. */
const counted = (frame: number) => [20 + frame * 5, 128, 128] as const
const numberOf = (picture: Picture): number => Math.round(((middle(picture)[0]! * 219) / 255 + 16 - 20) / 5)

async function seen(store: FrameStore, seconds: number): Promise<number> {
  const picture = await store.get('x', seconds)
  store.release(picture)
  return numberOf(picture)
}

describe('the frame at a moment', () => {
  it('is the last that has begun, in any order of asking', async () => {
    const store = await storeOf(await makeClip({ width: 64, height: 48, times: steady(40, 30), colour: counted }))
    for (const frame of [0, 1, 2, 3, 39, 38, 37, 12, 11, 30, 5]) {
      expect(await seen(store, frame / 30)).toBe(frame)
      expect(await seen(store, (frame + 0.9) / 30)).toBe(frame)
    }
    expect(await seen(store, -1)).toBe(0)
    expect(await seen(store, 99)).toBe(39)
  })

  it('is right where the rate varies, and where times are rounded to milliseconds', async () => {
    const uneven = [0, 0.04, 0.05, 0.2, 0.21, 0.5, 0.9]
    const store = await storeOf(await makeClip({ width: 64, height: 48, times: uneven, colour: counted }))
    for (const [t, frame] of [
      [0.03, 0],
      [0.045, 1],
      [0.06, 2],
      [0.199, 3],
      [0.3, 4],
      [0.6, 5],
      [0.19, 2],
    ] as const) {
      expect(await seen(store, t)).toBe(frame)
    }
    const rounded = await storeOf(
      await makeClip({ width: 64, height: 48, times: steady(30, 30000 / 1001), colour: counted, format: 'mkv' }),
    )
    for (let frame = 0; frame < 30; frame++) expect(await seen(rounded, (frame * 1001) / 30000)).toBe(frame)
  })

  it('stays within its memory, with nothing in use given up', async () => {
    const clip = await makeClip({ width: 64, height: 48, times: steady(40, 30), colour: counted })
    const store = await storeOf(clip, 40_000)
    const held = await store.get('x', 0)
    for (let frame = 0; frame < 40; frame++) {
      await seen(store, frame / 30)
      expect(store.used()).toBeLessThan(60_000)
    }
    expect(numberOf(held)).toBe(0)
  })

  it('holds what is wanted together, even where that is more than it may keep', async () => {
    const store = frameStore(k, 10_000)
    const names = ['a', 'b', 'c', 'd', 'e', 'f']
    const clip = async (i: number) =>
      open(await makeClip({ width: 64, height: 48, times: steady(20, 30), colour: f => [20 + i * 30 + f, 128, 128] }))
    for (const [i, name] of names.entries()) store.add(name, await clip(i))
    for (const frame of [3, 11, 7]) {
      const pictures = await Promise.all(names.map(name => store.get(name, frame / 30)))
      pictures.forEach((picture, i) => {
        expect(Math.abs((middle(picture)[0]! * 219) / 255 + 16 - (20 + i * 30 + frame))).toBeLessThan(2)
      })
      for (const picture of pictures) store.release(picture)
    }
    store.clear()
    expect(store.used()).toBe(0)
  })

  it('is decoded once where a row of copies goes along behind one another, also with no room to keep frames', async () => {
    const times = steady(200, 30)
    const store = await storeOf(await makeClip({ width: 64, height: 48, times, colour: f => counted(f % 40) }), 10_000)
    const started = vi.spyOn(VideoSampleSink.prototype, 'samples')
    for (let frame = 130; frame < 170; frame++) {
      const row = await Promise.all([0, 41, 82, 123].map(late => store.get('x', (frame - late) / 30)))
      expect(row.map(numberOf)).toEqual([0, 41, 82, 123].map(late => (frame - late) % 40))
      for (const picture of row) store.release(picture)
    }
    expect(started).toHaveBeenCalledTimes(4)
    started.mockRestore()
    await store.close()
  })

  it('is dropped when it is no longer wanted', async () => {
    const store = await storeOf(await makeClip({ width: 64, height: 48, times: steady(40, 30), colour: counted }))
    await expect(store.get('x', 1, () => false)).rejects.toBeInstanceOf(Dropped)
    expect(await seen(store, 1)).toBe(30)
  })
})

describe('colours', () => {
  const red = { bt709: [63, 102, 240], smpte170m: [81, 90, 240] } as const
  it.each([
    ['bt709', false, red.bt709],
    ['smpte170m', false, red.smpte170m],
    ['bt709', true, [54, 99, 255]],
    ['smpte170m', true, [76, 85, 255]],
  ] as const)('of %s, full range %s, come out as they went in', async (matrix, fullRange, codes) => {
    const clip = await makeClip({ width: 64, height: 48, times: steady(3, 25), colour: () => codes, matrix, fullRange })
    const store = await storeOf(clip)
    const [r, g, b] = middle(await store.get('x', 0)) as [number, number, number]
    expect(r).toBeGreaterThan(250)
    expect(g).toBeLessThan(5)
    expect(b).toBeLessThan(5)
  })
})

it('reads the colours of SMPTE 240M out of a film that states them', async () => {
  const path = await foreignFilm('smpte240m', await temporaryFolder())
  const [r, g, b] = middle(await (await storeOf(new Uint8Array(await readFile(path)))).get('x', 0.5))
  expect(r).toBeLessThan(3)
  expect(g).toBeGreaterThan(252)
  expect(b).toBeLessThan(3)
})

describe('a take', () => {
  it('with stored rotation and odd sides is shown upright', async () => {
    const clip = await makeClip({
      width: 62,
      height: 34,
      times: steady(3, 25),
      colour: () => [120, 128, 128],
      rotation: 90,
    })
    const media = await open(clip)
    expect(await describeTake(media, clip.length)).toMatchObject({
      picture: { size: { width: 34, height: 62 }, rate: { num: 25, den: 1 }, seconds: 0.12, varies: false },
      sound: null,
    })
    const store = await storeOf(clip)
    expect(await store.get('x', 0)).toMatchObject({ kind: 'codes', width: 34, height: 62 })
  })

  it('with odd sides is one colour up to its last column and row', async () => {
    const clip = await makeClip({
      width: 33,
      height: 17,
      times: steady(3, 25),
      colour: () => [200, 60, 60],
      matrix: 'smpte170m',
      format: 'webm',
    })
    const odd = toCodesPicture(k, await (await storeOf(clip)).get('x', 0))
    expect(odd).toMatchObject({ width: 33, height: 17 })
    const pixels = k.bytes(odd.ptr, 33 * 17 * 4)
    for (let i = 0; i < pixels.length; i += 4)
      for (const [c, want] of [200, 60, 60].entries()) expect(Math.abs(pixels[i + c]! - want)).toBeLessThan(5)
    k.free(odd.ptr)
  })

  it.each([
    [
      'no media',
      new TextEncoder().encode('not a film at all, just words'.repeat(50)),
      /“bad” is nothing this program can read/,
    ],
    ['nothing', new Uint8Array(), /“bad”/],
  ])('that is %s is refused with a sentence', async (_, bytes, problem) => {
    await expect(openMedia(blobSource(new Blob([bytes])), 'bad')).rejects.toThrow(problem)
  })

  it('that is cut short is refused, or read as far as it goes', async () => {
    const clip = await makeClip({ width: 64, height: 48, times: steady(40, 30), colour: counted })
    for (const share of [0.02, 0.3, 0.6, 0.9]) {
      const cut = clip.slice(0, Math.floor(clip.length * share))
      await expect(open(cut, 'cut.mp4').then(m => describeTake(m, cut.length))).rejects.toThrow(/“cut\.mp4”/)
    }
  })
})

it('hears a take at 48 kHz in step, whatever its rate', async () => {
  const rate = 44_100
  const samples = new Float32Array(rate)
  // A click in the middle of silence.
  for (let i = 0; i < 200; i++) samples[rate / 2 + i] = Math.sin(i / 3)
  const clip = await makeClip({
    width: 64,
    height: 48,
    times: steady(25, 25),
    colour: counted,
    format: 'mkv',
    sound: { rate, samples },
  })
  const sounds = soundStore()
  sounds.add('x', await open(clip))
  const [left, right] = await sounds.read('x', -1000, 50_000)
  const first = left.findIndex(v => Math.abs(v) > 0.2)
  expect(Math.abs(first - 25_000)).toBeLessThan(48)
  expect(right[first]).toBe(left[first])
  expect(left.subarray(0, 24_000).every(v => Math.abs(v) < 0.01)).toBe(true)
  // Asked in other pieces, the same.
  const [again] = await sounds.read('x', 23_900, 300)
  expect(again.subarray(0, 300)).toEqual(left.subarray(24_900, 25_200))
})

describe('what is brought in', () => {
  it('may be sound alone', async () => {
    const target = new BufferTarget()
    const output = new Output({ format: new WavOutputFormat(), target })
    const audio = new AudioSampleSource({ codec: 'pcm-s16' })
    output.addAudioTrack(audio)
    await output.start()
    const data = Float32Array.from({ length: 8000 }, (_, i) => Math.sin(i / 5) * 0.5)
    const sample = new AudioSample({ data, format: 'f32', numberOfChannels: 1, sampleRate: 8000, timestamp: 0 })
    await audio.add(sample)
    sample.close()
    await output.finalize()
    const bytes = new Uint8Array(target.buffer!)
    const media = await open(bytes, 'song.wav')
    expect(await describeTake(media, bytes.length)).toMatchObject({
      picture: null,
      sound: { channels: 1, sampleRate: 8000, seconds: 1 },
    })
    const store = frameStore(k, 1 << 20)
    store.add('song', media)
    expect(store.has('song')).toBe(false)
  })

  it.each([
    ['PNG', 'image/png'],
    ['JPEG', 'image/jpeg'],
    ['WebP', 'image/webp'],
    ['AVIF', 'image/avif'],
  ] as const)('may be a still as %s, at every moment the same', async (_, type) => {
    const canvas = createCanvas(40, 20)
    const c = canvas.getContext('2d')
    c.fillStyle = '#c08040'
    c.fillRect(0, 0, 40, 20)
    const file = canvas.toBuffer(type as 'image/png')
    const bytes = new Uint8Array(file.buffer as ArrayBuffer, file.byteOffset, file.length)
    const media = await open(bytes, 'still')
    expect(await describeTake(media, bytes.length)).toMatchObject({
      type,
      picture: { kind: 'still', size: { width: 40, height: 20 } },
      sound: null,
    })
    const store = frameStore(k, 1 << 20)
    store.add('still', media)
    const first = await store.get('still', 0)
    expect(await store.get('still', 99)).toBe(first)
    const [r, g, b] = k.bytes(first.ptr, 4)
    for (const [got, want] of [
      [r, 0xc0],
      [g, 0x80],
      [b, 0x40],
    ])
      expect(Math.abs(got! - want!)).toBeLessThanOrEqual(type === 'image/png' ? 0 : 6)
  })

  it('may have frames of different lengths, and says so', async () => {
    const times = [0, 0.04, 0.08, 0.2, 0.24, 0.4, 0.44, 0.48]
    const clip = await makeClip({ width: 64, height: 48, times, colour: counted })
    const take = await describeTake(await open(clip), clip.length)
    expect(take.picture).toMatchObject({ varies: true })
    const even = await makeClip({ width: 64, height: 48, times: steady(9, 24000 / 1001), colour: counted })
    expect((await describeTake(await open(even), even.length)).picture).toMatchObject({
      varies: false,
      rate: { num: 24000, den: 1001 },
    })
  })
})

describe('a file that is no take', () => {
  it('for want of a decoder names the codec and a way out', async () => {
    const clip = await makeClip({ width: 64, height: 48, times: steady(3, 25), colour: counted })
    // The sample entry's four letters are changed into ones that nobody decodes.
    const at = Buffer.from(clip).indexOf('avc1', Buffer.from(clip).indexOf('stsd'))
    const strange = clip.slice()
    strange.set(new TextEncoder().encode('zzz9'), at)
    await expect(open(strange, 'odd.mp4')).rejects.toThrow(
      /“odd\.mp4” (is coded as .* Convert it|has no picture|cannot be read)/,
    )
  })

  it('for want of frames says so', async () => {
    const target = new BufferTarget()
    const output = new Output({ format: new MkvOutputFormat(), target })
    const video = new VideoSampleSource({ codec: 'vp9', quality: new Quality({ bitrate: 96_000 }) })
    output.addVideoTrack(video)
    await output.start()
    await output.finalize().catch(() => {})
    const bytes = new Uint8Array(target.buffer ?? new ArrayBuffer(0))
    const tried = open(bytes, 'hollow.mkv').then(m => describeTake(m, bytes.length))
    await expect(tried).rejects.toThrow(/“hollow\.mkv”/)
  })
})
