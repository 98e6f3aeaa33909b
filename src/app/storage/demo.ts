// The demo shots that the server brings along, made into ordinary projects when they are opened.
import { type Checked, parseProject, type Salvaged } from '../../core/door'
import type { Project, Shot } from '../../core/shot'
import { Stopped } from '../stopped'
import { writeProblem } from './database'
import { loadProject, roomFor, savePoster, saveWithMedia } from './projects'
import { keepBrought } from './small-frames'

const clipPath = (name: string): string => `/demo/clips/${name}`

const fetchOk = async (path: string, signal?: AbortSignal): Promise<Response> => {
  const answer = await fetch(path, { signal })
  if (!answer.ok) throw new Error(`${path} answers ${answer.status}`)
  return answer
}

export interface Demo {
  id: string
  /** What is to be known of the shot before it is fetched. */
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

interface Fetched {
  project: Project
  media: { digest: string; blob: Blob }[]
}

/** A demo shot with all its takes; throws where the server does not give them. */
async function fetchDemo(
  { id, shot: { name } }: Demo,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Checked<Fetched>> {
  const checked = parseProject(await (await fetchOk(`/demo/shots/${id}.json`, signal)).text())
  if (!checked.ok) return checked
  const project = checked.value
  const total = project.takes.reduce((sum, t) => sum + t.bytes, 0)
  const { fits, free } = await roomFor(total)
  const megabytes = (bytes: number) => `${Math.ceil(bytes / 1e6)} MB`
  if (!fits) {
    const problem = `“${name}” needs ${megabytes(total)}, and this browser has ${megabytes(Math.max(0, free))} left. Remove shots that are no longer needed.`
    return { ok: false, problem }
  }
  let bytes = 0
  const media = await Promise.all(
    project.takes.map(async take => {
      const blob = await (await fetchOk(clipPath(take.name), signal)).blob()
      bytes += blob.size
      onProgress(bytes / total)
      return { digest: take.digest, blob: blob.slice(0, blob.size, take.type) }
    }),
  )
  return { ok: true, value: { project, media } }
}

/** Puts a demo shot among the shots of this machine, unless it is there already: then that one is opened as it was left. */
export async function keepDemo(
  demo: Demo,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Checked<Salvaged>> {
  const kept = await loadProject(demo.id)
  if (kept) return kept
  const { name } = demo.shot
  let fetched: Checked<Fetched>
  try {
    fetched = await fetchDemo(demo, signal, onProgress)
  } catch (error) {
    if (signal.aborted) throw new Stopped('Stopped.')
    const why = error instanceof Error ? error.message : String(error)
    return { ok: false, problem: `“${name}” cannot be fetched: the server does not give it (${why}).` }
  }
  if (!fetched.ok) return fetched
  // Another tab may have been quicker, and changed something since.
  const meanwhile = await loadProject(demo.id)
  if (meanwhile) return meanwhile
  const { project, media } = fetched.value
  try {
    await saveWithMedia(project, media)
  } catch (error) {
    return { ok: false, problem: `“${name}” cannot be kept. ${writeProblem(error)}` }
  }
  const keepPoster = async () => savePoster(demo.id, await (await fetchOk(demo.poster, signal)).blob())
  const small = project.takes.map(take => keepBrought(take, clipPath(take.name.replace(/\.\w+$/, '')), signal))
  // What of it is not there is made.
  for (const { reason } of (await Promise.allSettled([keepPoster(), ...small])).filter(k => k.status === 'rejected'))
    console.error('Small pictures could not be kept:', reason)
  return { ok: true, value: { project, aside: [] } }
}
