// Zip files by their list of entries (APPNOTE 4.3). Not streamed from the front: there an entry may not tell its length, and is
// then cut off wherever its own bytes happen to look like the beginning of something else.
import { Inflate } from 'fflate'
import { createCRC32 } from 'hash-wasm'

/** Bytes [from, to) of a file. */
export type Read = (from: number, to: number) => Promise<Uint8Array>

/** What is wrong with a zip, as a sentence. */
export class ZipProblem extends Error {
  override name = 'ZipProblem'
}

export interface ZipEntry {
  name: string
  /** 0: as it is; 8: deflated. */
  method: 0 | 8
  crc: number
  /** Bytes in the file, and unpacked. */
  packed: number
  size: number
  /** Where its own head begins. */
  head: number
}

const LOCAL = 0x04034b50
const CENTRAL = 0x02014b50
const END = 0x06054b50
/** What a comment at the end may take, with the end itself. */
const TAIL = 65_557
const PIECE = 2 ** 20
/** Packed bytes that are unpacked at a time, so that what swells is stopped early. */
const MORSEL = 65_536

const damaged = (what: string): ZipProblem => new ZipProblem(`It is damaged: ${what}. Copy it again.`)

const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

/** Every entry of a zip of some bytes. Throws ZipProblem, also for more entries than `most`. */
export async function zipEntries(read: Read, bytes: number, most: number): Promise<ZipEntry[]> {
  if (bytes === 0) throw new ZipProblem('It is empty.')
  const begin = await read(0, Math.min(4, bytes))
  if (begin[0] !== 0x50 || begin[1] !== 0x4b) throw new ZipProblem('It is not a project file: a project file is a zip.')
  const tail = viewOf(await read(Math.max(0, bytes - TAIL), bytes))
  let end = tail.byteLength - 22
  while (end >= 0 && tail.getUint32(end, true) !== END) end--
  if (end < 0) throw new ZipProblem('It is cut short. Copy it again.')
  const count = tail.getUint16(end + 10, true)
  const size = tail.getUint32(end + 12, true)
  const from = tail.getUint32(end + 16, true)
  if (count > most) throw new ZipProblem('It holds more entries than any project has takes.')
  if (from + size > bytes) throw damaged('its list of entries is missing')
  const raw = await read(from, from + size)
  const list = viewOf(raw)
  const entries: ZipEntry[] = []
  let at = 0
  for (let i = 0; i < count; i++) {
    if (at + 46 > list.byteLength || list.getUint32(at, true) !== CENTRAL)
      throw damaged('its list of entries is broken')
    const method = list.getUint16(at + 10, true)
    const nameLength = list.getUint16(at + 28, true)
    const name = new TextDecoder().decode(raw.subarray(at + 46, at + 46 + nameLength))
    if (method !== 0 && method !== 8) throw damaged(`“${name.slice(0, 80)}” is packed in a way that is not known`)
    const [crc, packed, unpacked] = [16, 20, 24].map(o => list.getUint32(at + o, true)) as [number, number, number]
    entries.push({ name, method, crc, packed, size: unpacked, head: list.getUint32(at + 42, true) })
    at += 46 + nameLength + list.getUint16(at + 30, true) + list.getUint16(at + 32, true)
  }
  return entries
}

/** Where the bytes of an entry begin. */
async function bodyOf(read: Read, { head, name }: ZipEntry): Promise<number> {
  const own = await read(head, head + 30)
  if (own.length < 30 || viewOf(own).getUint32(0, true) !== LOCAL)
    throw damaged(`“${name.slice(0, 80)}” is not where it should be`)
  return head + 30 + viewOf(own).getUint16(26, true) + viewOf(own).getUint16(28, true)
}

async function* packedPieces(read: Read, entry: ZipEntry, piece: number): AsyncGenerator<Uint8Array> {
  const from = await bodyOf(read, entry)
  for (let done = 0; done < entry.packed; ) {
    const chunk = await read(from + done, from + Math.min(entry.packed, done + piece))
    if (chunk.length === 0) throw new ZipProblem('It is cut short. Copy it again.')
    done += chunk.length
    yield chunk
  }
}

async function* inflated(read: Read, entry: ZipEntry): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = []
  const inflate = new Inflate(chunk => void ready.push(chunk))
  for await (const chunk of packedPieces(read, entry, MORSEL)) {
    try {
      inflate.push(chunk)
    } catch {
      throw damaged(`“${entry.name.slice(0, 80)}” cannot be unpacked`)
    }
    yield* ready.splice(0)
  }
}

/** What an entry holds, piece by piece; held to the length and the sum that the list tells. Throws ZipProblem. */
export async function* entryChunks(read: Read, entry: ZipEntry): AsyncGenerator<Uint8Array> {
  const sum = await createCRC32()
  let size = 0
  const wrong = () => damaged(`“${entry.name.slice(0, 80)}” has another length than it says`)
  for await (const chunk of entry.method === 0 ? packedPieces(read, entry, PIECE) : inflated(read, entry)) {
    size += chunk.length
    if (size > entry.size) throw wrong()
    sum.update(chunk)
    yield chunk
  }
  if (size < entry.size) throw wrong()
  if (Number.parseInt(sum.digest('hex'), 16) !== entry.crc) throw damaged(`“${entry.name.slice(0, 80)}” was altered`)
}

/** The sum that a zip keeps of what an entry holds, and its length. */
export async function sumOf(chunks: AsyncIterable<Uint8Array>): Promise<{ crc: number; size: number }> {
  const sum = await createCRC32()
  let size = 0
  for await (const chunk of chunks) {
    sum.update(chunk)
    size += chunk.length
  }
  return { crc: Number.parseInt(sum.digest('hex'), 16), size }
}

/** Writes a zip entry by entry to `out`, which is waited for. Entries and list stay below 4 GB together. */
export function zipWriter(out: (chunk: Uint8Array) => void | Promise<void>) {
  const entries: ZipEntry[] = []
  let at = 0
  const put = async (chunk: Uint8Array) => {
    at += chunk.length
    await out(chunk)
  }
  /** The fields that an entry's own head and the list have in common, from byte `o` on. */
  const fields = (view: DataView, o: number, { method, crc, packed, size, name }: ZipEntry) => {
    view.setUint16(o, 20, true)
    // Names are UTF-8.
    view.setUint16(o + 2, 0x0800, true)
    view.setUint16(o + 4, method, true)
    // 1 January 1980: what is alike is written alike.
    view.setUint32(o + 6, 0x0021_0000, true)
    view.setUint32(o + 10, crc, true)
    view.setUint32(o + 14, packed, true)
    view.setUint32(o + 18, size, true)
    view.setUint16(o + 22, new TextEncoder().encode(name).length, true)
  }
  return {
    async add(
      described: Omit<ZipEntry, 'head'>,
      chunks: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
    ): Promise<void> {
      const entry = { ...described, head: at }
      entries.push(entry)
      const head = new DataView(new ArrayBuffer(30))
      head.setUint32(0, LOCAL, true)
      fields(head, 4, entry)
      await put(new Uint8Array(head.buffer))
      await put(new TextEncoder().encode(entry.name))
      for await (const chunk of chunks) await put(chunk)
    },
    async end(): Promise<void> {
      const from = at
      for (const entry of entries) {
        const head = new DataView(new ArrayBuffer(46))
        head.setUint32(0, CENTRAL, true)
        head.setUint16(4, 20, true)
        fields(head, 6, entry)
        head.setUint32(42, entry.head, true)
        await put(new Uint8Array(head.buffer))
        await put(new TextEncoder().encode(entry.name))
      }
      const tail = new DataView(new ArrayBuffer(22))
      tail.setUint32(0, END, true)
      tail.setUint16(8, entries.length, true)
      tail.setUint16(10, entries.length, true)
      tail.setUint32(12, at - from, true)
      tail.setUint32(16, from, true)
      await put(new Uint8Array(tail.buffer))
    },
  }
}
