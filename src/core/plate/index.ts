export { meanCells, medianCells } from './background'
export { blankCells, type Cells, cellsToRgba, readCells } from './cells'
export { type Cutout, cutout } from './cutout'
export { CUTOUT_METHOD, type Cut, cutoutRecipe } from './recipe'
