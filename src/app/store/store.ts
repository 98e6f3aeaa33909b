// The one store of a page.
import { configureStore, type Middleware } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { ActionCreators } from 'redux-undo'
import { aloneShot, innerShot, type Layer, type Project, type Shot, type Take, takeShot } from '../../core/shot'
import { aimReducer } from './aim'
import { brushReducer } from './brush'
import { jobsReducer } from './jobs'
import { keysReducer } from './keys'
import { changed, changeMade, changesProject, edited, gestureOf, HISTORY, projectReducer } from './project'
import { keepRoom, roomReducer } from './room'
import { seamsReducer } from './seams'
import { groupEntered, layerChosen, refusalTold, viewReducer } from './view'

/** In a project that another tab holds, nothing changes. */
const guard: Middleware = api => next => action => {
  const { readOnly } = (api.getState() as State).view
  const type = (action as { type: string }).type
  if (readOnly && (changesProject(action) || type === HISTORY.UNDO || type === HISTORY.REDO)) return action
  return next(action)
}

/** An edit is meant for the shot that is open, which may lie inside a group. */
const aim: Middleware = api => next => action => {
  if (!edited.match(action) || action.payload.into) return next(action)
  const { into } = (api.getState() as State).view
  return next({ ...action, payload: { ...action.payload, into } })
}

/** What may not be in a document is said instead of done. */
const door: Middleware = api => next => action => {
  if (!changesProject(action)) return next(action)
  const state = api.getState() as State
  const before = projectOf(state)
  if (!before) return action
  const outcome = changed(before, action)
  const refusal = outcome.ok ? null : outcome.problem
  if (refusal !== state.view.refusal) api.dispatch(refusalTold(refusal))
  if (!outcome.ok || outcome.value === before) return action
  return next(changeMade({ project: outcome.value, gesture: gestureOf(action) }))
}

/** Who is inside a group that is taken back finds himself in the shot again. */
const leave: Middleware = api => next => action => {
  const result = next(action)
  const state = api.getState() as State
  const root = rootShot(state)
  const { into, frame } = state.view
  if (into.length > 0 && root && !innerShot(root, into)) {
    api.dispatch(groupEntered({ into: [], frame: Math.min(frame, root.length - 1), layer: null }))
  }
  return result
}

/** Whose chosen layer is taken back finds the one chosen that lies where it lay: what it was copied from, or what it was laid over. */
const stay: Middleware = api => next => action => {
  const { type } = action as { type: string }
  if (type !== HISTORY.UNDO && type !== HISTORY.REDO) return next(action)
  const before = api.getState() as State
  const at = shotOf(before)?.layers.findIndex(l => l.id === before.view.layer) ?? -1
  const result = next(action)
  const layers = shotOf(api.getState() as State)?.layers ?? []
  const there = layers[Math.min(at, layers.length - 1)]
  if (at >= 0 && there && !layers.some(l => l.id === before.view.layer)) api.dispatch(layerChosen(there.id))
  return result
}

export const store = configureStore({
  reducer: {
    project: projectReducer,
    view: viewReducer,
    keys: keysReducer,
    jobs: jobsReducer,
    room: roomReducer,
    seams: seamsReducer,
    brush: brushReducer,
    aim: aimReducer,
  },
  middleware: defaults =>
    defaults({ serializableCheck: false, immutableCheck: false }).concat(guard, aim, leave, stay, door),
})

let keptRoom = store.getState().room
store.subscribe(() => {
  const { room } = store.getState()
  if (room === keptRoom) return
  keptRoom = room
  keepRoom(room)
})

export type State = ReturnType<typeof store.getState>
export type Dispatch = typeof store.dispatch

export const useStore = <T>(select: (state: State) => T): T => useSelector<State, T>(select)
export const useSend = (): Dispatch => useDispatch<Dispatch>()

export const undo = ActionCreators.undo
export const redo = ActionCreators.redo

export const projectOf = (state: State): Project | null => state.project.present
/** The gesture that the last change was part of: what follows from it belongs to the same step. */
export const lastGesture = (state: State): string | null => state.project.group ?? null
/** The outermost shot: what is exported. */
export const rootShot = (state: State): Shot | null => projectOf(state)?.shot ?? null

/** The shot that is open: the outermost one, or that of a group. */
export function shotOf(state: State): Shot | null {
  const root = rootShot(state)
  return root && (innerShot(root, state.view.into) ?? root)
}

const indexes = new WeakMap<readonly Layer[], Map<string, Layer>>()

/** A layer of the open shot by its id: quick, since every card asks for its own at every change. */
export function layerOf(state: State, id: string | null): Layer | null {
  const layers = shotOf(state)?.layers
  if (!layers || id === null) return null
  let index = indexes.get(layers)
  if (!index) {
    index = new Map(layers.map(l => [l.id, l]))
    indexes.set(layers, index)
  }
  return index.get(id) ?? null
}

export const chosenLayer = (state: State): Layer | null => layerOf(state, state.view.layer)

/** Every chosen layer's id, the one whose card is open first. */
export const chosenIds = ({ view }: State): string[] => (view.layer ? [view.layer, ...view.others] : view.others)

export const takeOf = (state: State, digest: string | null): Take | null =>
  projectOf(state)?.takes.find(t => t.digest === digest) ?? null

const alone = memoOne((shot: Shot, ids: readonly string[]) => aloneShot(shot, ids))
const opened = memoOne((take: Take, project: Project) => takeShot(take, project))

/** The playhead of what is on the stage. */
export const stagedFrame = ({ view }: State): number => view.take?.frame ?? view.frame

/** What is on the stage: the open shot, or a take that is looked at by itself. */
export function stagedShot(state: State): Shot | null {
  const project = projectOf(state)
  const take = state.view.take ? takeOf(state, state.view.take.digest) : null
  if (take && project) return opened(take, project)
  return heardShot(state)
}

/** The open shot as it is looked at: of some layers alone, if that is wanted. */
export function heardShot(state: State): Shot | null {
  const shot = shotOf(state)
  return shot && alone(shot, state.view.alone)
}

/** Keeps the last answer, so that a selector gives the same object for the same arguments. */
function memoOne<A, B, R>(make: (a: A, b: B) => R): (a: A, b: B) => R {
  let last: { a: A; b: B; result: R } | null = null
  return (a, b) => {
    if (!last || last.a !== a || last.b !== b) last = { a, b, result: make(a, b) }
    return last.result
  }
}
