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
    'noise.ttf': [0, 1, 0, 0],
    'noise.otf': [0x4f, 0x54, 0x54, 0x4f],
    'noise.woff': [0x77, 0x4f, 0x46, 0x46],
    'noise.woff2': [0x77, 0x4f, 0x46, 0x32],
    'noise.svg': [0x3c, 0x73, 0x76, 0x67],
  }
  return Object.entries(begins).map(([name, head]) => ({
    name,
    data: Buffer.concat([Uint8Array.from(head), by.bytes(2000 + by.below(60_000))]),
  }))
}

const svg = (inside: string, head = 'viewBox="0 0 60 40"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${inside}</svg>`

const BOMB = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${'bcdefghi'
  .split('')
  .map((name, i) => `<!ENTITY ${name} "${`&${'abcdefgh'[i]};`.repeat(10)}">`)
  .join('')}]>`

/** Drawings that are well-formed, and meant badly. */
const HOSTILE_DRAWINGS: Readonly<Record<string, string>> = {
  'an entity bomb': BOMB + svg('<text>&i;</text>'),
  'an outside entity': `<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<text>&x;</text>')}`,
  'a script': svg('<script>while (true) {}</script><rect width="9" height="9" onload="alert(1)"/>'),
  'outside references': svg(
    '<image href="http://127.0.0.1:9/x.png" width="60" height="40"/><use href="file:///etc/x#y"/>',
  ),
  'no size': svg('<rect width="9" height="9"/>', ''),
  'a huge size': svg('<rect width="100%" height="100%"/>', 'width="1e9" height="1e9"'),
  'a size below nothing': svg('<rect width="9" height="9"/>', 'width="-4" height="0"'),
  'deep groups': svg(`${'<g transform="scale(1.01)">'.repeat(20_000)}${'</g>'.repeat(20_000)}`),
  'a circle of uses': svg('<g id="a"><use xlink:href="#b"/></g><g id="b"><use xlink:href="#a"/></g>'),
  'uses of uses': svg(
    Array.from({ length: 20 }, (_, i) => `<g id="u${i + 1}">${`<use xlink:href="#u${i}"/>`.repeat(10)}</g>`).join('') +
      '<rect id="u0" width="1" height="1"/>',
  ),
  'a vast blur': svg(
    '<filter id="f"><feGaussianBlur stdDeviation="1e6"/></filter><rect width="60" height="40" filter="url(#f)"/>',
  ),
}

const hostileDrawings = (): Attack[] =>
  Object.entries(HOSTILE_DRAWINGS).map(([what, text]) => ({ name: `${what}.svg`, data: Buffer.from(text) }))

/** `count` attacks that follow from a seed, made from real files of a folder. */
export function* clipAttacks(sources: readonly Attack[], seed: number, count: number): Generator<Attack> {
  const by = chance(seed)
  const odd = [...hostileDrawings(), ...heads(by)]
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

/** The files of a folder whose names end like a clip's or a font's. */
export const filesOf = (folder: string): Attack[] =>
  readdirSync(folder)
    .filter(name => /\.(mp4|webm|mkv|mov|png|jpg|wav|ttf)$/.test(name))
    .map(name => ({ name, data: readFileSync(`${folder}/${name}`) }))
