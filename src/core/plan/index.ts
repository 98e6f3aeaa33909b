export { digestOf } from './digest'
export { neededFor, neededFrames, planFrame, scaledSize } from './plan'
export type { Plan, PlannedLayer, PlannedPiece } from './types'
export { BESIDES, type Beside, planView, VIEWS, type View } from './view'
