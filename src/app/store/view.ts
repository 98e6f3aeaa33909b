// How the open shot is being looked at: nothing here is saved or undone.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Beside, View } from '../../core/plan'

/** Questions that a command asks before it does its work. */
export type Dialog = 'hold' | 'loop' | 'stutter' | 'copies' | 'form' | 'mark' | 'speed'

/** How the picture lies in the well: enlarged by zoom, its top left corner at x, y. */
export interface Camera {
  zoom: number
  x: number
  y: number
}

export interface ViewState {
  /** The playhead of the open shot. */
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
  /** A take that is looked at by itself, with a playhead of its own. */
  take: { digest: string; frame: number } | null
  /** How the lanes are zoomed: px a frame, and the frame at their left; null: the whole shot. */
  lanes: { perFrame: number; left: number } | null
  /** Px that show time in the lanes. */
  lanesWidth: number
  snapping: boolean
  finding: boolean
  /** Whether a frame to go to is being typed. */
  counting: boolean
  dialog: Dialog | null
  piece: string | null
  /** Points of the chosen piece's outline that are chosen. */
  points: number[]
  /** Whether a hand works on the picture just now. */
  handling: boolean
  /** Whether points are being put down one after the other. */
  drawing: boolean
  /** Whether the chosen letters are being typed on the picture. */
  typing: boolean
  /** px of the shot within which an outline leans on edges. */
  reach: number
  /** Which of a layer's settings are open in its card. */
  section: 'source' | 'time' | 'place' | 'looks' | 'sound' | null
  view: View
  /** How the rest is shown where the layer is seen uncut. */
  beside: Beside
  /** Colour of the lines of outlines; null: whichever is seen best on the picture. */
  lineColour: string | null
  /** null: the whole picture fits the well. */
  camera: Camera | null
  /** Whether the picture moves with the chosen piece from frame to frame. */
  goesAlong: boolean
  /** Px of the screen that one of the shot takes up, whichever camera shows it. */
  zoom: number
  /** Whether changes make keys even where a value stands still. */
  keying: boolean
  /** Takes that gave no picture for the frame on the stage. */
  failed: { digest: string; reason: string }[]
  /** Takes whose file is not on this machine. */
  missing: string[]
  readOnly: boolean
  /** What the shot could not be opened with, a phrase each. */
  aside: string[]
  /** Why the last change was not made, as a sentence. */
  refusal: string | null
  saving: 'saved' | 'waiting' | 'failed'
  /** Why the last change is not saved, and what has become of what was, as a sentence. */
  unsaved: string | null
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
  counting: false,
  dialog: null,
  piece: null,
  points: [],
  handling: false,
  drawing: false,
  typing: false,
  reach: 12,
  section: 'time',
  view: 'picture',
  beside: 'plain',
  lineColour: null,
  camera: null,
  goesAlong: false,
  zoom: 1,
  keying: false,
  failed: [],
  missing: [],
  readOnly: false,
  aside: [],
  refusal: null,
  saving: 'saved',
  unsaved: null,
}

function leavePiece(view: ViewState): void {
  view.piece = null
  view.points = []
  view.drawing = false
  view.typing = false
}

const slice = createSlice({
  name: 'view',
  initialState: initialView,
  reducers: {
    viewReset: (_, action: PayloadAction<Partial<ViewState>>) => ({ ...initialView, ...action.payload }),
    /** The playhead of what is on the stage. */
    frameShown(view, action: PayloadAction<number>) {
      if (view.take) view.take.frame = action.payload
      else view.frame = action.payload
    },
    playingSet(view, action: PayloadAction<boolean>) {
      view.playing = action.payload
    },
    layerChosen(view, action: PayloadAction<string | null>) {
      if (view.layer !== action.payload) leavePiece(view)
      view.layer = action.payload
      view.others = []
    },
    /** Chooses several, the first of them with its card open. */
    layersChosen(view, action: PayloadAction<string[]>) {
      const [first = null, ...rest] = action.payload
      if (view.layer !== first) leavePiece(view)
      view.layer = first
      view.others = rest
    },
    /** Chooses one more, or one less. */
    layerToggled(view, action: PayloadAction<string>) {
      const chosen = view.layer ? [view.layer, ...view.others] : view.others
      const next = chosen.includes(action.payload)
        ? chosen.filter(id => id !== action.payload)
        : [...chosen, action.payload]
      if (view.layer !== (next[0] ?? null)) leavePiece(view)
      view.layer = next[0] ?? null
      view.others = next.slice(1)
    },
    groupEntered(view, action: PayloadAction<{ into: string[]; frame: number; layer: string | null }>) {
      view.into = action.payload.into
      view.frame = action.payload.frame
      view.layer = action.payload.layer
      view.others = []
      leavePiece(view)
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
      view.take = { digest: action.payload, frame: 0 }
      view.view = 'picture'
      view.camera = null
      view.lanes = null
    },
    takeClosed(view) {
      if (!view.take) return
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
    countingSet(view, action: PayloadAction<boolean>) {
      view.counting = action.payload
    },
    pieceChosen(view, action: PayloadAction<{ layer: string; piece: string | null }>) {
      if (view.layer !== action.payload.layer) view.others = []
      view.layer = action.payload.layer
      view.piece = action.payload.piece
      view.points = []
      view.drawing = false
      if (view.piece && view.section === 'place') view.section = 'time'
    },
    pointsChosen(view, action: PayloadAction<number[]>) {
      view.points = action.payload
    },
    handlingSet(view, action: PayloadAction<boolean>) {
      view.handling = action.payload
    },
    typingSet(view, action: PayloadAction<boolean>) {
      view.typing = action.payload
      if (view.typing) {
        view.piece = null
        view.drawing = false
        view.section = 'source'
      }
    },
    reachSet(view, action: PayloadAction<number>) {
      view.reach = action.payload
    },
    /** While a matte is drawn, its layer is seen whole. */
    drawingSet(view, action: PayloadAction<boolean>) {
      view.drawing = action.payload
      view.points = []
      if (view.drawing) {
        view.view = 'uncut'
        view.keying = true
      }
    },
    /** The handles on the picture are those of the place, or of a piece: not both. */
    sectionOpened(view, action: PayloadAction<ViewState['section']>) {
      view.section = action.payload
      if (action.payload === 'place') leavePiece(view)
    },
    viewChosen(view, action: PayloadAction<View>) {
      view.view = action.payload
    },
    besideSet(view, action: PayloadAction<Beside>) {
      view.beside = action.payload
      view.view = 'uncut'
    },
    lineColourSet(view, action: PayloadAction<string | null>) {
      view.lineColour = action.payload
    },
    cameraMoved(view, action: PayloadAction<Camera | null>) {
      view.camera = action.payload
    },
    goingAlongSet(view, action: PayloadAction<boolean>) {
      view.goesAlong = action.payload
    },
    zoomMeasured(view, action: PayloadAction<number>) {
      view.zoom = action.payload
    },
    keyingSet(view, action: PayloadAction<boolean>) {
      view.keying = action.payload
    },
    framesFailed(view, action: PayloadAction<ViewState['failed']>) {
      view.failed = action.payload
    },
    takesMissing(view, action: PayloadAction<string[]>) {
      view.missing = action.payload
    },
    asideRead(view) {
      view.aside = []
    },
    refusalTold(view, action: PayloadAction<string | null>) {
      view.refusal = action.payload
    },
    unsavedTold(view, action: PayloadAction<string>) {
      view.saving = 'failed'
      view.unsaved = action.payload
    },
    savingSet(view, action: PayloadAction<ViewState['saving']>) {
      view.saving = action.payload
      if (action.payload === 'saved') view.unsaved = null
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
  countingSet,
  dialogOpened,
  pieceChosen,
  pointsChosen,
  drawingSet,
  handlingSet,
  typingSet,
  reachSet,
  sectionOpened,
  viewChosen,
  besideSet,
  lineColourSet,
  cameraMoved,
  goingAlongSet,
  zoomMeasured,
  keyingSet,
  framesFailed,
  takesMissing,
  asideRead,
  refusalTold,
  unsavedTold,
  savingSet,
} = slice.actions
export const viewReducer = slice.reducer
