// Font files -> fonts as they are read: plain tables, whatever they were packed in.
import { unzlibSync } from 'fflate'
import { LIMITS } from '../core/shot'
import { MediaProblem } from './problem'

const text = (head: Uint8Array, from: number, to: number): string => String.fromCharCode(...head.subarray(from, to))

const KINDS: Readonly<Record<string, string>> = {
  wOF2: 'font/woff2',
  wOFF: 'font/woff',
  OTTO: 'font/otf',
  true: 'font/ttf',
  ttcf: 'font/collection',
  '\0\x01\0\0': 'font/ttf',
}

/** The media type of a font by its first four bytes, or null if they are those of something else. */
export const fontType = (head: Uint8Array): string | null => KINDS[text(head, 0, 4)] ?? null

const TABLE = 16
const PACKED_TABLE = 20
const HEAD = 12
const PACKED_HEAD = 44

/** Unpacks WOFF (W3C, WOFF File Format 1.0): tables that are deflated one by one. */
function unpackWoff(bytes: Uint8Array): Uint8Array {
  const from = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const count = from.getUint16(12)
  const tables = Array.from({ length: count }, (_, i) => {
    const at = PACKED_HEAD + i * PACKED_TABLE
    const [offset, packed, length] = [from.getUint32(at + 4), from.getUint32(at + 8), from.getUint32(at + 12)]
    if (offset + packed > bytes.length || packed > length) throw new Error('its tables lie beyond its end')
    return { entry: at, offset, packed, length }
  })
  const padded = (n: number) => (n + 3) & ~3
  const size = tables.reduce((sum, { length }) => sum + padded(length), HEAD + count * TABLE)
  if (size > LIMITS.font) throw new Error('it is too large')
  const out = new Uint8Array(size)
  const to = new DataView(out.buffer)
  to.setUint32(0, from.getUint32(4))
  to.setUint16(4, count)
  const largest = 2 ** Math.floor(Math.log2(Math.max(1, count))) * TABLE
  to.setUint16(6, largest)
  to.setUint16(8, Math.log2(largest / TABLE))
  to.setUint16(10, count * TABLE - largest)
  let end = HEAD + count * TABLE
  tables.forEach(({ entry, offset, packed, length }, i) => {
    const at = HEAD + i * TABLE
    to.setUint32(at, from.getUint32(entry))
    to.setUint32(at + 4, from.getUint32(entry + 16))
    to.setUint32(at + 8, end)
    to.setUint32(at + 12, length)
    const own = bytes.subarray(offset, offset + packed)
    const plain = packed < length ? unzlibSync(own, { out: new Uint8Array(length) }) : own
    if (plain.length !== length) throw new Error('a table is of another length')
    out.set(plain, end)
    end += padded(length)
  })
  return out
}

/** A font's tables as they lie in TTF and OTF. Throws MediaProblem. */
export async function plainFont(bytes: Uint8Array, type: string, name: string): Promise<Uint8Array> {
  try {
    if (type === 'font/woff') return unpackWoff(bytes)
    return type === 'font/woff2' ? await (await import('./woff2')).unpackWoff2(bytes) : bytes
  } catch (error) {
    const reason = error instanceof Error && !(error instanceof RangeError) ? ` (${error.message})` : ''
    throw new MediaProblem(`“${name}” is damaged, or no font${reason}.`)
  }
}
