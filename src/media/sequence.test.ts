// Numbered stills as a take: written, described, read frame by frame, and packed into a project file and out again.
import { createCanvas } from '@napi-rs/canvas'
import fc from 'fast-check'
import { encode } from 'fast-png'
import { zipSync } from 'fflate'
import { expect, it } from 'vitest'
import { readProjectFile, writeProjectFile } from '../core/exchange'
import { makeProject } from '../core/shot'
import { testKernels } from '../testing/kernels'
import { digestOf } from './digest'
import { frameStore } from './frames'
import { blobSource, describeTake, openMedia } from './open'
import { isSequence, openSequence, sortNumbered, writeSequence } from './sequence'
import { stillSize } from './still-size'

const COUNT = 7
const still = (i: number) => ({
  name: `shot.${String(i + 1).padStart(4, '0')}.png`,
  bytes: async () => encode({ width: 6, height: 4, channels: 4, data: new Uint8Array(96).fill(20 + i * 30) }),
})

async function written(): Promise<Blob> {
  const parts: BlobPart[] = []
  const shares: number[] = []
  await writeSequence(
    Array.from({ length: COUNT }, (_, i) => still(i)),
    { num: 24, den: 1 },
    chunk => void parts.push(chunk as Uint8Array<ArrayBuffer>),
    share => shares.push(share),
  )
  expect(shares.at(-1)).toBe(1)
  return new Blob(parts)
}

it('is a film of its rate, each frame its own still, alpha and all', async () => {
  const blob = await written()
  const media = await openMedia(blobSource(blob), 'shot.#.png')
  expect(await describeTake(media, blob.size)).toMatchObject({
    type: 'application/zip',
    picture: {
      kind: 'film',
      size: { width: 6, height: 4 },
      rate: { num: 24, den: 1 },
      seconds: COUNT / 24,
      varies: false,
    },
    sound: null,
  })
  const k = await testKernels(8 << 20)
  const store = frameStore(k, 1 << 20)
  store.add('s', media)
  for (const [seconds, frame] of [
    [0, 0],
    [0.5 / 24, 0],
    [1 / 24, 1],
    [3.9 / 24, 3],
    [6 / 24, 6],
    [9, 6],
    [-1, 0],
  ] as const) {
    const picture = await store.get('s', seconds)
    expect([...k.bytes(picture.ptr, 4)]).toEqual(new Array(4).fill(20 + frame * 30))
    store.release(picture)
  }
  await store.close()
})

it('is of one size: another is refused when it comes in, and named where it turns up later', async () => {
  const picture = (width: number, format: 'png' | 'jpeg') => {
    const canvas = createCanvas(width, 40)
    return new Uint8Array(format === 'png' ? canvas.encodeSync('png') : canvas.encodeSync('jpeg', 80))
  }
  for (const format of ['png', 'jpeg'] as const) {
    expect(stillSize(picture(64, format))).toEqual({ width: 64, height: 40 })
    const files = [64, 64, 63].map((width, i) => ({
      name: `a${i}.${format}`,
      bytes: async () => picture(width, format),
    }))
    const run = writeSequence(files, { num: 24, den: 1 }, () => {})
    await expect(run).rejects.toThrow(`“a2.${format}” is 63×40, the first of these stills 64×40`)
  }
  const page = new TextEncoder().encode('{"kind":"numbered stills","rate":{"num":24,"den":1}}')
  const stills = { '1.png': picture(64, 'png'), '2.png': picture(32, 'png') }
  const bytes = zipSync({ 'stills.json': page, ...stills }, { level: 0 })
  const media = await openSequence(async (from, to) => bytes.slice(from, to), bytes.length, 'x')
  await expect(media.decode(1)).rejects.toThrow('“2.png” is 32×40')
  expect(await media.decode(0)).toMatchObject({ width: 64 })
})

it('travels in a project file', async () => {
  const blob = await written()
  const bytes = new Uint8Array(await blob.arrayBuffer())
  const media = await openMedia(blobSource(blob), 'shot.#.png')
  const take = { ...(await describeTake(media, blob.size)), digest: await digestOf(blob) }
  const project = makeProject([take], 'Stills')
  const parts: Uint8Array[] = []
  const once = async function* () {
    yield bytes
  }
  await writeProjectFile(
    project,
    async () => once(),
    chunk => void parts.push(chunk),
  )
  const file = Buffer.concat(parts)
  const got: Uint8Array[] = []
  const read = await readProjectFile(
    async (from, to) => file.subarray(from, to),
    file.length,
    (_, chunk) => void got.push(chunk.slice()),
  )
  expect(read).toMatchObject({ ok: true })
  expect(Buffer.concat(got).equals(Buffer.from(bytes))).toBe(true)
})

it('refuses whatever is damaged with a sentence', async () => {
  const whole = new Uint8Array(await (await written()).arrayBuffer())
  await fc.assert(
    fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), fc.boolean(), async (at, value, isCut) => {
      const data = isCut ? whole.slice(0, at) : whole.slice()
      if (!isCut) data[at] = value
      if (!isSequence(data.subarray(0, 64))) return
      try {
        const media = await openSequence(async (from, to) => data.slice(from, to), data.length, 'x')
        for (let i = 0; i < 9; i++) await media.decode(i)
      } catch (error) {
        expect((error as Error).name).toBe('MediaProblem')
        expect((error as Error).message).toMatch(/“/)
      }
    }),
  )
})

it('sorts numbered stills out of what was chosen, in their order', () => {
  const names = [
    'b.10.png',
    'b.9.png',
    'b.0008.PNG',
    'film.mp4',
    'a1.jpg',
    'a2.jpg',
    'photo.png',
    'c_1.webp',
    'c_2.webp',
    'c_03.webp',
  ]
  const { sequences, single } = sortNumbered(names.map(name => ({ name })))
  expect(sequences.map(s => [s.name, s.files.map(f => f.name)])).toEqual([
    ['b.#.png', ['b.0008.PNG', 'b.9.png', 'b.10.png']],
    ['c_#.webp', ['c_1.webp', 'c_2.webp', 'c_03.webp']],
  ])
  expect(single.map(f => f.name)).toEqual(['film.mp4', 'a1.jpg', 'a2.jpg', 'photo.png'])
})
