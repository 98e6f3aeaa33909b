// A picture as a PNG file, the same bytes of colour in every environment.
import { encode } from 'fast-png'
import type { Codes, Kernels } from '../core/render'

export function pngOf(k: Kernels, picture: Codes): Uint8Array<ArrayBuffer> {
  const { width, height, ptr, opaque } = picture
  const rgba = k.bytes(ptr, width * height * 4)
  if (!opaque) return encode({ width, height, data: rgba.slice(), channels: 4 }) as Uint8Array<ArrayBuffer>
  const rgb = new Uint8Array(width * height * 3)
  for (let i = 0, o = 0; i < rgba.length; i += 4) {
    rgb[o++] = rgba[i]!
    rgb[o++] = rgba[i + 1]!
    rgb[o++] = rgba[i + 2]!
  }
  return encode({ width, height, data: rgb, channels: 3 }) as Uint8Array<ArrayBuffer>
}
