export { addCells, keptCells, medianCells } from './background'
export { blankCells, type Cells, cellsToRgba, readCells } from './cells'
export { CUTTING_BYTES, type Cutout, cutout } from './cutout'
export { CUTOUT_METHOD, type Cut, cutoutRecipe } from './recipe'
