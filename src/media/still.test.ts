// PNGs of every depth and kind, written here byte by byte.
import { crc32, deflateSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { decodeStill } from './still'

type Kind = 'grey' | 'rgb' | 'indexed' | 'grey-alpha' | 'rgba'
const TYPES = { grey: [0, 1], rgb: [2, 3], indexed: [3, 1], 'grey-alpha': [4, 2], rgba: [6, 4] } as const

function chunk(name: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), data])
  const out = Buffer.alloc(body.length + 8)
  out.writeUInt32BE(data.length, 0)
  body.copy(out, 4)
  out.writeUInt32BE(crc(body), body.length + 4)
  return out
}

function crc(data: Uint8Array): number {
  if (typeof crc32 === 'function') return crc32(data)
  let c = ~0
  for (const byte of data) {
    c ^= byte
    for (let k = 0; k < 8; k++) c = (c >>> 1) ^ (c & 1 ? 0xedb88320 : 0)
  }
  return ~c >>> 0
}

/** A PNG of samples, row by row, each row packed from its first bit on. */
function png(kind: Kind, depth: number, width: number, rows: number[][], more: Buffer[] = []): Uint8Array<ArrayBuffer> {
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(rows.length, 4)
  head.set([depth, TYPES[kind][0]], 8)
  const raw = rows.flatMap(row => {
    const bits = row.map(v => v.toString(2).padStart(depth, '0')).join('')
    return [0, ...(bits.match(/.{1,8}/g) ?? []).map(b => Number.parseInt(b.padEnd(8, '0'), 2))]
  })
  return Uint8Array.from(
    Buffer.concat([
      Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
      chunk('IHDR', head),
      ...more,
      chunk('IDAT', deflateSync(Uint8Array.from(raw))),
      chunk('IEND', Buffer.alloc(0)),
    ]),
  )
}

const WIDTH = 7
const HEIGHT = 3
const samples = (depth: number, channels: number) =>
  Array.from({ length: HEIGHT }, (_, y) =>
    Array.from({ length: WIDTH * channels }, (_, i) => (i * 37 + y * 11 + (i % 3) * 5) % 2 ** Math.min(depth, 16)),
  )
const read = async (bytes: Uint8Array<ArrayBuffer>) => {
  const { width, height, data } = await decodeStill(bytes, 'image/png', 'x.png')
  expect([width, height]).toEqual([WIDTH, HEIGHT])
  return Array.from({ length: width * height }, (_, i) => [...data.subarray(i * 4, i * 4 + 4)])
}

describe('a PNG', () => {
  it.each<[Kind, number]>([
    ...[1, 2, 4, 8, 16].map((d): [Kind, number] => ['grey', d]),
    ...[8, 16].flatMap((d): [Kind, number][] => [
      ['rgb', d],
      ['rgba', d],
      ['grey-alpha', d],
    ]),
  ])('%s of %d bits is read as it is', async (kind, depth) => {
    const channels = TYPES[kind][1]
    const rows = samples(depth, channels)
    const code = (v: number) => Math.round((v * 255) / (2 ** depth - 1))
    const want = rows.flatMap(row =>
      Array.from({ length: WIDTH }, (_, x) => {
        const own = row.slice(x * channels, (x + 1) * channels).map(code)
        const [a = 0, b = a, c = a, d = 255] = own
        return channels < 3 ? [a, a, a, channels === 2 ? b : 255] : [a, b, c, d]
      }),
    )
    expect(await read(png(kind, depth, WIDTH, rows))).toEqual(want)
  })

  it.each([1, 2, 4, 8])('with a palette of %d bits', async depth => {
    const rows = samples(depth, 1)
    const palette = Array.from({ length: Math.min(256, 2 ** depth) }, (_, i) => [i, 255 - i, (i * 7) % 256])
    const clear = [128, 0]
    const more = [chunk('PLTE', Uint8Array.from(palette.flat())), chunk('tRNS', Uint8Array.from(clear))]
    const want = rows.flat().map(v => [...palette[v]!, clear[v] ?? 255])
    expect(await read(png('indexed', depth, WIDTH, rows, more))).toEqual(want)
  })

  it.each([1, 4, 16])('grey of %d bits with one grey that is transparent', async depth => {
    const rows = samples(depth, 1)
    const clear = rows[1]![2]!
    const got = await read(png('grey', depth, WIDTH, rows, [chunk('tRNS', Uint8Array.from([clear >> 8, clear & 255]))]))
    expect(got.map(p => p[3])).toEqual(rows.flat().map(v => (v === clear ? 0 : 255)))
  })

  it('that is cut is refused with a sentence', async () => {
    const whole = png('grey', 8, WIDTH, samples(8, 1))
    await expect(decodeStill(whole.slice(0, 45), 'image/png', 'x.png')).rejects.toThrow(
      /“x\.png” is a picture that cannot/,
    )
  })
})
