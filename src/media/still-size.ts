// How large a still picture is, by its head alone.
import type { Size } from '../core/shot'
import { stillType } from './still'

const u16 = (b: Uint8Array, at: number): number => (b[at]! << 8) | b[at + 1]!

/** Walks the segments of a JPEG up to the one that begins the frame (ISO/IEC 10918-1, B.2.2). */
function jpegSize(bytes: Uint8Array): Size | null {
  for (let at = 2; at + 9 < bytes.length && bytes[at] === 0xff; ) {
    const marker = bytes[at + 1]!
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)
    if (isFrame) return { height: u16(bytes, at + 5), width: u16(bytes, at + 7) }
    at += 2 + u16(bytes, at + 2)
  }
  return null
}

/** The size in px that a PNG or JPEG states, before any rotation it asks for; null of other pictures. */
export function stillSize(bytes: Uint8Array): Size | null {
  const type = stillType(bytes.subarray(0, 32))
  if (type === 'image/jpeg') return jpegSize(bytes)
  if (type !== 'image/png' || bytes.length < 24) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset)
  return { width: view.getUint32(16), height: view.getUint32(20) }
}
