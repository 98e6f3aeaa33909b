// Luma and chroma by one matrix as they are by another.
import type { Matrix } from '../render'
import { lumaShares } from '../render'
import type { Cells } from './cells'

/**
 * Turns luma, u and v of cells that are coded by some matrix into those by BT.709 (ITU-T H.273, 8.3: Y = kr R + kg G + kb B, U and V the differences of blue and red to it). Each px
 * has the chroma of its cell.
 */
export function toBt709({ full, width, luma, u, v }: Cells, matrix: Matrix): void {
  const [kr, kb] = lumaShares(matrix)
  const [ownR, ownB] = lumaShares('bt709')
  const [kg, ownG] = [1 - kr - kb, 1 - ownR - ownB]
  const [red, blue] = [2 * (1 - kr), 2 * (1 - kb)]
  // What u and v add to the other luma.
  const [lumaU, lumaV] = [blue * (ownB - (ownG * kb) / kg), red * (ownR - (ownG * kr) / kg)]
  for (let y = 0, p = 0; y < full.height; y++) {
    const row = (y >> 1) * width
    for (let x = 0; x < full.width; x++, p++) {
      const i = row + (x >> 1)
      luma[p] = luma[p]! + lumaU * u[i]! + lumaV * v[i]!
    }
  }
  const [byBlue, byRed] = [1 / (2 * (1 - ownB)), 1 / (2 * (1 - ownR))]
  for (let i = 0; i < u.length; i++) {
    const [cu, cv] = [u[i]!, v[i]!]
    u[i] = ((blue - lumaU) * cu - lumaV * cv) * byBlue
    v[i] = ((red - lumaV) * cv - lumaU * cu) * byRed
  }
}
