// In and out of a take that is looked at alone, and the parts of it that are kept.
import { LIMITS, newId, type Stretch, type Take } from '../../core/shot'
import { frameToSeconds } from '../../core/time'
import { stagedFrame, stagedShot, store, takeChanged, takeOf } from '../store'

interface Open {
  take: Take
  /** Seconds at which the frame on the stage begins and ends, and at which the take does. */
  here: number
  after: number
  end: number
}

function openTake(): Open | null {
  const state = store.getState()
  const take = state.view.take && takeOf(state, state.view.take.digest)
  const shot = stagedShot(state)
  if (!take || !shot) return null
  const frame = stagedFrame(state)
  const at = (f: number) => frameToSeconds(f, shot.rate)
  return { take, here: at(frame), after: at(frame + 1), end: at(shot.length) }
}

/** Whether a take with moving picture or sound is looked at alone. */
export const canMark = (): boolean => {
  const open = openTake()
  return open !== null && open.take.picture?.kind !== 'still'
}

const mark = (take: Take, marked: Stretch) => store.dispatch(takeChanged({ digest: take.digest, marked }))

/** The wanted part begins with the frame on the stage. */
export function markIn(): void {
  const open = openTake()
  if (!open) return
  const { take, here, end } = open
  mark(take, { from: here, to: take.marked && take.marked.to > here ? take.marked.to : end })
}

/** The wanted part ends with the frame on the stage. */
export function markOut(): void {
  const open = openTake()
  if (!open) return
  const { take, after } = open
  mark(take, { from: take.marked && take.marked.from < after ? take.marked.from : 0, to: after })
}

/** Keeps the marked part as an act of its take. */
export function keepAct(): void {
  const take = openTake()?.take
  if (!take?.marked || take.acts.length >= LIMITS.acts) return
  const act = { id: newId(), name: `Act ${take.acts.length + 1}`, ...take.marked }
  store.dispatch(takeChanged({ digest: take.digest, acts: [...take.acts, act], marked: null }))
}
