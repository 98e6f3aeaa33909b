// Every kind of shape that a piece of a matte can have, a line each.
import { sample, type Value } from '../keys'
import type { OutlinePoint } from '../outline'
import type { Cut } from '../plate/recipe'
import type { Kernels } from '../render/kernels'
import { BOX } from './box'
import { CUTOUT } from './cutout'
import { EDGE, type Line, type PlannedEdge } from './edge'
import type { Frame, PlannedFrame } from './framed'
import type { Composing, Feather, ShapeKind } from './kind'
import { LAYER, type PlannedShown, type Shown } from './layer'
import { OUTLINE, type PlannedOutline } from './outline'
import { OVAL } from './oval'
import { type PlannedStrip, STRIP } from './strip'

export type { Line } from './edge'
export type { Frame } from './framed'
export type { Beside, Composing, Coverage, Feather, SchemaWords } from './kind'
export { READINGS, type Reading, type Shown } from './layer'
export { openRings } from './rings'

export type Shape =
  | { kind: 'edge'; line: Value<Line> }
  | { kind: 'box'; frame: Value<Frame> }
  | { kind: 'oval'; frame: Value<Frame> }
  | { kind: 'outline'; points: Value<OutlinePoint[]> }
  | { kind: 'strip'; points: Value<OutlinePoint[]> }
  | { kind: 'layer'; shows: Value<Shown> }
  | { kind: 'cutout'; cut: Value<Cut> }

export type PlannedShape = PlannedEdge | PlannedFrame<'box' | 'oval'> | PlannedOutline | PlannedStrip | PlannedShown

const TABLE = {
  edge: EDGE,
  box: BOX,
  oval: OVAL,
  outline: OUTLINE,
  strip: STRIP,
  layer: LAYER,
  cutout: CUTOUT,
} as const satisfies Record<Shape['kind'], unknown>

/** The kinds by name, for whoever does not care which one it is. */
export const SHAPES = TABLE as unknown as Readonly<Record<Shape['kind'], ShapeKind<unknown, PlannedShape>>>

export const SHAPE_KINDS = Object.keys(TABLE) as Shape['kind'][]

/** Opens the coverage of a shape for a frame of some size, as its kind says. */
export const openShape = (k: Kernels, shape: PlannedShape, feather: Feather, making: Composing) =>
  SHAPES[shape.kind].open(k, shape, feather, making)

/** What of a shape can carry keys. */
export const shapeValue = (shape: Shape): Value<unknown> =>
  (shape as unknown as Record<string, Value<unknown>>)[SHAPES[shape.kind].field]!

/** A shape's value as it is at a frame. */
export const shapeAt = (shape: Shape, frame: number): unknown =>
  sample(shapeValue(shape), frame, SHAPES[shape.kind].mix)

/** A shape with another value in the place of the one that it has. */
export const shapeWith = (kind: Shape['kind'], value: Value<unknown>): Shape =>
  ({ kind, [SHAPES[kind].field]: value }) as unknown as Shape
