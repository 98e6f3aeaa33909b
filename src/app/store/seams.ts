// What was measured along edges between takes; thrown away with the visit.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

interface MeasuredSeam {
  piece: string
  frames: number[]
  /** Shares of full light by which the two sides differ, frame by frame. */
  left: number[]
  /** px of feather that hide it. */
  feather: number
}

const slice = createSlice({
  name: 'seams',
  initialState: {} as Record<string, MeasuredSeam>,
  reducers: {
    seamMeasured(seams, action: PayloadAction<MeasuredSeam>) {
      seams[action.payload.piece] = action.payload
    },
  },
})

export const { seamMeasured } = slice.actions
export const seamsReducer = slice.reducer
