export { asTake, insideOf, sourceKind, takeSeconds } from '../source'
export { besideOf, isPlate, plateFor, plateIn } from './beside'
export { clone } from './clone'
export * as edits from './edits'
export { endsEarly, hiddenBy, hidesOthers } from './hides'
export {
  aloneShot,
  dropTakeLayers,
  hasDerived,
  innerShot,
  isMade,
  takeShot,
  takeUses,
  usedTakes,
} from './inner'
export { LIMITS } from './limits'
export {
  actLayers,
  blankLayer,
  makeLayer,
  makePiece,
  makeProject,
  makeShape,
  newId,
  type Placing,
  plateLayer,
} from './make'
export { makeLettering, makePanel } from './make-graphic'
export { matteOf } from './make-matte'
export { matteShot } from './matte-shot'
export { bareName } from './names'
export { motionMap, pieceMap, pinnedCorners, placeMap } from './place'
export { layersFor, shownElsewhere } from './shown'
export { fadeAt, framesOf, momentAt, type Pass, passesOf, possibleSpeed, reach, speedOf } from './timing'
export {
  type Act,
  type AnyValue,
  type Blend,
  type Blur,
  type Copies,
  type Film,
  FORMAT,
  type FontAxis,
  type FontFace,
  type Frame,
  type Join,
  type Layer,
  type Line,
  type LoopStyle,
  type Mark,
  type Motion,
  type Piece,
  type Pin,
  type Place,
  type Point,
  type Project,
  type Shape,
  type Shot,
  type Size,
  type Source,
  type Stretch,
  TAGS,
  type Tag,
  type Take,
  type Timing,
  VERSION,
} from './types'
export { carriedPiece, getValue, keyedPaths, type PieceValue, type ValuePath, valueAt, valueName } from './values'
export { wayOf } from './way'
export { workOf } from './work'
