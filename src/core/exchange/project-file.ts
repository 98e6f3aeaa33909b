// A project as one file: a zip of `project.json` and the media it uses. docs/project-file.md describes it.
import { Unzip, UnzipInflate, Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { createSHA256, type IHasher } from 'hash-wasm'
import { type Checked, LIMITS, type Project, parseProject, type Take, usedTakes } from '../shot'

type Chunks = AsyncIterable<Uint8Array>

const DOCUMENT = 'project.json'

/** Four gigabytes: what a zip without extensions can hold. */
const ZIP_LIMIT = 0xffff_ffff - 64 * 1024 * 1024

const extension = (take: Take): string => /\.([a-z0-9]{1,5})$/i.exec(take.name)?.[1]?.toLowerCase() ?? 'bin'

export const mediaEntry = (take: Take): string => `media/${take.digest}.${extension(take)}`

/** The project with only the takes that its shot uses. */
const trimmed = (project: Project): Project => {
  const used = usedTakes(project.shot)
  return { ...project, takes: project.takes.filter(t => used.has(t.digest)) }
}

/**
 * Writes a project file piece by piece to `out`. Media are stored as they are, since they do not shrink; memory stays
 * at one chunk. Throws an Error with a sentence if the file would outgrow a zip.
 */
export async function writeProjectFile(
  project: Project,
  openMedia: (take: Take) => Promise<Chunks>,
  out: (chunk: Uint8Array) => void,
  onProgress?: (bytes: number, of: number) => void,
): Promise<void> {
  const written = trimmed(project)
  const total = written.takes.reduce((sum, t) => sum + t.bytes, 0)
  if (total > ZIP_LIMIT)
    throw new Error('The media of this shot are larger than 4 GB together, more than a project file holds.')
  const failed: Error[] = []
  const zip = new Zip((error, chunk) => {
    if (error) failed.push(error)
    else out(chunk)
  })
  const document = new ZipDeflate(DOCUMENT, { level: 6 })
  zip.add(document)
  document.push(new TextEncoder().encode(JSON.stringify(written, null, 2)), true)
  let bytes = 0
  for (const take of written.takes) {
    const entry = new ZipPassThrough(mediaEntry(take))
    zip.add(entry)
    for await (const chunk of await openMedia(take)) {
      entry.push(chunk)
      bytes += chunk.byteLength
      onProgress?.(bytes, total)
    }
    entry.push(new Uint8Array(), true)
  }
  zip.end()
  if (failed[0]) throw failed[0]
}

/** Thrown inside the unpacking to stop it at once; carries the sentence. */
class Refusal extends Error {}

interface Entry {
  name: string
  /** Called with each piece; `last` ends the entry. */
  data: (chunk: Uint8Array, last: boolean) => void
}

/** Walks the entries of a zip; `choose` returns what to do with each, or null to pass it over unread. */
async function walk(chunks: Chunks, choose: (name: string) => Entry['data'] | null): Promise<void> {
  const seen = new Set<string>()
  let open = 0
  const unzip = new Unzip(file => {
    const { name } = file
    if (name.startsWith('/') || name.includes('\\') || name.split('/').includes('..')) {
      throw new Refusal(`It holds an entry named “${name.slice(0, 80)}”, which no project has. It was not opened.`)
    }
    if (seen.has(name)) throw new Refusal(`It holds “${name.slice(0, 80)}” twice.`)
    seen.add(name)
    const data = choose(name)
    if (!data) return
    open++
    file.ondata = (error, chunk, last) => {
      // What `data` throws comes back here as the unpacker's own error.
      if (error instanceof Refusal) throw error
      if (error) throw new Refusal('It is damaged: one of its entries cannot be unpacked. Copy it again.')
      data(chunk, last)
      if (last) open--
    }
    file.start()
  })
  unzip.register(UnzipInflate)
  let first = true
  for await (const chunk of chunks) {
    if (first && !(chunk[0] === 0x50 && chunk[1] === 0x4b && (chunk[2] === 3 || chunk[2] === 5))) {
      throw new Refusal('It is not a project file: a project file is a zip.')
    }
    first = false
    // Small pieces, so that a packed entry that swells is stopped early.
    for (let at = 0; at < chunk.length; at += 65_536) unzip.push(chunk.subarray(at, at + 65_536))
  }
  if (first) throw new Refusal('It is empty.')
  try {
    unzip.push(new Uint8Array(), true)
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw new Refusal('It is cut short. Copy it again.')
  }
  if (open > 0) throw new Refusal('It is cut short. Copy it again.')
}

async function readDocument(chunks: Chunks): Promise<Project> {
  const parts: Uint8Array[] = []
  let size = 0
  let complete = false
  await walk(chunks, name => {
    if (name !== DOCUMENT) return null
    return (chunk, last) => {
      size += chunk.byteLength
      if (size > LIMITS.json) throw new Refusal('Its description is larger than any shot needs. It was not opened.')
      parts.push(chunk)
      complete = last
    }
  })
  if (!complete) throw new Refusal('It has no project.json, so it is not a project file.')
  const text = new TextDecoder().decode(join(parts, size))
  const checked = parseProject(text)
  if (!checked.ok) throw new Refusal(checked.problem)
  return checked.value
}

function join(parts: readonly Uint8Array[], size: number): Uint8Array {
  const whole = new Uint8Array(size)
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.byteLength
  }
  return whole
}

/** One entry being received: no longer than its take says, and in the end with its take's digest. */
interface Arrival {
  take: Take
  hash: IHasher
  bytes: number
  done: boolean
}

async function readMedia(chunks: Chunks, project: Project, onMedia: (take: Take, chunk: Uint8Array) => void) {
  const arrivals = new Map<string, Arrival>()
  for (const take of project.takes) {
    arrivals.set(mediaEntry(take), { take, hash: await createSHA256(), bytes: 0, done: false })
  }
  await walk(chunks, name => {
    const arrival = arrivals.get(name)
    if (!arrival) return null
    const { take, hash } = arrival
    return (chunk, last) => {
      arrival.bytes += chunk.byteLength
      if (arrival.bytes > take.bytes) {
        throw new Refusal(`Its take “${take.name}” is larger than its description says. It was not opened.`)
      }
      hash.update(chunk)
      onMedia(take, chunk)
      arrival.done = last
    }
  })
  for (const { take, hash, done } of arrivals.values()) {
    if (!done) throw new Refusal(`The take “${take.name}” is missing from it.`)
    if (hash.digest('hex') !== take.digest) {
      throw new Refusal(`Its take “${take.name}” is not the one the shot was made with: it was altered or damaged.`)
    }
  }
}

/**
 * Reads a project file. `open` starts it from the beginning (it is read twice: description, then media); media arrive
 * in pieces at `onMedia` and may be kept only if the result is ok. The problem is a sentence without the file's name.
 */
export async function readProjectFile(
  open: () => Chunks,
  onMedia: (take: Take, chunk: Uint8Array) => void,
): Promise<Checked<Project>> {
  try {
    const project = await readDocument(open())
    await readMedia(open(), project, onMedia)
    return { ok: true, value: project }
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, problem: error.message }
    if (error instanceof Error && 'code' in error) {
      return { ok: false, problem: 'It is damaged: it cannot be unpacked. Copy it again.' }
    }
    throw error
  }
}
