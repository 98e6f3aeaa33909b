// What is made in the background leaves the machine to whatever plays.
import { store } from '../store'

/** Until nothing plays. */
export const untilStill = (): Promise<void> =>
  new Promise(resolve => {
    const look = () => {
      if (store.getState().view.playing) return
      leave()
      resolve()
    }
    const leave = store.subscribe(look)
    look()
  })
