// Still pictures: PNG is read by the same code everywhere; the other kinds by what the environment has.
import { decode, hasPngSignature } from 'fast-png'
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

function fromPng(bytes: Uint8Array): StillPixels {
  const { width, height, data, channels, depth, palette } = decode(bytes)
  const out = new Uint8Array(width * height * 4)
  const at = depth === 16 ? (i: number) => Math.round(data[i]! / 257) : (i: number) => data[i]!
  for (let i = 0; i < width * height; i++) {
    const o = i * 4
    if (palette) {
      const colour = palette[data[i]!] ?? []
      for (let c = 0; c < 4; c++) out[o + c] = (colour as number[])[c] ?? (c === 3 ? 255 : 0)
      continue
    }
    const grey = channels < 3
    for (let c = 0; c < 3; c++) out[o + c] = at(i * channels + (grey ? 0 : c))
    out[o + 3] = channels % 2 === 0 ? at(i * channels + channels - 1) : 255
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
