// Still pictures: PNG is read by the same code everywhere; the other kinds by what the environment has.
import { type DecodedPng, decode, hasPngSignature } from 'fast-png'
import type { Size } from '../core/shot'
import { MediaProblem } from './problem'

/** Straight RGBA8, rows close together. */
export interface StillPixels extends Size {
  data: Uint8Array | Uint8ClampedArray
}

export type DecodeStill = (bytes: Uint8Array<ArrayBuffer>, type: string) => Promise<StillPixels>

let decodeOther: DecodeStill | null = null

/** Tells how JPEG, WebP and AVIF are decoded here. */
export function setStillDecoder(decoder: DecodeStill): void {
  decodeOther = decoder
}

const text = (head: Uint8Array, from: number, to: number): string => String.fromCharCode(...head.subarray(from, to))

/** The media type of a still picture by its first bytes (at least 12), or null if they are those of something else. */
export function stillType(head: Uint8Array): string | null {
  if (head.length >= 8 && hasPngSignature(head.slice(0, 8))) return 'image/png'
  if (head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff) return 'image/jpeg'
  if (text(head, 0, 4) === 'RIFF' && text(head, 8, 12) === 'WEBP') return 'image/webp'
  if (text(head, 4, 8) === 'ftyp' && ['avif', 'avis'].includes(text(head, 8, 12))) return 'image/avif'
  return null
}

/** Samples of one to sixteen bits as they stand in the rows, each row beginning on a byte. */
function samplesOf({ width, height, data, channels, depth }: DecodedPng): (y: number, i: number) => number {
  const across = width * channels
  if (depth >= 8) return (y, i) => data[y * across + i]!
  const stride = Math.ceil((across * depth) / 8)
  if (data.length < stride * height) throw new Error('its rows are too short')
  const mask = (1 << depth) - 1
  return (y, i) => (data[y * stride + ((i * depth) >> 3)]! >> (8 - depth - ((i * depth) & 7))) & mask
}

/** Most pictures: bytes, with nothing looked up. */
function fromBytes({ width, height, data, channels }: DecodedPng, out: Uint8Array): void {
  const [g, b] = channels < 3 ? [0, 0] : [1, 2]
  for (let i = 0, o = 0; o < width * height * 4; i += channels, o += 4) {
    out[o] = data[i]!
    out[o + 1] = data[i + g]!
    out[o + 2] = data[i + b]!
    out[o + 3] = channels % 2 === 0 ? data[i + channels - 1]! : 255
  }
}

function fromPng(bytes: Uint8Array): StillPixels {
  const png = decode(bytes)
  const { width, height, channels, depth, palette, transparency } = png
  const out = new Uint8Array(width * height * 4)
  if (depth === 8 && !palette && !transparency?.length) {
    fromBytes(png, out)
    return { width, height, data: out }
  }
  const sample = samplesOf(png)
  const most = 2 ** depth - 1
  const code = (v: number) => (depth === 8 ? v : Math.round((v * 255) / most))
  const isGrey = channels < 3
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const o = (y * width + x) * 4
      const at = x * channels
      if (palette) {
        const colour = palette[sample(y, x)] ?? []
        for (let c = 0; c < 4; c++) out[o + c] = (colour as number[])[c] ?? (c === 3 ? 255 : 0)
        continue
      }
      const own = [0, 1, 2].map(c => sample(y, at + (isGrey ? 0 : c)))
      for (let c = 0; c < 3; c++) out[o + c] = code(own[c]!)
      // Without alpha of its own, one colour may be told to be transparent (PNG specification, tRNS).
      const clear = transparency && transparency.length > 0 && own.every((v, c) => v === transparency[isGrey ? 0 : c])
      out[o + 3] = channels % 2 === 0 ? code(sample(y, at + channels - 1)) : clear ? 0 : 255
    }
  }
  return { width, height, data: out }
}

/** Decodes a still picture. Throws MediaProblem. */
export async function decodeStill(bytes: Uint8Array<ArrayBuffer>, type: string, name: string): Promise<StillPixels> {
  try {
    if (type === 'image/png') return fromPng(bytes)
    if (!decodeOther) throw new Error('nothing here decodes it')
    return await decodeOther(bytes, type)
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    throw new MediaProblem(
      `“${name}” is a picture that cannot be read here (${reason}). Save it as PNG and bring it in again.`,
    )
  }
}
