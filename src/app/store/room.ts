// How the workbench's room is shared out: which parts are folded away. Kept in the browser from visit to visit.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

export const PARTS = ['takes', 'lanes', 'stack'] as const
export type Part = (typeof PARTS)[number]

interface Room {
  folded: Part[]
  /** What was folded before all were, to go back to. */
  before: Part[]
}

const KEPT = 'jolly-ghost-room'

const isPart = (value: unknown): value is Part => PARTS.includes(value as Part)

function recalled(): Part[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]')
    return Array.isArray(kept) ? kept.filter(isPart) : []
  } catch {
    // Without a place to keep it, or with something else there, all parts are open.
    return []
  }
}

/** Keeps what is folded for the next visit; not being able to is no harm. */
export function keepRoom({ folded }: Room): void {
  try {
    localStorage.setItem(KEPT, JSON.stringify(folded))
  } catch {
    // As above.
  }
}

const slice = createSlice({
  name: 'room',
  initialState: (): Room => ({ folded: recalled(), before: [] }),
  reducers: {
    partFolded(room, action: PayloadAction<{ part: Part; isFolded: boolean }>) {
      const { part, isFolded } = action.payload
      room.folded = room.folded.filter(p => p !== part)
      if (isFolded) room.folded.push(part)
    },
    /** All parts away, or back as they were before. */
    allFolded(room) {
      if (room.folded.length < PARTS.length) {
        room.before = room.folded
        room.folded = [...PARTS]
      } else {
        room.folded = room.before.length < PARTS.length ? room.before : []
      }
    },
  },
})

export const { partFolded, allFolded } = slice.actions
export const roomReducer = slice.reducer
