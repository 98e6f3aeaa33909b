// Damaged and odd clips, made from the demo's own: cut, spoilt, with noise for a tail, with other heads.
import { readdirSync, readFileSync } from 'node:fs'
import { type Chance, chance } from './chance'

export interface Attack {
  name: string
  data: Uint8Array
}

type Damage = (data: Uint8Array, by: Chance) => Uint8Array

const spoilt = (data: Uint8Array, by: Chance, from: number, to: number, count: number): Uint8Array => {
  const out = data.slice()
  for (let i = 0; i < count; i++) out[from + by.below(Math.max(1, to - from))] = by.below(256)
  return out
}

const DAMAGES: Readonly<Record<string, Damage>> = {
  cut: (data, by) => data.slice(0, 1 + by.below(data.length)),
  'cut at its head': (data, by) => data.slice(0, 1 + by.below(2000)),
  'with a noisy tail': (data, by) => {
    const at = by.below(data.length)
    const out = data.slice()
    out.set(by.bytes(out.length - at), at)
    return out
  },
  'without its beginning': (data, by) => data.slice(1 + by.below(4000)),
  'spoilt at its head': (data, by) => spoilt(data, by, 0, 4096, 1 + by.below(30)),
  'spoilt at its end': (data, by) => spoilt(data, by, data.length - 8192, data.length, 1 + by.below(60)),
  'spoilt all over': (data, by) => spoilt(data, by, 0, data.length, 200),
  'with zeros in it': (data, by) => data.slice().fill(0, by.below(data.length), by.below(data.length)),
  'with huge lengths': (data, by) => {
    const out = data.slice()
    const view = new DataView(out.buffer, out.byteOffset)
    for (let i = 0; i < 6; i++) view.setUint32(by.below(Math.min(6000, out.length - 4)), 0xffff_fff0 + by.below(16))
    return out
  },
  'with a stretch twice': (data, by) => {
    const at = by.below(data.length)
    return Buffer.concat([data.subarray(0, at), data.subarray(Math.max(0, at - by.below(50_000)))])
  },
}

/** Files that are nothing but what their first bytes say. */
function heads(by: Chance): Attack[] {
  const begins: Record<string, number[]> = {
    'noise.mp4': [0, 0, 0, 24, 0x66, 0x74, 0x79, 0x70, 0x69, 0x73, 0x6f, 0x6d],
    'noise.webm': [0x1a, 0x45, 0xdf, 0xa3],
    'noise.png': [137, 80, 78, 71, 13, 10, 26, 10],
    'noise.jpg': [0xff, 0xd8, 0xff, 0xe0],
    'noise.webp': [0x52, 0x49, 0x46, 0x46, 1, 0, 0, 0, 0x57, 0x45, 0x42, 0x50],
    'noise.wav': [0x52, 0x49, 0x46, 0x46, 255, 255, 255, 255, 0x57, 0x41, 0x56, 0x45],
    'noise.mp3': [0xff, 0xfb, 0x90, 0x64],
    'noise.flac': [0x66, 0x4c, 0x61, 0x43],
    'noise.ogg': [0x4f, 0x67, 0x67, 0x53],
    'noise.zip': [0x50, 0x4b, 3, 4],
  }
  return Object.entries(begins).map(([name, head]) => ({
    name,
    data: Buffer.concat([Uint8Array.from(head), by.bytes(2000 + by.below(60_000))]),
  }))
}

/** `count` attacks that follow from a seed, made from real files of a folder. */
export function* clipAttacks(sources: readonly Attack[], seed: number, count: number): Generator<Attack> {
  const by = chance(seed)
  const odd = heads(by)
  for (let i = 0; i < count; i++) {
    if (i < odd.length) {
      yield odd[i]!
      continue
    }
    const source = by.one(sources)
    const how = Object.keys(DAMAGES)[i % Object.keys(DAMAGES).length]!
    const [, stem = '', tail = ''] = /^(.*)(\.\w+)$/.exec(source.name) ?? []
    yield { name: `${stem} ${i} ${how}${tail}`, data: DAMAGES[how]!(source.data, by) }
  }
}

/** The files of a folder whose names end like a clip's. */
export const filesOf = (folder: string): Attack[] =>
  readdirSync(folder)
    .filter(name => /\.(mp4|webm|mkv|mov|png|jpg|wav)$/.test(name))
    .map(name => ({ name, data: readFileSync(`${folder}/${name}`) }))
