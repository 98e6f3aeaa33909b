export { matteRow } from './coverage'
export { type StillMatte, stillMatte } from './still'
