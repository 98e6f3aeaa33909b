// What it costs to part neighbouring cells.
import type { Cells } from './cells'
import type { Noise } from './noise'

const BOND = 4
const LEAST = 0.25
/** e^−x by sixteenths. */
const FALLING = Float32Array.from({ length: 256 }, (_, i) => LEAST + BOND * Math.exp(-i / 16))

/**
 * Little where the frame has an edge that its plate has not, much where they look alike (as background cut does, Sun 2006). `across[i]`: to the right of cell i;
 * `down[i]`: below it.
 */
export function bonds(frame: Cells, plate: Cells, noise: Noise, across: Float32Array, down: Float32Array): void {
  const { width, height } = frame
  const scale = 16 / (12 * noise.y[noise.y.length >> 1]! + 8)
  const [fy, fu, fv] = [frame.y, frame.u, frame.v]
  const [py, pu, pv] = [plate.y, plate.u, plate.v]
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const [ey, eu, ev] = [fy[i]! - py[i]!, fu[i]! - pu[i]!, fv[i]! - pv[i]!]
      if (x < width - 1) {
        const [dy, du, dv] = [ey - fy[i + 1]! + py[i + 1]!, eu - fu[i + 1]! + pu[i + 1]!, ev - fv[i + 1]! + pv[i + 1]!]
        const far = ((dy * dy + du * du + dv * dv) * scale) | 0
        across[i] = far < 256 ? FALLING[far]! : LEAST
      }
      if (y < height - 1) {
        const j = i + width
        const [dy, du, dv] = [ey - fy[j]! + py[j]!, eu - fu[j]! + pu[j]!, ev - fv[j]! + pv[j]!]
        const far = ((dy * dy + du * du + dv * dv) * scale) | 0
        down[i] = far < 256 ? FALLING[far]! : LEAST
      }
    }
  }
}
