// How the open shot is being looked at: nothing here is saved or undone.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { View } from '../../core/plan'

/** Questions that a command asks before it does its work. */
export type Dialog = 'hold' | 'loop' | 'stutter' | 'copies' | 'form' | 'mark' | 'speed'

/** How the picture lies in the well: enlarged by zoom, its top left corner at x, y. */
export interface Camera {
  zoom: number
  x: number
  y: number
}

export interface ViewState {
  frame: number
  playing: boolean
  /** The layer whose card is open. */
  layer: string | null
  /** Layers that are chosen besides. */
  others: string[]
  /** The groups one has gone into, the outermost first. */
  into: string[]
  /** Layers that alone are seen and heard; none: all of them. */
  alone: string[]
  /** A take that is looked at by itself, and the frame to come back to. */
  take: { digest: string; back: number } | null
  /** How the lanes are zoomed: px a frame, and the frame at their left; null: the whole shot. */
  lanes: { perFrame: number; left: number } | null
  /** Px that show time in the lanes. */
  lanesWidth: number
  snapping: boolean
  finding: boolean
  dialog: Dialog | null
  piece: string | null
  /** Which of a layer's settings are open in its card. */
  section: 'time' | 'place' | 'sound' | null
  view: View
  /** null: the whole picture fits the well. */
  camera: Camera | null
  /** Whether changes make keys even where a value stands still. */
  keying: boolean
  /** Takes that gave no picture for the frame on the stage. */
  failed: { digest: string; reason: string }[]
  /** What is being brought in, in words. */
  bringing: string | null
  /** Takes whose file is not on this machine. */
  missing: string[]
  readOnly: boolean
  saving: 'saved' | 'waiting' | 'failed'
}

export const initialView: ViewState = {
  frame: 0,
  playing: false,
  layer: null,
  others: [],
  into: [],
  alone: [],
  take: null,
  lanes: null,
  lanesWidth: 800,
  snapping: true,
  finding: false,
  dialog: null,
  piece: null,
  section: 'time',
  view: 'picture',
  camera: null,
  keying: false,
  failed: [],
  bringing: null,
  missing: [],
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
      view.others = []
    },
    /** Chooses several, the first of them with its card open. */
    layersChosen(view, action: PayloadAction<string[]>) {
      const [first = null, ...rest] = action.payload
      if (view.layer !== first) view.piece = null
      view.layer = first
      view.others = rest
    },
    /** Chooses one more, or one less. */
    layerToggled(view, action: PayloadAction<string>) {
      const chosen = view.layer ? [view.layer, ...view.others] : view.others
      const next = chosen.includes(action.payload)
        ? chosen.filter(id => id !== action.payload)
        : [...chosen, action.payload]
      if (view.layer !== (next[0] ?? null)) view.piece = null
      view.layer = next[0] ?? null
      view.others = next.slice(1)
    },
    groupEntered(view, action: PayloadAction<{ into: string[]; frame: number; layer: string | null }>) {
      view.into = action.payload.into
      view.frame = action.payload.frame
      view.layer = action.payload.layer
      view.others = []
      view.piece = null
      view.alone = []
      view.lanes = null
      view.camera = null
    },
    aloneToggled(view, action: PayloadAction<string[]>) {
      const all = action.payload.every(id => view.alone.includes(id))
      view.alone = all
        ? view.alone.filter(id => !action.payload.includes(id))
        : [...new Set([...view.alone, ...action.payload])]
    },
    takeOpened(view, action: PayloadAction<string>) {
      view.take = { digest: action.payload, back: view.take?.back ?? view.frame }
      view.frame = 0
      view.view = 'picture'
      view.camera = null
      view.lanes = null
    },
    takeClosed(view) {
      if (!view.take) return
      view.frame = view.take.back
      view.take = null
      view.camera = null
      view.lanes = null
    },
    lanesZoomed(view, action: PayloadAction<ViewState['lanes']>) {
      view.lanes = action.payload
    },
    lanesMeasured(view, action: PayloadAction<number>) {
      view.lanesWidth = action.payload
    },
    snappingSet(view, action: PayloadAction<boolean>) {
      view.snapping = action.payload
    },
    dialogOpened(view, action: PayloadAction<Dialog | null>) {
      view.dialog = action.payload
    },
    findingSet(view, action: PayloadAction<boolean>) {
      view.finding = action.payload
    },
    pieceChosen(view, action: PayloadAction<{ layer: string; piece: string | null }>) {
      if (view.layer !== action.payload.layer) view.others = []
      view.layer = action.payload.layer
      view.piece = action.payload.piece
      if (view.piece && view.section === 'place') view.section = 'time'
    },
    /** The handles on the picture are those of the place, or of a piece: not both. */
    sectionOpened(view, action: PayloadAction<ViewState['section']>) {
      view.section = action.payload
      if (action.payload === 'place') view.piece = null
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
    bringingTold(view, action: PayloadAction<string | null>) {
      view.bringing = action.payload
    },
    takesMissing(view, action: PayloadAction<string[]>) {
      view.missing = action.payload
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
  layersChosen,
  layerToggled,
  groupEntered,
  aloneToggled,
  takeOpened,
  takeClosed,
  lanesZoomed,
  lanesMeasured,
  snappingSet,
  findingSet,
  dialogOpened,
  pieceChosen,
  sectionOpened,
  viewChosen,
  cameraMoved,
  keyingSet,
  framesFailed,
  bringingTold,
  takesMissing,
  savingSet,
} = slice.actions
export const viewReducer = slice.reducer
