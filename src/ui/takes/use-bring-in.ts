import { useCallback, useContext } from 'react'
import { bringTakes } from '../../app/engine/bring-takes'
import { convertFile } from '../../app/engine/convert'
import { placeTake } from '../../app/engine/place'
import type { Session } from '../../app/engine/session'
import type { JobKind } from '../../app/jobs/kinds'
import { runJob, type Working } from '../../app/jobs/run'
import { Stopped } from '../../app/stopped'
import { projectOf, store } from '../../app/store'
import { askRate } from '../ask/AskRate'
import { offerInstead, sayNote, sayProblem } from '../common/problem'
import { SessionContext } from '../stage/engine-context'

/** Work on files for the open shot; what goes wrong is said, and null is what comes of it. */
async function job<T>(kind: JobKind, name: string, work: (working: Working) => Promise<T>): Promise<T | null> {
  const project = projectOf(store.getState())
  if (!project || store.getState().view.readOnly) return null
  try {
    return await runJob({ kind, project: project.id, name }, work)
  } catch (error) {
    if (error instanceof Stopped) return null
    sayProblem(`The files could not be brought in (${error instanceof Error ? error.message : String(error)}).`)
    return null
  }
}

async function bring(files: readonly File[], session: Session, place: boolean): Promise<void> {
  let done = 0
  let last = ''
  const name = files.length > 1 ? `${files.length} files` : files[0]!.name
  const brought = await job('bring', name, ({ signal, tell }) => {
    const onProgress = (file: string, share: number) => {
      if (file !== last) done++
      last = file
      tell(
        Math.min(1, (done - 1 + share) / files.length),
        files.length > 1 ? `${done} of ${files.length}: ${file}` : file,
      )
    }
    return bringTakes(files, session, signal, onProgress, askRate)
  })
  if (!brought) return
  for (const problem of brought.problems) sayProblem(problem)
  for (const { file, problem } of brought.foreign) {
    const convert = async () => {
      const film = await job('convert', file.name, ({ signal, tell }) =>
        convertFile(file, signal, share => tell(share, `Converting ${file.name}`)),
      )
      if (film) await bring([film], session, place)
    }
    offerInstead(problem, 'Convert it here', () => void convert())
  }
  // Fonts show nothing by themselves.
  const [fonts, shown] = [brought.takes.filter(t => t.font), brought.takes.filter(t => !t.font)]
  if (fonts.length > 0)
    sayNote(`${fonts.map(t => `“${t.font!.family}”`).join(', ')} can be chosen where letters are set.`)
  if (place) for (const take of shown.reverse()) placeTake(take, {})
}

/** Brings files into the open shot, wherever they were dropped, pasted or chosen; the takes panel tells how far it is. */
export function useBringIn(): (files: readonly File[], place: boolean) => Promise<void> {
  const session = useContext(SessionContext)
  return useCallback(
    async (files, place) => {
      if (files.length > 0 && session) await bring(files, session, place)
    },
    [session],
  )
}
