// A picture as a PNG file (ISO/IEC 15948), the same bytes of colour in every environment.
import { createCRC32 } from 'hash-wasm'
import type { Codes, Kernels } from '../core/render'

export type Deflate = (data: Uint8Array<ArrayBuffer>) => Promise<Uint8Array>

/** The platform's own deflate in the zlib format (RFC 1950). */
const streamed: Deflate = async data => {
  const packed = new Blob([data]).stream().pipeThrough(new CompressionStream('deflate'))
  return new Uint8Array(await new Response(packed).arrayBuffer())
}

let deflate = streamed

/** Tells of a quicker deflate than the platform's stream. */
export function setDeflate(other: Deflate): void {
  deflate = other
}

/** A picture's rows as they go into a PNG, before they are packed. */
export interface PngRows {
  width: number
  height: number
  channels: 1 | 3 | 4
  data: Uint8Array<ArrayBuffer>
}

const UP = 2

/**
 * The rows of a picture, alpha left out where it is opaque, each as its difference to the row above: of the filters that
 * cost one pass the one that packs smallest, with grain and without. They lie in `room`, where that is as large. Throws OutOfMemory.
 */
export function pngRows(k: Kernels, { width, height, ptr, opaque }: Codes, room?: Uint8Array<ArrayBuffer>): PngRows {
  const channels = opaque ? 3 : 4
  const stride = 1 + width * channels
  const row = width * 4
  const rows = k.alloc(stride * height + 4)
  const nothing = k.alloc(row)
  try {
    k.bytes(nothing, row).fill(0)
    for (let y = 0; y < height; y++) {
      const at = rows + y * stride
      k.bytes(at, 1)[0] = UP
      k.upRow(ptr + y * row, y === 0 ? nothing : ptr + (y - 1) * row, at + 1, width, channels)
    }
    const length = stride * height
    const data = room?.length === length ? room : new Uint8Array(length)
    data.set(k.bytes(rows, length))
    return { width, height, channels, data }
  } finally {
    k.free(nothing)
    k.free(rows)
  }
}

/** The rows of a grey picture, rows close together, as they are: a matte is all one nearly everywhere, which packs as well. */
export function greyRows({ width, height }: { width: number; height: number }, grey: Uint8Array): PngRows {
  const data = new Uint8Array((width + 1) * height)
  for (let y = 0; y < height; y++) {
    data.set(grey.subarray(y * width, (y + 1) * width), y * (width + 1) + 1)
  }
  return { width, height, channels: 1, data }
}

const SIGNATURE = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)
const COLOUR_TYPE = { 1: 0, 3: 2, 4: 6 } as const

/** One for all: to make its table takes longer than to sum a picture up. */
const checksum = createCRC32()

interface Chunk {
  name: string
  body: Uint8Array
}

/** Bytes of a chunk besides its body: its length and name before, its sum behind. */
const FRAME = 12

/** Packs rows into a file. Many can be packed at once where the platform does it in threads of its own. */
export async function packPng({ width, height, channels, data }: PngRows): Promise<Uint8Array<ArrayBuffer>> {
  const head = new DataView(new ArrayBuffer(13))
  head.setUint32(0, width)
  head.setUint32(4, height)
  head.setUint8(8, 8)
  head.setUint8(9, COLOUR_TYPE[channels])
  const chunks: Chunk[] = [
    { name: 'IHDR', body: new Uint8Array(head.buffer) },
    { name: 'IDAT', body: await deflate(data) },
    { name: 'IEND', body: new Uint8Array() },
  ]
  const sum = await checksum
  const out = new Uint8Array(chunks.reduce((bytes, { body }) => bytes + FRAME + body.length, SIGNATURE.length))
  const view = new DataView(out.buffer)
  out.set(SIGNATURE)
  let at = SIGNATURE.length
  for (const { name, body } of chunks) {
    view.setUint32(at, body.length)
    for (let i = 0; i < 4; i++) out[at + 4 + i] = name.charCodeAt(i)
    out.set(body, at + 8)
    const end = at + 8 + body.length
    view.setUint32(
      end,
      Number.parseInt(
        sum
          .init()
          .update(out.subarray(at + 4, end))
          .digest('hex'),
        16,
      ),
    )
    at = end + 4
  }
  return out
}
