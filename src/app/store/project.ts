// The open project, with its history. Every change to the document goes through `edit`.
import { createNextState, createSlice, original, type PayloadAction } from '@reduxjs/toolkit'
import undoable, { ActionTypes, newHistory, type StateWithHistory } from 'redux-undo'
import { dropTakeLayers, edits, innerShot, LIMITS, type Project, type Shot, type Take } from '../../core/shot'

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
  /** Which shot inside the project is meant: the ids of the groups that lead to it. */
  into?: readonly string[]
}

/** The project after an edit; the very same one if the edit changes nothing or is not to be had. */
export function applyEdit(before: Project, { name, args, into = [] }: EditPayload): Project {
  const apply = edits[name] as (shot: Shot, ...rest: unknown[]) => void
  const after = createNextState(before, draft => {
    const shot = innerShot(draft.shot as Shot, into)
    if (shot) apply(shot, ...args)
  })
  // An edit inside a group knows nothing of how deep that lies: a document that could not be opened again is not made.
  return edits.groupDepth(after.shot) > LIMITS.depth ? before : after
}

const slice = createSlice({
  name: 'project',
  initialState: null as Project | null,
  reducers: {
    opened: (_, action: PayloadAction<Project>) => action.payload,
    closed: () => null,
    edited: (project, action: PayloadAction<EditPayload>) =>
      project ? applyEdit(original(project) as Project, action.payload) : undefined,
    takeChanged(project, action: PayloadAction<{ digest: string } & Partial<Pick<Take, 'name' | 'marked' | 'acts'>>>) {
      const take = project?.takes.find(t => t.digest === action.payload.digest)
      if (!take) return
      Object.assign(take, action.payload)
      take.name = take.name.slice(0, LIMITS.name)
      take.acts = take.acts.map(act => ({ ...act, name: act.name.slice(0, LIMITS.name) }))
    },
    /** The take and every layer of it. */
    takeRemoved(project, action: PayloadAction<string>) {
      if (!project) return
      project.takes = project.takes.filter(t => t.digest !== action.payload)
      dropTakeLayers(project.shot as Shot, action.payload)
    },
    takesAdded(project, action: PayloadAction<Take[]>) {
      for (const take of action.payload) {
        if (!project || project.takes.length >= LIMITS.takes) return
        if (!project.takes.some(t => t.digest === take.digest)) project.takes.push(take)
      }
    },
  },
})

export const { opened, closed, takesAdded, takeChanged, takeRemoved } = slice.actions
export type Edited = ReturnType<typeof slice.actions.edited>
export const isEdit = slice.actions.edited.match
/** Whether an action changes the document at all. */
export const changesProject = (action: unknown): boolean =>
  isEdit(action) || takeChanged.match(action) || takeRemoved.match(action)

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
