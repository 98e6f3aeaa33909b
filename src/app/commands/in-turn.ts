// What is found out about a layer while somebody goes on: one thing after another, on the layer as it is by then.
import type { Layer } from '../../core/shot'
import { refusalTold, store } from '../store'
import { shot } from './command'

/** A layer as it is by now; null where it is gone. */
export const asItIs = (id: string): Layer | null => shot()?.layers.find(l => l.id === id) ?? null

/** Whether what counts of a layer is as it was when it was looked at; what was found else is about another picture, and that is said. */
export function isAsItWas(layer: Layer, counts: (layer: Layer) => readonly unknown[] = l => [l]): boolean {
  const now = asItIs(layer.id)
  const before = counts(layer)
  if (now && counts(now).every((part, i) => part === before[i])) return true
  const what = now ? 'was changed while it was looked at: ask for it again' : 'is no longer here: nothing came of it'
  if (shot()) store.dispatch(refusalTold(`“${layer.name}” ${what}.`))
  return false
}

let last: Promise<unknown> = Promise.resolve()

/** Asked for one after another, each is done on what the one before made of its layer. Nothing is done where that is gone. */
export function inTurn(id: string | undefined, work: (layer: Layer) => Promise<void>): void {
  const turn = last.then(async () => {
    const layer = id === undefined ? null : asItIs(id)
    if (layer) await work(layer)
  })
  last = turn.catch(error => store.dispatch(refusalTold(error instanceof Error ? error.message : String(error))))
}
