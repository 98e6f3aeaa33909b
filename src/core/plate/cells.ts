// A picture as what empty sets are compared by: cells of 2×2 px, in codes in which light is a factor.
import type { ChromaPlace, Kernels } from '../render'
import type { Size } from '../shot/types'
import { type Plane, planeIn } from './plane'

/**
 * sRGB codes grow by a factor where light does once so much is added to them: 255 · 0.055, and the same in the range of luma.
 * (IEC 61966-2-1: code = 1.055 · light^(1/2.4) − 0.055.)
 */
export const LIFT = 14.025

/** As films have it, and as planes are written here. */
const USUAL: ChromaPlace = { across: 'even', down: 'between' }

/** Of a picture of `full` px, in the memory of `k`. Rows close together; y lifted, u and v about nought, in codes of full range by the matrix of BT.709. */
export interface Cells extends Size {
  k: Kernels
  full: Size
  /** Where u and v lie. */
  chroma: ChromaPlace
  y: Plane
  u: Plane
  v: Plane
  /** Luma of each px, in codes of full range, lifted. */
  luma: Plane
}

/** Throws OutOfMemory. */
export function blankCells(k: Kernels, full: Size): Cells {
  const width = (full.width + 1) >> 1
  const height = (full.height + 1) >> 1
  const plane = () => planeIn(k, width * height)
  const luma = planeIn(k, full.width * full.height)
  return { k, full, chroma: USUAL, width, height, y: plane(), u: plane(), v: plane(), luma }
}

/** Copies all planes. */
export function copyCells(from: Cells, to: Cells): void {
  for (const name of ['y', 'u', 'v', 'luma'] as const) to[name].set(from[name])
  to.chroma = from.chroma
}
