// A project as one file: a zip of `project.json` and the media it uses. docs/project-file.md describes it.
import { deflateSync } from 'fflate'
import { createSHA256 } from 'hash-wasm'
import { type Checked, parseProject, readDocument as readDocumentText } from '../door'
import { LIMITS, type Project, type Take, usedTakes } from '../shot'
import { entryChunks, type Read, sumOf, type ZipEntry, ZipProblem, zipEntries, zipWriter } from '../zip'

type Chunks = AsyncIterable<Uint8Array>

const DOCUMENT = 'project.json'
/** Digests of takes whose media had already gone missing where the file was written, as a JSON list. */
const MISSING = 'missing.json'

/** Four gigabytes: what a zip without extensions can hold. */
const ZIP_LIMIT = 0xffff_ffff - 64 * 1024 * 1024
/** More entries than any project has takes. */
const MOST_ENTRIES = 4 * LIMITS.takes
/** How much more than its file a project's media may be: they hardly shrink, so more is a trap. */
const SWELLS = 8
const ROOM = 64 * 2 ** 20

const extension = (take: Take): string => /\.([a-z0-9]{1,5})$/i.exec(take.name)?.[1]?.toLowerCase() ?? 'bin'

export const mediaEntry = (take: Take): string => `media/${take.digest}.${extension(take)}`

/** The project with only the takes that its shot uses. */
const trimmed = (project: Project): Project => {
  const used = usedTakes(project.shot)
  return { ...project, takes: project.takes.filter(t => used.has(t.digest)) }
}

async function* one(data: Uint8Array): AsyncGenerator<Uint8Array> {
  yield data
}

/**
 * Writes a project file piece by piece to `out`, which is waited for. Media are stored as they are, since they do not
 * shrink, and read twice: once for the sum that stands before them. Memory stays at one chunk. A take for which
 * `openMedia` gives null is listed as missing. Throws an Error with a sentence if the file would outgrow a zip or a take
 * is not as long as it was.
 */
export async function writeProjectFile(
  project: Project,
  openMedia: (take: Take) => Promise<Chunks | null>,
  out: (chunk: Uint8Array) => void | Promise<void>,
  onProgress?: (bytes: number, of: number) => void,
): Promise<void> {
  const written = trimmed(project)
  const total = written.takes.reduce((sum, t) => sum + t.bytes, 0)
  if (total > ZIP_LIMIT)
    throw new Error('The media of this shot are larger than 4 GB together, more than a project file holds.')
  let read = 0
  async function* counted(chunks: Chunks): AsyncGenerator<Uint8Array> {
    for await (const chunk of chunks) {
      yield chunk
      read += chunk.byteLength
      onProgress?.(read / 2, total)
    }
  }
  const zip = zipWriter(out)
  const text = new TextEncoder().encode(JSON.stringify(written, null, 2))
  const packed = deflateSync(text, { level: 6 })
  await zip.add({ name: DOCUMENT, method: 8, ...(await sumOf(one(text))), packed: packed.length }, one(packed))
  const missing: string[] = []
  for (const take of written.takes) {
    const [first, second] = [await openMedia(take), await openMedia(take)]
    if (!first || !second) {
      missing.push(take.digest)
      continue
    }
    const { crc, size } = await sumOf(counted(first))
    if (size !== take.bytes) throw new Error(`The take “${take.name}” is not as long as it was, so it cannot be saved.`)
    await zip.add({ name: mediaEntry(take), method: 0, crc, size, packed: size }, counted(second))
  }
  if (missing.length > 0) {
    const list = new TextEncoder().encode(JSON.stringify(missing))
    await zip.add({ name: MISSING, method: 0, ...(await sumOf(one(list))), packed: list.length }, one(list))
  }
  await zip.end()
}

/** Stops the reading at once; carries the sentence. */
class Refusal extends Error {}

/** The entries by name, none of them a way out. */
async function listed(read: Read, bytes: number): Promise<Map<string, ZipEntry>> {
  const entries = new Map<string, ZipEntry>()
  for (const entry of await zipEntries(read, bytes, MOST_ENTRIES)) {
    const { name } = entry
    if (name.startsWith('/') || name.includes('\\') || name.split('/').includes('..')) {
      throw new Refusal(`It holds an entry named “${name.slice(0, 80)}”, which no project has. It was not opened.`)
    }
    if (entries.has(name)) throw new Refusal(`It holds “${name.slice(0, 80)}” twice.`)
    entries.set(name, entry)
  }
  return entries
}

async function readText(read: Read, entry: ZipEntry): Promise<string> {
  if (entry.size > LIMITS.json) {
    throw new Refusal('Its description is larger than any shot needs. It was not opened.')
  }
  const text = new TextDecoder()
  let said = ''
  for await (const chunk of entryChunks(read, entry)) said += text.decode(chunk, { stream: true })
  return said + text.decode()
}

/** Digests that the file itself says are missing. */
async function readMissing(read: Read, entry: ZipEntry | undefined): Promise<ReadonlySet<unknown>> {
  if (!entry) return new Set()
  const list = readDocumentText(await readText(read, entry))
  if (!list.ok || !Array.isArray(list.value)) throw new Refusal('Its list of missing takes cannot be read.')
  return new Set(list.value)
}

async function readDocument(read: Read, entry: ZipEntry | undefined): Promise<Project> {
  if (!entry) throw new Refusal('It has no project.json, so it is not a project file.')
  const checked = parseProject(await readText(read, entry))
  if (!checked.ok) throw new Refusal(checked.problem)
  return checked.value
}

function refuseSwelling(project: Project, bytes: number): void {
  const promised = project.takes.reduce((sum, t) => sum + t.bytes, 0)
  if (promised > ZIP_LIMIT || promised > Math.max(ROOM, bytes * SWELLS)) {
    throw new Refusal('Its description promises more media than the file can hold. It was not opened.')
  }
}

/** Receives media piece by piece, each waited for before the next is read. */
type OnMedia = (take: Take, chunk: Uint8Array) => void | Promise<void>

/** One entry being received: as long as its take says, and in the end with its take's digest. */
async function readTake(read: Read, entry: ZipEntry | undefined, take: Take, onMedia: OnMedia): Promise<void> {
  if (!entry) throw new Refusal(`The take “${take.name}” is missing from it.`)
  if (entry.size !== take.bytes) {
    const how = entry.size > take.bytes ? 'larger' : 'shorter'
    throw new Refusal(`Its take “${take.name}” is ${how} than its description says. It was not opened.`)
  }
  const hash = await createSHA256()
  for await (const chunk of entryChunks(read, entry)) {
    hash.update(chunk)
    await onMedia(take, chunk)
  }
  if (hash.digest('hex') !== take.digest) {
    throw new Refusal(`Its take “${take.name}” is not the one the shot was made with: it was altered or damaged.`)
  }
}

/**
 * Reads a project file of some bytes; media arrive in pieces at `onMedia` and may be kept only if the result is ok. None
 * arrive of takes that the file itself lists as missing. The problem is a sentence without the file's name. What `read` and `onMedia` throw is thrown on.
 */
export async function readProjectFile(read: Read, bytes: number, onMedia: OnMedia): Promise<Checked<Project>> {
  try {
    const entries = await listed(read, bytes)
    const project = await readDocument(read, entries.get(DOCUMENT))
    refuseSwelling(project, bytes)
    const missing = await readMissing(read, entries.get(MISSING))
    for (const take of project.takes) {
      const entry = entries.get(mediaEntry(take))
      if (entry || !missing.has(take.digest)) await readTake(read, entry, take, onMedia)
    }
    return { ok: true, value: project }
  } catch (error) {
    if (error instanceof Refusal || error instanceof ZipProblem) return { ok: false, problem: error.message }
    throw error
  }
}
