// Files -> takes of the open project, stored and on the stage; a file that has gone missing -> pointed at again.
import type { Take } from '../../core/shot'
import { storageProblem } from '../storage/database'
import { saveMedia, saveWithMedia } from '../storage/projects'
import { projectOf, store, takesAdded, takesMissing } from '../store'
import { bringIn } from './bring-in'
import type { Session } from './session'

/** Brings files into the open project. Returns the takes that came in, and a sentence for each file that did not. */
export async function bringTakes(
  files: readonly File[],
  { stage }: Session,
  onProgress: (file: string, share: number) => void,
): Promise<{ takes: Take[]; problems: string[] }> {
  const { takes, files: media, problems } = await bringIn(files, onProgress)
  const project = projectOf(store.getState())
  if (!project || takes.length === 0) return { takes: [], problems }
  try {
    const fresh = takes.filter(t => !project.takes.some(p => p.digest === t.digest))
    await saveWithMedia({ ...project, takes: [...project.takes, ...fresh] }, media)
    store.dispatch(takesAdded(takes))
    await stage.addFiles(media)
    const { missing } = store.getState().view
    store.dispatch(takesMissing(missing.filter(d => !takes.some(t => t.digest === d))))
    return { takes, problems }
  } catch (error) {
    return { takes: [], problems: [...problems, storageProblem(error)] }
  }
}

/** Gives a take its file back. A sentence is returned where the file is another one. */
export async function findAgain(take: Take, file: File, session: Session): Promise<string | null> {
  const { takes, files, problems } = await bringIn([file], () => {})
  if (problems[0]) return problems[0]
  if (takes[0]?.digest !== take.digest) {
    return `“${file.name}” is not the file that “${take.name}” was: its content differs. Bring it in as a take of its own, or point at another.`
  }
  try {
    await saveMedia(files)
  } catch (error) {
    return storageProblem(error)
  }
  await session.stage.addFiles(files)
  const { missing } = store.getState().view
  store.dispatch(takesMissing(missing.filter(d => d !== take.digest)))
  return null
}
