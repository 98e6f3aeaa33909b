// What of the workbench is in sight.
import { allFolded, type Part, partFolded, store } from '../store'
import type { Command } from './command'

const fold = (part: Part) => () => {
  const isFolded = !store.getState().room.folded.includes(part)
  store.dispatch(partFolded({ part, isFolded }))
}

export const ROOM: readonly Command[] = [
  {
    id: 'only-picture',
    name: 'Only the picture, and back',
    group: 'Room',
    keys: 'f',
    run: () => void store.dispatch(allFolded()),
  },
  { id: 'fold-takes', name: 'Takes away or back', group: 'Room', keys: '1', run: fold('takes') },
  { id: 'fold-lanes', name: 'Lanes away or back', group: 'Room', keys: '2', run: fold('lanes') },
  { id: 'fold-stack', name: 'Depth stack away or back', group: 'Room', keys: '3', run: fold('stack') },
]
