// Numbered stills as one take: a zip of the stills as they are, none packed, behind a page that tells their rate. Frames are
// read one by one, wherever they lie.

import type { Size } from '../core/shot'
import type { Rate } from '../core/time'
import { entryChunks, type Read, sumOf, type ZipEntry, zipEntries, zipWriter } from '../core/zip'
import { MediaProblem } from './problem'
import { decodeStill, type StillPixels, stillType } from './still'
import { stillSize } from './still-size'

const PAGE = 'stills.json'
const KIND = 'numbered stills'
/** Bytes of the page at most, and frames. */
const PAGE_BYTES = 4 * 2 ** 20
const STILL_BYTES = 256 * 2 ** 20
const MOST = 60_000
/** What a zip without extensions can hold. */
const ZIP_BYTES = 0xf000_0000

export interface OpenSequence {
  kind: 'sequence'
  name: string
  type: string
  rate: Rate
  count: number
  decode(index: number): Promise<StillPixels>
  close(): void
}

const u32 = (b: Uint8Array, at: number): number => new DataView(b.buffer, b.byteOffset).getUint32(at, true)

/** Whether a file's first bytes (64 are enough) are those of numbered stills. */
export const isSequence = (head: Uint8Array): boolean =>
  head.length >= 64 &&
  u32(head, 0) === 0x04034b50 &&
  new TextDecoder().decode(head.subarray(30, 30 + PAGE.length)) === PAGE

async function whole(read: Read, entry: ZipEntry): Promise<Uint8Array<ArrayBuffer>> {
  const data = new Uint8Array(entry.size)
  let at = 0
  for await (const chunk of entryChunks(read, entry)) {
    data.set(chunk, at)
    at += chunk.length
  }
  return data
}

const isSame = (a: Size, b: Size): boolean => a.width === b.width && a.height === b.height

const otherSize = (name: string, { width, height }: Size, first: Size): string =>
  `“${name}” is ${width}×${height}, the first of these stills ${first.width}×${first.height}: one take has one size.`

/** Opens numbered stills of some bytes. Throws MediaProblem. */
export async function openSequence(read: Read, bytes: number, name: string): Promise<OpenSequence> {
  try {
    const [page, ...stills] = await zipEntries(read, bytes, MOST + 1)
    if (page?.name !== PAGE || page.size > PAGE_BYTES) throw new Error('it does not tell its rate')
    const described = JSON.parse(new TextDecoder().decode(await whole(read, page)))
    const { num, den } = described.rate ?? {}
    const isRate = [num, den].every(v => Number.isInteger(v) && v > 0 && v <= 1_000_000)
    if (described.kind !== KIND || !isRate || stills.length === 0) throw new Error('it does not tell its rate')
    const decode = async (still: ZipEntry): Promise<StillPixels> => {
      if (still.size > STILL_BYTES)
        throw new MediaProblem(`“${still.name}” is larger than a still picture can be here.`)
      const data = await whole(read, still).catch(error => {
        throw new MediaProblem(
          `“${still.name}” of “${name}” cannot be read. ${error instanceof Error ? error.message : error}`,
        )
      })
      const type = stillType(data.subarray(0, 32))
      if (!type) throw new MediaProblem(`“${still.name}” is no picture.`)
      return decodeStill(data, type, still.name)
    }
    let size: Size | null = null
    return {
      kind: 'sequence',
      name,
      type: 'application/zip',
      rate: { num, den },
      count: stills.length,
      async decode(index) {
        const still = stills[Math.max(0, Math.min(stills.length - 1, index))]!
        const picture = await decode(still)
        if (!size) {
          const { width, height } = still === stills[0] ? picture : await decode(stills[0]!)
          size = { width, height }
        }
        if (!isSame(size, picture)) throw new MediaProblem(otherSize(still.name, picture, size))
        return picture
      },
      close() {},
    }
  } catch (error) {
    if (error instanceof MediaProblem) throw error
    throw new MediaProblem(
      `“${name}” are no numbered stills that can be read (${error instanceof Error ? error.message : error}).`,
    )
  }
}

/** Files that are chosen together and numbered alike: their common name, and they in order. */
export interface Numbered<F> {
  name: string
  files: F[]
}

const NUMBERED = /^(.*?)(\d+)(\.(?:png|jpe?g|webp|avif))$/i
/** Fewer are just stills. */
const LEAST = 3

/** Sorts numbered stills out of chosen files; the rest are single. */
export function sortNumbered<F extends { name: string }>(
  files: readonly F[],
): { sequences: Numbered<F>[]; single: F[] } {
  const groups = new Map<string, { number: number; file: F }[]>()
  for (const file of files) {
    const [, stem, digits, tail] = NUMBERED.exec(file.name) ?? []
    if (digits === undefined) continue
    const key = `${stem || 'stills '}#${tail!.toLowerCase()}`
    groups.set(key, [...(groups.get(key) ?? []), { number: Number(digits), file }])
  }
  const sequences = [...groups]
    .filter(([, group]) => group.length >= LEAST && group.length <= MOST)
    .map(([name, group]) => ({ name, files: group.sort((a, b) => a.number - b.number).map(g => g.file) }))
  const taken = new Set(sequences.flatMap(s => s.files))
  return { sequences, single: files.filter(f => !taken.has(f)) }
}

/** Writes numbered stills as one file to `out`, which is waited for. Throws MediaProblem where they are of several sizes. */
export async function writeSequence(
  files: readonly { name: string; bytes(): Promise<Uint8Array> }[],
  rate: Rate,
  out: (chunk: Uint8Array) => void | Promise<void>,
  onProgress?: (share: number) => void,
): Promise<void> {
  let written = 0
  const zip = zipWriter(chunk => {
    written += chunk.length
    if (written > ZIP_BYTES) {
      throw new MediaProblem('These stills are larger than 4 GB together, more than one take of stills can be.')
    }
    return out(chunk)
  })
  const put = async (name: string, data: Uint8Array) => {
    const sum = await sumOf(pieces(data))
    await zip.add({ name, method: 0, ...sum, packed: sum.size }, pieces(data))
  }
  await put(PAGE, new TextEncoder().encode(JSON.stringify({ kind: KIND, rate })))
  let first: Size | null = null
  for (const [i, file] of files.entries()) {
    const data = await file.bytes()
    const size = stillSize(data)
    if (i === 0) first = size
    if (first && size && !isSame(first, size)) throw new MediaProblem(otherSize(file.name, size, first))
    await put(file.name, data)
    onProgress?.((i + 1) / files.length)
  }
  await zip.end()
}

async function* pieces(data: Uint8Array): AsyncGenerator<Uint8Array> {
  yield data
}
