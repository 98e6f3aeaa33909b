// Files -> takes of the open project, stored and on the stage; a file that has gone missing -> pointed at again.
import { LIMITS, type Take } from '../../core/shot'
import { saveMedia, saveProject, storageProblem } from '../storage/projects'
import { projectOf, store, takesAdded, takesMissing } from '../store'
import { type AskRate, type BroughtIn, bringIn } from './bring-in'
import type { Session } from './session'

/** Brings files into the open project. Returns the takes that came in, and a sentence for each file that did not. */
export async function bringTakes(
  files: readonly File[],
  { stage }: Pick<Session, 'stage'>,
  signal: AbortSignal,
  onProgress: (file: string, share: number) => void,
  askRate: AskRate,
): Promise<Pick<BroughtIn, 'takes' | 'problems' | 'foreign'>> {
  const { takes, files: media, problems, foreign } = await bringIn(files, signal, onProgress, askRate)
  const project = projectOf(store.getState())
  if (!project || takes.length === 0) return { takes: [], problems, foreign }
  try {
    const room = LIMITS.takes - project.takes.length
    if (takes.filter(t => !project.takes.some(p => p.digest === t.digest)).length > room) {
      return {
        takes: [],
        problems: [...problems, `A project holds up to ${LIMITS.takes} takes; there is room for ${room} more.`],
        foreign,
      }
    }
    await saveMedia(media, async () => {
      store.dispatch(takesAdded(takes))
      const now = projectOf(store.getState())
      if (now?.id === project.id) await saveProject(now)
    })
    await stage.addFiles(media)
    const { missing } = store.getState().view
    store.dispatch(takesMissing(missing.filter(d => !takes.some(t => t.digest === d))))
    return { takes, problems, foreign }
  } catch (error) {
    return { takes: [], problems: [...problems, await storageProblem(error, project)], foreign }
  }
}

/** Gives a take its file back. A sentence is returned where the file is another one. */
export async function findAgain(take: Take, file: File, session: Session): Promise<string | null> {
  const { takes, files, problems } = await bringIn(
    [file],
    new AbortController().signal,
    () => {},
    async () => null,
  )
  if (problems[0]) return problems[0]
  if (takes[0]?.digest !== take.digest) {
    return `“${file.name}” is not the file that “${take.name}” was: its content differs. Bring it in as a take of its own, or point at another.`
  }
  try {
    await saveMedia(files)
  } catch (error) {
    return await storageProblem(error, projectOf(store.getState()))
  }
  await session.stage.addFiles(files)
  const { missing } = store.getState().view
  store.dispatch(takesMissing(missing.filter(d => d !== take.digest)))
  return null
}
