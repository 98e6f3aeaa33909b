// The one door through which documents come in: what is read, what is changed, what is pasted.
export { admit, admitTake } from './admit'
export type { Checked } from './checked'
export { checkLayers, writeLayers } from './clipboard'
export { type Salvaged, salvage } from './salvage'
export { checkProject, parseProject, readDocument } from './validate'
