// Grain against a plain twin.
import { expect, it } from 'vitest'
import { noise, putBytes, putFloats, testKernels } from '../../testing/kernels'

const SIDE = 512

function mixed(v: number): number {
  let m = Math.imul(v ^ (v >>> 16), 0x7feb352d)
  m = Math.imul(m ^ (m >>> 15), 0x846ca68b)
  return (m ^ (m >>> 16)) >>> 0
}

it('grainRow agrees with its plain twin, over the seam of its tile, and leaves alpha alone', async () => {
  const k = await testKernels()
  const n = 700
  const codes = noise(n * 4, 256, 7)
  const tile = Float32Array.from(noise(SIDE * SIDE, 2001, 8), v => (v - 1000) / 400)
  const table = Float32Array.from({ length: 256 }, (_, code) => 12 - code / 40)
  const [ptr, tiles, amounts] = [putBytes(k, codes), putFloats(k, tile), putFloats(k, table)]
  const [x, y, seed, same, own] = [301, 1500, 4_000_000_123, 0.8, 0.6] as const
  k.grainRow(ptr, n, x, y, tiles, amounts, seed, same, own)
  const at = (px: number, channel: number) => {
    const place = mixed((seed * 4 + channel) >>> 0)
    return tile[((y + (place >>> 9)) % SIDE) * SIDE + ((px + place) % SIDE)]!
  }
  const made = k.bytes(ptr, n * 4)
  for (let i = 0; i < n * 4; i++) {
    const px = x + (i >> 2)
    const want =
      i % 4 === 3 ? codes[i]! : codes[i]! + Math.fround(same * at(px, 3) + own * at(px, i % 4)) * table[codes[i]!]!
    expect(Math.abs(made[i]! - Math.max(0, Math.min(255, want)))).toBeLessThan(0.501)
  }
})
