import { useCallback, useContext, useState } from 'react'
import { bringTakes } from '../../app/engine/bring-takes'
import { placeTake } from '../../app/engine/place'
import { store } from '../../app/store'
import { sayProblem } from '../common/problem'
import { SessionContext } from '../stage/engine-context'

/** Bringing files into the open shot: what is happening now, in words, and the function that does it. */
export function useBringIn() {
  const session = useContext(SessionContext)
  const [busy, setBusy] = useState<string | null>(null)
  const bring = useCallback(
    async (files: readonly File[], place: boolean) => {
      if (files.length === 0 || !session || store.getState().view.readOnly) return
      setBusy('Looking…')
      let done = 0
      let last = ''
      const { takes, problems } = await bringTakes(files, session, (file, share) => {
        if (file !== last) done++
        last = file
        const count = files.length > 1 ? `${done} of ${files.length}: ` : ''
        setBusy(`${count}${file} ${Math.round(share * 100)}%`)
      })
      for (const problem of problems) sayProblem(problem)
      if (place) for (const take of [...takes].reverse()) placeTake(take, {})
      setBusy(null)
    },
    [session],
  )
  return { busy, bring }
}
