// The demo shots that the server brings along, made into ordinary projects when they are opened.
import { type Checked, type Project, parseProject, type Take } from '../../core/shot'
import { loadProject, saveWithMedia } from './projects'

const fetchOk = async (path: string): Promise<Response> => {
  const answer = await fetch(path)
  if (!answer.ok) throw new Error(`${path} answers ${answer.status}`)
  return answer
}

/** Every demo shot that this server has. Without a server there is none. */
export async function listDemos(): Promise<Project[]> {
  const names: string[] = await (await fetchOk('/demo/index.json')).json()
  const texts = await Promise.all(names.map(async name => (await fetchOk(`/demo/shots/${name}.json`)).text()))
  return texts.flatMap(text => {
    const checked = parseProject(text)
    if (checked.ok) return [checked.value]
    console.error('A demo shot is left out:', checked.problem)
    return []
  })
}

export const posterOf = (demo: Project): string => `/demo/clips/${demo.id}.jpg`

/** Puts a demo shot among the shots of this machine, unless it is there already: then that one is opened as it was left. */
export async function keepDemo(demo: Project, onProgress: (share: number) => void): Promise<Checked<Project>> {
  const kept = await loadProject(demo.id)
  if (kept) return kept
  const total = demo.takes.reduce((sum, t) => sum + t.bytes, 0)
  let bytes = 0
  const media = await Promise.all(
    demo.takes.map(async (take: Take) => {
      const blob = await (await fetchOk(`/demo/clips/${take.name}`)).blob()
      bytes += blob.size
      onProgress(bytes / total)
      return { digest: take.digest, blob: blob.slice(0, blob.size, take.type) }
    }),
  )
  await saveWithMedia(demo, media)
  return { ok: true, value: demo }
}
