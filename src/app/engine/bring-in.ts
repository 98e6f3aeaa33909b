// Files of one's own -> takes, and project files -> projects.
import { type Checked, makeProject, newId, type Project, type Take } from '../../core/shot'
import { type Client, filesClient, type MediaFile, proxy } from '../../workers/clients'
import type { FilesApi } from '../../workers/files.worker'
import { storageProblem } from '../storage/database'
import { projectMedia, roomFor, saveWithMedia } from '../storage/projects'

export interface BroughtIn {
  takes: Take[]
  files: MediaFile[]
  /** A sentence for each file that did not come in. */
  problems: string[]
}

const gigabytes = (bytes: number): string => `${(bytes / 1e9).toFixed(1)} GB`

async function withFiles<T>(use: (call: Client<FilesApi>['call']) => Promise<T>): Promise<T> {
  const client = filesClient()
  try {
    return await use(client.call)
  } finally {
    client.end()
  }
}

/** Looks at each file; nothing is stored yet. */
export function bringIn(
  chosen: readonly File[],
  onProgress: (file: string, share: number) => void,
): Promise<BroughtIn> {
  return withFiles(async call => {
    const brought: BroughtIn = { takes: [], files: [], problems: [] }
    for (const file of chosen) {
      onProgress(file.name, 0)
      const { fits, free } = await roomFor(file.size)
      if (!fits) {
        brought.problems.push(
          `“${file.name}” (${gigabytes(file.size)}) is larger than the room this browser has left (${gigabytes(free)}). Cut it shorter or free some space.`,
        )
        continue
      }
      const told = (share: number) => onProgress(file.name, share)
      const described = await call.describe(file, proxy(told))
      if (!described.ok) {
        brought.problems.push(described.problem)
        continue
      }
      const { take, note } = described.value
      if (note) brought.problems.push(note)
      brought.takes.push(take)
      brought.files.push({ digest: take.digest, name: take.name, blob: file })
    }
    return brought
  })
}

/** A new shot of these takes, stored with its media. */
export async function newShot(brought: BroughtIn, name: string): Promise<Checked<Project>> {
  try {
    const project = makeProject(brought.takes, name)
    await saveWithMedia(project, brought.files)
    return { ok: true, value: project }
  } catch (error) {
    return { ok: false, problem: storageProblem(error) }
  }
}

/** Opens a project file beside what is there: it gets a new identity if one of the same is kept already. */
export function openProjectFile(file: File, taken: (id: string) => Promise<boolean>): Promise<Checked<Project>> {
  return withFiles(async call => {
    const unpacked = await call.unpack(file)
    if (!unpacked.ok) return unpacked
    const { project, files } = unpacked.value
    const own = (await taken(project.id)) ? { ...project, id: newId() } : project
    try {
      await saveWithMedia(own, files)
    } catch (error) {
      return { ok: false, problem: storageProblem(error) }
    }
    return { ok: true, value: own }
  })
}

/** The project as one file. */
export function packProject(project: Project, onProgress: (share: number) => void): Promise<Checked<Blob>> {
  return withFiles(async call => {
    const { files } = await projectMedia(project)
    return call.pack(project, files, proxy(onProgress))
  })
}
