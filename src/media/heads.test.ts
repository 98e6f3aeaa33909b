// Heads of H.264 films: real ones, and ones written bit by bit.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { demoClip } from '../testing/clips'
import { h264Colours } from './h264-head'
import { vp9Colours } from './vp9-head'

/** A parameter set with the given numbers, as an avcC record. */
function head({ profile = 66, matrix, chroma }: { profile?: number; matrix?: number; chroma?: number }): Uint8Array {
  let text = ''
  const bits = (value: number, n: number) => {
    text += value.toString(2).padStart(n, '0')
  }
  const golomb = (value: number) => {
    const code = (value + 1).toString(2)
    text += code.padStart(code.length * 2 - 1, '0')
  }
  bits(profile, 8)
  bits(0, 16)
  golomb(0)
  if (profile === 100) {
    golomb(1)
    golomb(0)
    golomb(0)
    bits(0, 2)
  }
  for (const value of [0, 2, 1]) golomb(value)
  bits(0, 1)
  golomb(19)
  golomb(10)
  bits(0b110, 3)
  bits(1, 1)
  // Square pixels told as a ratio of their own, nothing about overscan.
  bits(1, 1)
  bits(255, 8)
  bits(1, 16)
  bits(1, 16)
  bits(0, 1)
  bits(matrix === undefined ? 0 : 1, 1)
  if (matrix !== undefined) {
    bits(0b101_0_1, 5)
    bits(1, 8)
    bits(1, 8)
    bits(matrix, 8)
  }
  bits(chroma === undefined ? 0 : 1, 1)
  if (chroma !== undefined) {
    golomb(chroma)
    golomb(chroma)
  }
  text += '1'
  const raw = text.match(/.{1,8}/g)!.map(byte => Number.parseInt(byte.padEnd(8, '0'), 2))
  const kept: number[] = [0x67]
  for (const byte of raw) {
    if (byte <= 3 && kept.at(-1) === 0 && kept.at(-2) === 0) kept.push(3)
    kept.push(byte)
  }
  return Uint8Array.from([1, profile, 0, 30, 0xff, 0xe1, kept.length >> 8, kept.length & 255, ...kept])
}

it.each([
  [
    { matrix: 7, chroma: 0 },
    { matrix: 7, fullRange: false, chroma: 0 },
  ],
  [
    { profile: 100, matrix: 1, chroma: 2 },
    { matrix: 1, fullRange: false, chroma: 2 },
  ],
  [{ chroma: 1 }, { matrix: null, fullRange: null, chroma: 1 }],
  [{ matrix: 2 }, { matrix: null, fullRange: false, chroma: null }],
  [{}, { matrix: null, fullRange: null, chroma: null }],
])('reads %j', (said, want) => expect(h264Colours(head(said))).toEqual(want))

it.each([
  ['0b10_0_0_0_0_1_0', 2, false, { matrix: 1, fullRange: false }],
  ['0b10_0_0_0_0_1_0', 1, true, { matrix: 6, fullRange: true }],
  ['0b10_0_0_0_0_1_0', 0, true, { matrix: null, fullRange: null }],
  ['0b10_0_0_0_1_1_0', 2, true, { matrix: null, fullRange: null }],
])('reads a VP9 head %s with colour space %d', (begin, space, full, want) => {
  const text = `${begin.replace(/^0b|_/g, '')}010010011000001101000010${space.toString(2).padStart(3, '0')}${full ? 1 : 0}0000`
  const bytes = text.match(/.{1,8}/g)!.map(b => Number.parseInt(b.padEnd(8, '0'), 2))
  expect(vp9Colours(Uint8Array.from(bytes))).toEqual(want)
  expect(vp9Colours(Uint8Array.from(bytes).subarray(0, 2))).toEqual({ matrix: null, fullRange: null })
})

it('says nothing of what is damaged, and reads a real one', async () => {
  fc.assert(fc.property(fc.uint8Array({ maxLength: 60 }), bytes => void h264Colours(bytes)))
  expect(h264Colours(head({ chroma: 1 }).subarray(0, 14))).toEqual({ matrix: null, fullRange: null, chroma: null })
  const { video } = await demoClip('empty-shop')
  const config = await video!.getDecoderConfig()
  expect(h264Colours(new Uint8Array(config!.description as Uint8Array))).toEqual({
    matrix: null,
    fullRange: null,
    chroma: null,
  })
})
