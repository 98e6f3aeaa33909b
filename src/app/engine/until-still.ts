// What is made in the background leaves the machine to whatever plays, and to what somebody waits for.
import { type Job, store } from '../store'

const until = (isFree: (state: ReturnType<typeof store.getState>) => boolean): Promise<void> =>
  new Promise(resolve => {
    const look = () => {
      if (!isFree(store.getState())) return
      leave()
      resolve()
    }
    const leave = store.subscribe(look)
    look()
  })

/** Until nothing plays. */
export const untilStill = (): Promise<void> => until(({ view }) => !view.playing)

/** Somebody has asked for it, and looks on. */
const isAwaited = ({ kind, state }: Job): boolean => (kind === 'look' || kind === 'compare') && state === 'running'

/** Until nothing plays, and no take is looked through or followed. */
export const untilAlone = (): Promise<void> => until(({ view, jobs }) => !view.playing && !jobs.some(isAwaited))
