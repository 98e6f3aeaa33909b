export { type Kept, keptCells, medianCells, seldomSeen } from './background'
export { findBend } from './bend'
export { type Between, comparer } from './between'
export { type Carrier, carrier, type Told } from './carry'
export { blankCells, type Cells, copyCells } from './cells'
export { cellsPicture } from './cells-picture'
export { CUTTING_BYTES, type Cutout, cutout } from './cutout'
export { emptyMean } from './empty'
export { grainBetween } from './grain'
export { inLight, type Light, lightsOf, measureGain } from './light'
export { occupied } from './occupied'
export { canShrink, readCells, readSmaller } from './read-cells'
export {
  CARRIED_METHOD,
  COLOURS_PART,
  CUTOUT_METHOD,
  type Cut,
  cutOf,
  cutoutRecipe,
  lockOffRecipe,
  strokesOf,
} from './recipe'
export { type Advice, type Finding, findings, type Measured, ON_THE_WAY, type Seen } from './report'
export { type Bend, differencesOf, featherFor, findSeam, meanAlong } from './seam'
export { putSetBack } from './settle'
export { addHint, type Hint, hintOf, type Stroke } from './strokes'
export { changes, type Side, sideOf } from './whose-side'
