// How the open shot is being looked at: nothing here is saved or undone.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { View } from '../../core/plan'

/** How the picture lies in the well: enlarged by zoom, its top left corner at x, y. */
export interface Camera {
  zoom: number
  x: number
  y: number
}

export interface ViewState {
  frame: number
  playing: boolean
  layer: string | null
  piece: string | null
  view: View
  /** null: the whole picture fits the well. */
  camera: Camera | null
  /** Whether changes make keys even where a value stands still. */
  keying: boolean
  /** Takes that gave no picture for the frame on the stage. */
  failed: { digest: string; reason: string }[]
  readOnly: boolean
  saving: 'saved' | 'waiting' | 'failed'
}

export const initialView: ViewState = {
  frame: 0,
  playing: false,
  layer: null,
  piece: null,
  view: 'picture',
  camera: null,
  keying: false,
  failed: [],
  readOnly: false,
  saving: 'saved',
}

const slice = createSlice({
  name: 'view',
  initialState: initialView,
  reducers: {
    viewReset: (_, action: PayloadAction<Partial<ViewState>>) => ({ ...initialView, ...action.payload }),
    frameShown(view, action: PayloadAction<number>) {
      view.frame = action.payload
    },
    playingSet(view, action: PayloadAction<boolean>) {
      view.playing = action.payload
    },
    layerChosen(view, action: PayloadAction<string | null>) {
      if (view.layer !== action.payload) view.piece = null
      view.layer = action.payload
    },
    pieceChosen(view, action: PayloadAction<{ layer: string; piece: string | null }>) {
      view.layer = action.payload.layer
      view.piece = action.payload.piece
    },
    viewChosen(view, action: PayloadAction<View>) {
      view.view = action.payload
    },
    cameraMoved(view, action: PayloadAction<Camera | null>) {
      view.camera = action.payload
    },
    keyingSet(view, action: PayloadAction<boolean>) {
      view.keying = action.payload
    },
    framesFailed(view, action: PayloadAction<ViewState['failed']>) {
      view.failed = action.payload
    },
    savingSet(view, action: PayloadAction<ViewState['saving']>) {
      view.saving = action.payload
    },
  },
})

export const {
  viewReset,
  frameShown,
  playingSet,
  layerChosen,
  pieceChosen,
  viewChosen,
  cameraMoved,
  keyingSet,
  framesFailed,
  savingSet,
} = slice.actions
export const viewReducer = slice.reducer
