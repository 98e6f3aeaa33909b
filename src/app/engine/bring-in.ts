// Files of one's own -> takes, and project files -> projects.

import { admitTake, type Checked } from '../../core/door'
import { makeProject, newId, type Project, type Take } from '../../core/shot'
import type { Rate } from '../../core/time'
import { type Numbered, sortNumbered } from '../../media/sequence'
import { type Client, filesClient, type MediaFile, proxy } from '../../workers/clients'
import type { FilesApi } from '../../workers/files.worker'
import { withThread } from '../jobs/thread'
import { privateFile, removePrivate } from '../storage/private-files'
import { projectMedia, roomFor, saveWithMedia, storageProblem } from '../storage/projects'
import { filesIn, withScratch } from '../storage/scratch'
import { canConvert } from './convert'
import { plainFile } from './plain-font'

export interface BroughtIn {
  takes: Take[]
  files: MediaFile[]
  /** A sentence for each file that did not come in. */
  problems: string[]
  /** Films that this browser cannot read but the server can convert, with the sentence that says so. */
  foreign: { file: File; problem: string }[]
}

const bytesText = (bytes: number): string =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.ceil(Math.max(0, bytes) / 1e6)} MB`

const withFiles = <T>(signal: AbortSignal, use: (call: Client<FilesApi>['call']) => Promise<T>): Promise<T> =>
  withThread(filesClient, signal, use)

/** Milliseconds that looking at a file of some bytes may take: a damaged one can send its parser round in circles. */
const patience = (bytes: number): number => 20_000 + bytes / 20_000

/** Describes a file; null where that does not come to an end: then its thread is ended. */
function lookAt(file: File, signal: AbortSignal) {
  return withFiles(signal, call => {
    const late = new Promise<null>(resolve => setTimeout(() => resolve(null), patience(file.size)))
    return Promise.race([call.look(file), late])
  })
}

async function bringOne(packed: File, signal: AbortSignal, brought: BroughtIn, onProgress: (share: number) => void) {
  const refuse = (problem: string) => void brought.problems.push(problem)
  const file = await plainFile(packed, signal)
  if (!file) return refuse(`“${packed.name}” is damaged, or no font.`)
  const { fits, free } = await roomFor(file.size)
  if (!fits) {
    return refuse(
      `“${file.name}” (${bytesText(file.size)}) is larger than the room this browser has left (${bytesText(free)}). Cut it shorter or free some space.`,
    )
  }
  const looked = await lookAt(file, signal)
  if (!looked) {
    return refuse(
      `“${file.name}” cannot be read to its end: it is cut short or damaged. Copy it again from where it was made.`,
    )
  }
  if (!looked.ok) {
    if (!looked.isForeign || !(await canConvert())) return refuse(looked.problem)
    const problem = `${looked.problem.split('. ')[0]}. This machine can convert it.`
    return void brought.foreign.push({ file, problem })
  }
  const { take, note } = looked.value
  const named = admitTake({ ...take, digest: NO_DIGEST })
  if (!named.ok) return refuse(`“${file.name.slice(0, 80)}” cannot be brought in. ${named.problem}`)
  const digest = await withFiles(signal, call => call.digest(file, proxy(onProgress)))
  if (note) refuse(note)
  brought.takes.push({ ...named.value, digest })
  brought.files.push({ digest, name: named.value.name, blob: file })
}

const NO_DIGEST = '0'.repeat(64)

/** Asks for the rate of numbered stills; null leaves them out. */
export type AskRate = (name: string, count: number) => Promise<Rate | null>

/** Numbered stills as one file. */
function joinStills(
  { name, files }: Numbered<File>,
  rate: Rate,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Checked<File>> {
  return withScratch(async (folder): Promise<Checked<File>> => {
    const made = await withFiles<Checked<null>>(signal, call => call.sequence(files, rate, folder, proxy(onProgress)))
    if (!made.ok) return made
    const stills = (await filesIn(folder)).get('stills')!
    return { ok: true, value: new File([await new Response(stills.stream()).blob()], name) }
  })
}

/**
 * Looks at each file, numbered stills together as one; nothing is stored yet. What is stopped throws Stopped.
 */
export async function bringIn(
  chosen: readonly File[],
  signal: AbortSignal,
  onProgress: (file: string, share: number) => void,
  askRate: AskRate,
): Promise<BroughtIn> {
  const brought: BroughtIn = { takes: [], files: [], problems: [], foreign: [] }
  const { sequences, single } = sortNumbered(chosen)
  for (const sequence of sequences) {
    const { name, files } = sequence
    const rate = await askRate(name, files.length)
    if (!rate) continue
    const joined = await joinStills(sequence, rate, signal, share => onProgress(name, share))
    if (joined.ok) await bringOne(joined.value, signal, brought, share => onProgress(name, share))
    else brought.problems.push(`“${name}” cannot be brought in. ${joined.problem}`)
  }
  for (const file of single) {
    onProgress(file.name, 0)
    await bringOne(file, signal, brought, share => onProgress(file.name, share))
  }
  return brought
}

/** A new shot of these takes, stored with its media. */
export async function newShot(brought: BroughtIn, name: string): Promise<Checked<Project>> {
  try {
    const project = makeProject(brought.takes, name)
    await saveWithMedia(project, brought.files)
    return { ok: true, value: project }
  } catch (error) {
    return { ok: false, problem: await storageProblem(error, null) }
  }
}

/** Opens a project file beside what is there: it gets a new identity if one of the same is kept already. */
export function openProjectFile(
  file: File,
  signal: AbortSignal,
  taken: (id: string) => Promise<boolean>,
  onProgress: (share: number) => void,
): Promise<Checked<Project>> {
  return withScratch(async (folder): Promise<Checked<Project>> => {
    const opened = await withFiles<Checked<Project>>(signal, call => call.unpack(file, folder, proxy(onProgress)))
    if (!opened.ok) return opened
    const project = opened.value
    const own = (await taken(project.id)) ? { ...project, id: newId() } : project
    const files = await filesIn(folder)
    const media: { digest: string; blob: Blob }[] = []
    for (const { digest, name, type } of project.takes) {
      // By way of a stream: a private browser would keep the file by its place, and that goes with the folder.
      const unpacked = files.get(digest)
      // The file says itself that it is missing; the shot opens, and says so too.
      if (!unpacked) continue
      const answer = new Response(unpacked.stream(), { headers: { 'content-type': type } })
      const blob = await answer.blob()
      if ((await lookAt(new File([blob], name), signal)) === null) {
        return { ok: false, problem: `“${file.name}” cannot be opened: its take “${name}” is damaged.` }
      }
      media.push({ digest, blob })
    }
    try {
      await saveWithMedia(own, media)
    } catch (error) {
      return { ok: false, problem: await storageProblem(error, null) }
    }
    return { ok: true, value: own }
  })
}

/** How the names of packed projects end. */
export const PACKED = '.jollyghost.zip'

/**
 * The project as one file, which lies among the browser's private files until it is packed again, and the takes that
 * are not in it since they have gone missing.
 */
export async function packProject(
  project: Project,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Checked<{ file: File; missing: Take[] }>> {
  const name = `${project.id}${PACKED}`
  try {
    const { files, missing } = await projectMedia(project)
    const packed = await withFiles<Checked<null>>(signal, call => call.pack(project, files, name, proxy(onProgress)))
    if (!packed.ok) return packed
    return { ok: true, value: { file: await privateFile(name), missing } }
  } catch (error) {
    await removePrivate(name).catch(failure => console.error('A part of a project file stays:', failure))
    throw error
  }
}
