// Finding a project by file or demo name, its media as files on disk.
import { createReadStream, createWriteStream, existsSync, statSync } from 'node:fs'
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { readProjectFile } from '../core/exchange'
import { type Project, parseProject, type Take } from '../core/shot'
import { Complaint } from './complaint'

const DEMO = fileURLToPath(new URL('../../demo/', import.meta.url))

export interface FoundProject {
  project: Project
  pathOf(take: Take): string
  close(): Promise<void>
}

async function openDemo(name: string): Promise<FoundProject | null> {
  if (!/^[a-z0-9-]+$/.test(name)) return null
  const path = join(DEMO, 'shots', `${name}.json`)
  if (!existsSync(path)) return null
  const checked = parseProject(await readFile(path, 'utf8'))
  if (!checked.ok) throw new Complaint(`The demo shot “${name}” cannot be read. ${checked.problem}`)
  return { project: checked.value, pathOf: take => join(DEMO, 'clips', take.name), close: async () => {} }
}

/** Whether a file begins like a zip, as project files do. */
export async function looksLikeZip(path: string): Promise<boolean> {
  for await (const chunk of createReadStream(path, { end: 3 }))
    return (chunk as Buffer).toString('latin1').startsWith('PK')
  return false
}

/** Unpacks a project file into a temporary folder that `close` removes. */
async function openFile(path: string): Promise<FoundProject> {
  const folder = await mkdtemp(join(tmpdir(), 'ghost-'))
  const close = () => rm(folder, { recursive: true, force: true })
  const pathOf = (take: Take) => join(folder, take.digest)
  const files = new Map<string, ReturnType<typeof createWriteStream>>()
  try {
    const checked = await readProjectFile(
      () => createReadStream(path),
      (take, chunk) => {
        const file = files.get(take.digest) ?? createWriteStream(pathOf(take))
        files.set(take.digest, file)
        file.write(chunk)
      },
    )
    await Promise.all(
      [...files.values()].map(file => new Promise<void>((done, no) => file.on('error', no).end(() => done()))),
    )
    if (!checked.ok) throw new Complaint(`“${path}” cannot be opened. ${checked.problem}`)
    return { project: checked.value, pathOf, close }
  } catch (error) {
    await close()
    throw error
  }
}

/** Throws Complaint if there is no such project. */
export async function findProject(subject: string): Promise<FoundProject> {
  if (existsSync(subject) && statSync(subject).isFile()) return openFile(subject)
  const demo = await openDemo(subject)
  if (demo) return demo
  throw new Complaint(`There is no file or demo shot “${subject}”.`)
}
