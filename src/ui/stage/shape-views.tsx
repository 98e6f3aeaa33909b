// How each kind of shape looks and is taken hold of, a line each.
import {
  Circle,
  Layers2,
  type LucideIcon,
  PersonStanding,
  RectangleHorizontal,
  SeparatorVertical,
  Spline,
  Waypoints,
} from 'lucide-react'
import type { ComponentType } from 'react'
import type { Camera } from '../../app/store'
import type { Layer, Piece, Shape, Shot } from '../../core/shot'
import { CutFields, cutSummary } from '../stack/CutFields'
import { BentSeamFields, SeamFields } from '../stack/SeamFields'
import { ShownFields, shownSummary } from '../stack/ShownFields'
import { EdgeHandles } from './EdgeHandles'
import { FrameHandles } from './FrameHandles'
import { OutlineHandles } from './outline/OutlineHandles'
import { OutlineHint } from './outline/OutlineHint'
import { StrokeHandles } from './StrokeHandles'

/** What handles on the picture are given; the piece has a shape of the kind that they are for. */
export interface HandlesProps {
  layer: Layer
  piece: Piece
  frame: number
  camera: Camera
  /** What shows the picture. */
  canvas: HTMLCanvasElement
  onActive: (active: boolean) => void
}

/** A number of the shape's value in the piece's card. */
interface Field {
  field: string
  label: string
  unit?: string
  min?: number
  initial: number
  step?: number
}

interface ShapeView {
  icon: LucideIcon
  /** Left out: nothing of it can be taken hold of. */
  Handles?: ComponentType<HandlesProps>
  /** What of it stands over the picture besides. */
  Hint?: ComponentType<{ piece: Piece }>
  fields: readonly Field[]
  /** What of it can be set in the card besides numbers. */
  Fields?: ComponentType<{ layer: Layer; piece: Piece }>
  /** What else can be done with it there, under its numbers. */
  More?: ComponentType<{ piece: Piece }>
  /** What it does, where that can be said better than for any piece. */
  summary?: (piece: Piece, shot: Shot | null) => string | null
}

const PLACE: readonly Field[] = [
  { field: 'x', label: 'Across', initial: 0 },
  { field: 'y', label: 'Down', initial: 0 },
]
const EXTENT: readonly Field[] = [
  { field: 'width', label: 'Width', min: 0, initial: 100 },
  { field: 'height', label: 'Height', min: 0, initial: 100 },
]
const TURN: readonly Field[] = [{ field: 'angle', label: 'Turn', unit: '°', initial: 0, step: 0.5 }]

const sideOf = ({ join, inverted }: Piece): string | null =>
  join === 'add' ? `keeps its ${inverted ? 'left' : 'right'}` : null

export const SHAPE_VIEWS: Readonly<Record<Shape['kind'], ShapeView>> = {
  edge: {
    icon: SeparatorVertical,
    Handles: EdgeHandles,
    fields: [...PLACE, ...TURN],
    More: SeamFields,
    summary: sideOf,
  },
  box: { icon: RectangleHorizontal, Handles: FrameHandles, fields: [...PLACE, ...EXTENT, ...TURN] },
  oval: { icon: Circle, Handles: FrameHandles, fields: [...PLACE, ...EXTENT, ...TURN] },
  outline: { icon: Spline, Handles: OutlineHandles, Hint: OutlineHint, fields: [], More: BentSeamFields },
  strip: { icon: Waypoints, Handles: OutlineHandles, Hint: OutlineHint, fields: [] },
  layer: { icon: Layers2, fields: [], Fields: ShownFields, summary: shownSummary },
  cutout: { icon: PersonStanding, Handles: StrokeHandles, fields: [], Fields: CutFields, summary: cutSummary },
}
