// The open project, with its history. Every change to the document goes through `admit`, and none that it refuses is made.
import { createAction, createNextState, createSlice, type PayloadAction } from '@reduxjs/toolkit'
import undoable, { ActionTypes, newHistory, type StateWithHistory } from 'redux-undo'
import { admit, type Checked } from '../../core/door'
import { dropTakeLayers, edits, innerShot, LIMITS, type Project, type Shot, type Take } from '../../core/shot'

type Edits = typeof edits
/** The edits that change a shot: their first argument is its draft, and they give nothing back. */
export type EditName = {
  [N in keyof Edits]: Edits[N] extends (shot: Shot, ...args: never[]) => void
    ? ReturnType<Edits[N]> extends NonNullable<unknown> | null
      ? never
      : N
    : never
}[keyof Edits]

export type ArgsOf<N extends EditName> = Edits[N] extends (shot: Shot, ...args: infer A) => void ? A : never

interface EditPayload {
  name: EditName
  args: unknown[]
  /** Edits of one gesture, such as a drag, are one step of the history. */
  gesture: string | null
  /** Which shot inside the project is meant: the ids of the groups that lead to it. */
  into?: readonly string[]
}

export type TakeChanges = { digest: string } & Partial<Pick<Take, 'name' | 'marked' | 'acts'>>

/** Applies one of core's edits to the open shot. */
export const edited = createAction<EditPayload>('project/edited')
export const takeChanged = createAction(
  'project/takeChanged',
  (payload: TakeChanges, gesture: string | null = null) => ({
    payload,
    meta: { gesture },
  }),
)
/** The take and every layer of it. */
export const takeRemoved = createAction<string>('project/takeRemoved')
/** Takes back all that a gesture has done so far, as if it had not begun. */
export const gestureLeft = createAction<string>('project/gestureLeft')

export type Edited = ReturnType<typeof edited>
type Change = Edited | ReturnType<typeof takeChanged> | ReturnType<typeof takeRemoved>

/** Whether an action changes the document and can be taken back. */
export const changesProject = (action: unknown): action is Change =>
  edited.match(action) || takeChanged.match(action) || takeRemoved.match(action)

/** The gesture that a change is a part of, all of which is undone together; null where it stands alone. */
export function gestureOf(change: Change): string | null {
  if (edited.match(change)) return change.payload.gesture
  return takeChanged.match(change) ? change.meta.gesture : null
}

function apply(project: Project, action: Change): void {
  if (edited.match(action)) {
    const { name, args, into = [] } = action.payload
    const shot = innerShot(project.shot, into)
    if (shot) (edits[name] as (shot: Shot, ...rest: unknown[]) => void)(shot, ...args)
  } else if (takeChanged.match(action)) {
    const take = project.takes.find(t => t.digest === action.payload.digest)
    if (take) Object.assign(take, action.payload)
  } else {
    project.takes = project.takes.filter(t => t.digest !== action.payload)
    dropTakeLayers(project.shot, action.payload)
  }
}

/**
 * The project after a change; the very same one if it changes nothing, or a sentence that says why it is not to be
 * had: a document that could not be opened again is not made.
 */
export function changed(before: Project, action: Change): Checked<Project> {
  return admit(
    before,
    createNextState(before, draft => apply(draft as Project, action)),
  )
}

const withTakes = (project: Project, takes: readonly Take[]): Project => {
  const fresh = takes.filter(t => !project.takes.some(p => p.digest === t.digest))
  return { ...project, takes: [...project.takes, ...fresh].slice(0, LIMITS.takes) }
}

const slice = createSlice({
  name: 'project',
  initialState: null as Project | null,
  reducers: {
    opened: (_, action: PayloadAction<Project>) => action.payload,
    closed: () => null,
    /** What came of a change that was admitted; `gesture` as the edit had it. */
    changeMade: (_, action: PayloadAction<{ project: Project; gesture: string | null }>) => action.payload.project,
    takesAdded: (project, action: PayloadAction<Take[]>) => project && withTakes(project, action.payload),
  },
})

export const { opened, closed, changeMade, takesAdded } = slice.actions

/** The action that applies one of core's edits to the open shot. */
export const edit = <N extends EditName>(name: N, ...args: ArgsOf<N>): Edited => edited({ name, args, gesture: null })

/** The same as part of a gesture: all that share its name are undone together. */
export const editIn = <N extends EditName>(gesture: string, name: N, ...args: ArgsOf<N>): Edited =>
  edited({ name, args, gesture })

const STEPS = 500

const withHistory = undoable(slice.reducer, {
  // The present counts as one.
  limit: STEPS + 1,
  groupBy: action => (changeMade.match(action) ? action.payload.gesture : null),
})

type History = StateWithHistory<Project | null>

/** A project that is opened or closed begins a history of its own; what a gesture did can be left out of it again. */
export function projectReducer(state: History | undefined, action: { type: string }): History {
  if (opened.match(action)) return newHistory([], action.payload as Project | null, [])
  if (closed.match(action)) return newHistory([], null as Project | null, [])
  if (state && gestureLeft.match(action)) {
    const before = state.past.at(-1)
    if (!before || state.group !== action.payload) return state
    return newHistory(state.past.slice(0, -1), before, [])
  }
  if (state && takesAdded.match(action)) {
    // A take that came in is known at every step, before and after: it is no part of what is taken back.
    const known = (project: Project | null) => project && withTakes(project, action.payload)
    return { ...newHistory(state.past.map(known), known(state.present), state.future.map(known)), group: state.group }
  }
  return withHistory(state, action)
}

export const HISTORY = ActionTypes
