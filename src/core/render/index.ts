export { planesLength, renderPlanes, writePlanes } from './encode'
export { type Kernels, loadKernels } from './kernels'
export { OutOfMemory } from './memory'
export {
  type ChromaPlace,
  type Codes,
  isOpaque,
  type Matrix,
  type Picture,
  type Planes,
  toCodesPicture,
  turned,
} from './picture'
export { hides, mayHide } from './place'
export { renderFrame } from './render'
export { resample } from './resample'
export { lumaShares } from './rows'
