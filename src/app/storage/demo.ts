// The demo shots that the server brings along, made into ordinary projects when they are opened.
import { type Checked, parseProject } from '../../core/door'
import type { Project, Shot, Take } from '../../core/shot'
import { Stopped } from '../stopped'
import { writeProblem } from './database'
import { loadProject, roomFor, saveWithMedia } from './projects'
import { keepBrought } from './small-frames'

const clipPath = (name: string): string => `/demo/clips/${name}`

const fetchOk = async (path: string, signal?: AbortSignal): Promise<Response> => {
  const answer = await fetch(path, { signal })
  if (!answer.ok) throw new Error(`${path} answers ${answer.status}`)
  return answer
}

export interface Demo {
  id: string
  shot: Pick<Shot, 'name' | 'size' | 'rate' | 'length'>
  /** What the trick is, in a line. */
  trick: string
  /** Addresses of its picture, and of a few seconds of it moving. */
  poster: string
  glance: string
}

/** Every demo shot that this server has, in the order they are to be seen. Without a server there is none. */
export async function listDemos(): Promise<Demo[]> {
  const listed: Pick<Demo, 'id' | 'shot' | 'trick'>[] = await (await fetchOk('/demo/index.json')).json()
  return listed.map(demo => ({
    ...demo,
    poster: clipPath(`${demo.id}.jpg`),
    glance: clipPath(`${demo.id}.glance.mp4`),
  }))
}

async function fetchDemo(id: string, signal: AbortSignal): Promise<Checked<Project>> {
  return parseProject(await (await fetchOk(`/demo/shots/${id}.json`, signal)).text())
}

/** Puts a demo shot among the shots of this machine, unless it is there already: then that one is opened as it was left. */
export async function keepDemo(
  { id, shot: { name } }: Demo,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Checked<Project>> {
  const kept = await loadProject(id)
  if (kept) return kept.ok ? { ok: true, value: kept.value.project } : kept
  const unfetched = (error: unknown) => {
    if (signal.aborted) throw new Stopped('Stopped.')
    const why = error instanceof Error ? error.message : String(error)
    return { ok: false, problem: `“${name}” cannot be fetched: the server does not give it (${why}).` } as const
  }
  let fetchedShot: Checked<Project>
  try {
    fetchedShot = await fetchDemo(id, signal)
  } catch (error) {
    return unfetched(error)
  }
  if (!fetchedShot.ok) return fetchedShot
  const demo = fetchedShot.value
  const total = demo.takes.reduce((sum, t) => sum + t.bytes, 0)
  const { fits, free } = await roomFor(total)
  const megabytes = (bytes: number) => `${Math.ceil(bytes / 1e6)} MB`
  if (!fits) {
    const problem = `“${name}” needs ${megabytes(total)}, and this browser has ${megabytes(Math.max(0, free))} left. Remove shots that are no longer needed.`
    return { ok: false, problem }
  }
  let bytes = 0
  const fetched = Promise.all(
    demo.takes.map(async (take: Take) => {
      const blob = await (await fetchOk(clipPath(take.name), signal)).blob()
      bytes += blob.size
      onProgress(bytes / total)
      return { digest: take.digest, blob: blob.slice(0, blob.size, take.type) }
    }),
  )
  let media: Awaited<typeof fetched>
  try {
    media = await fetched
  } catch (error) {
    return unfetched(error)
  }
  try {
    await saveWithMedia(demo, media)
  } catch (error) {
    return { ok: false, problem: `“${name}” cannot be kept. ${writeProblem(error)}` }
  }
  const small = demo.takes.map(take => keepBrought(take, clipPath(take.name.replace(/\.\w+$/, '')), signal))
  // What of it is not there is made.
  for (const { reason } of (await Promise.allSettled(small)).filter(kept => kept.status === 'rejected'))
    console.error('Small frames could not be kept:', reason)
  return { ok: true, value: demo }
}
