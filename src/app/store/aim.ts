// What waits for a press on the picture: something that is to ride on what is pressed.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** A layer, or one of its pieces. */
export interface Rider {
  layer: string
  piece: string | null
}

const slice = createSlice({
  name: 'aim',
  initialState: null as Rider | null,
  reducers: {
    aimSet: (_, action: PayloadAction<Rider | null>) => action.payload,
  },
})

export const { aimSet } = slice.actions
export const aimReducer = slice.reducer
