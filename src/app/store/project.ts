// The open project, with its history. Every change to the document goes through `edit`.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import undoable, { ActionTypes, newHistory, type StateWithHistory } from 'redux-undo'
import { edits, LIMITS, type Project, type Shot, type Take } from '../../core/shot'

type Edits = typeof edits
/** The edits that change a shot: their first argument is its draft. */
export type EditName = {
  [N in keyof Edits]: Edits[N] extends (shot: Shot, ...args: never[]) => void ? N : never
}[keyof Edits]

type ArgsOf<N extends EditName> = Edits[N] extends (shot: Shot, ...args: infer A) => void ? A : never

interface EditPayload {
  name: EditName
  args: unknown[]
  /** Edits of one gesture, such as a drag, are one step of the history. */
  gesture: string | null
}

const slice = createSlice({
  name: 'project',
  initialState: null as Project | null,
  reducers: {
    opened: (_, action: PayloadAction<Project>) => action.payload,
    closed: () => null,
    edited(project, action: PayloadAction<EditPayload>) {
      if (!project) return
      const { name, args } = action.payload
      const apply = edits[name] as (shot: Shot, ...rest: unknown[]) => void
      apply(project.shot as Shot, ...args)
    },
    takesAdded(project, action: PayloadAction<Take[]>) {
      for (const take of action.payload) {
        if (!project || project.takes.length >= LIMITS.takes) return
        if (!project.takes.some(t => t.digest === take.digest)) project.takes.push(take)
      }
    },
  },
})

export const { opened, closed, takesAdded } = slice.actions
export const isEdit = slice.actions.edited.match

/** The action that applies one of core's edits to the open shot. */
export const edit = <N extends EditName>(name: N, ...args: ArgsOf<N>) =>
  slice.actions.edited({ name, args, gesture: null })

/** The same as part of a gesture: all that share its name are undone together. */
export const editIn = <N extends EditName>(gesture: string, name: N, ...args: ArgsOf<N>) =>
  slice.actions.edited({ name, args, gesture })

const withHistory = undoable(slice.reducer, {
  limit: 500,
  groupBy: action => (isEdit(action) ? action.payload.gesture : null),
  // A take that was brought in stays known when its layer is undone.
  filter: action => action.type !== slice.actions.takesAdded.type,
  syncFilter: true,
})

/** A project that is opened or closed begins a history of its own. */
export function projectReducer(state: StateWithHistory<Project | null> | undefined, action: { type: string }) {
  if (opened.match(action)) return newHistory([], action.payload as Project | null, [])
  if (closed.match(action)) return newHistory([], null as Project | null, [])
  return withHistory(state, action)
}

export const HISTORY = ActionTypes
