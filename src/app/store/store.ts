// The one store of a page.
import { configureStore, type Middleware } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { ActionCreators } from 'redux-undo'
import type { Layer, Project, Shot } from '../../core/shot'
import { jobsReducer } from './jobs'
import { HISTORY, isEdit, projectReducer } from './project'
import { viewReducer } from './view'

/** In a project that another tab holds, nothing changes. */
const guard: Middleware = api => next => action => {
  const { readOnly } = (api.getState() as State).view
  const type = (action as { type: string }).type
  if (readOnly && (isEdit(action) || type === HISTORY.UNDO || type === HISTORY.REDO)) return action
  return next(action)
}

export const store = configureStore({
  reducer: { project: projectReducer, view: viewReducer, jobs: jobsReducer },
  middleware: defaults => defaults({ serializableCheck: false, immutableCheck: false }).concat(guard),
})

export type State = ReturnType<typeof store.getState>
export type Dispatch = typeof store.dispatch

export const useStore = <T>(select: (state: State) => T): T => useSelector<State, T>(select)
export const useSend = (): Dispatch => useDispatch<Dispatch>()

export const undo = ActionCreators.undo
export const redo = ActionCreators.redo

export const projectOf = (state: State): Project | null => state.project.present
export const shotOf = (state: State): Shot | null => state.project.present?.shot ?? null
export const chosenLayer = (state: State): Layer | null =>
  shotOf(state)?.layers.find(l => l.id === state.view.layer) ?? null
