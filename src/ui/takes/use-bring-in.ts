import { useCallback, useContext } from 'react'
import { bringTakes } from '../../app/engine/bring-takes'
import { placeTake } from '../../app/engine/place'
import { bringingTold, store, useSend } from '../../app/store'
import { sayProblem } from '../common/problem'
import { SessionContext } from '../stage/engine-context'

/** Brings files into the open shot, wherever they were dropped, pasted or chosen; the takes panel tells how far it is. */
export function useBringIn(): (files: readonly File[], place: boolean) => Promise<void> {
  const send = useSend()
  const session = useContext(SessionContext)
  return useCallback(
    async (files, place) => {
      const { readOnly, bringing } = store.getState().view
      if (files.length === 0 || !session || readOnly) return
      if (bringing !== null) {
        sayProblem('Other files are being brought in. Wait until they are there, then bring these.')
        return
      }
      send(bringingTold('Looking…'))
      let done = 0
      let last = ''
      const tell = (file: string, share: number) => {
        if (file !== last) done++
        last = file
        const count = files.length > 1 ? `${done} of ${files.length}: ` : ''
        send(bringingTold(`${count}${file} ${Math.round(share * 100)}%`))
      }
      try {
        const { takes, problems } = await bringTakes(files, session, tell)
        for (const problem of problems) sayProblem(problem)
        if (place) for (const take of [...takes].reverse()) placeTake(take, {})
      } catch (error) {
        sayProblem(`The files could not be brought in (${error instanceof Error ? error.message : String(error)}).`)
      } finally {
        send(bringingTold(null))
      }
    },
    [send, session],
  )
}
