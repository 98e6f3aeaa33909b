// Finding a project by file or demo name, its media as files on disk.
import { createReadStream, existsSync, statSync } from 'node:fs'
import { appendFile, mkdtemp, open, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseProject } from '../core/door'
import { readProjectFile } from '../core/exchange'
import type { Project, Take } from '../core/shot'
import { isSequence } from '../media/sequence'
import { Complaint } from './complaint'
import { addScratch, dropScratch } from './patience'

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

/** Whether a file begins like a project file: a zip, but not one of numbered stills. */
export async function looksLikeProject(path: string): Promise<boolean> {
  for await (const chunk of createReadStream(path, { end: 63 })) {
    return (chunk as Buffer).toString('latin1').startsWith('PK') && !isSequence(chunk as Buffer)
  }
  return false
}

/** Unpacks a project file into a temporary folder that `close` removes. */
async function openFile(path: string): Promise<FoundProject> {
  const folder = await mkdtemp(join(tmpdir(), 'ghost-'))
  addScratch(folder)
  const close = async () => {
    await rm(folder, { recursive: true, force: true })
    dropScratch(folder)
  }
  const pathOf = (take: Take) => join(folder, take.digest)
  const zip = await open(path)
  try {
    const read = async (from: number, to: number) => {
      const { buffer, bytesRead } = await zip.read(
        new Uint8Array(Math.max(0, to - from)),
        0,
        Math.max(0, to - from),
        from,
      )
      return buffer.subarray(0, bytesRead)
    }
    const checked = await readProjectFile(read, statSync(path).size, (take, chunk) => appendFile(pathOf(take), chunk))
    if (!checked.ok) throw new Complaint(`“${path}” cannot be opened. ${checked.problem}`)
    return { project: checked.value, pathOf, close }
  } catch (error) {
    await close()
    throw error
  } finally {
    await zip.close()
  }
}

/** Throws Complaint if there is no such project. */
export async function findProject(subject: string): Promise<FoundProject> {
  if (existsSync(subject) && statSync(subject).isFile()) return openFile(subject)
  const demo = await openDemo(subject)
  if (demo) return demo
  throw new Complaint(`There is no file or demo shot “${subject}”.`)
}
