// What a hand paints with where a cut-out is corrected.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Stroke } from '../../core/plate/strokes'

interface Brush {
  /** null: nothing is painted. */
  does: Stroke['does'] | null
  /** px of the take from its middle to its border. */
  size: number
}

const initialState: Brush = { does: null, size: 10 }

const slice = createSlice({
  name: 'brush',
  initialState,
  reducers: {
    brushSet: (brush, action: PayloadAction<Partial<Brush>>) => ({ ...brush, ...action.payload }),
  },
})

export const { brushSet } = slice.actions
export const brushReducer = slice.reducer
