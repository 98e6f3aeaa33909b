// Which of two things each cell is, told by itself and its neighbours together.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import type { Plane } from './plane'

/**
 * Min-sum belief propagation of two labels on a grid of four neighbours, by sweeps to the right, left, down and up
 * (Felzenszwalb and Huttenlocher, "Efficient belief propagation for early vision", 2006; in log odds a message of a Potts
 * model is what is known, held within what the bond is worth).
 *
 * `odds`: log odds of each cell by itself. `across[i]` and `down[i]`: what it costs to part cell i from its right and lower
 * neighbour. Log odds told together are written to `out`. Throws OutOfMemory.
 */
export function believe(
  k: Kernels,
  { width, height }: Size,
  odds: Plane,
  { across, down }: { across: Plane; down: Plane },
  sweeps: number,
  out: Plane,
): void {
  k.scope(() => {
    const [left, right, above, below] = [0, 0, 0, 0].map(() => k.alloc(width * height * 4)) as [
      number,
      number,
      number,
      number,
    ]
    const own = k.alloc(4 * width * 4)
    const [o, a, d] = [odds.byteOffset, across.byteOffset, down.byteOffset]
    k.believe({
      odds: o,
      across: a,
      down: d,
      width,
      height,
      sweeps,
      left,
      right,
      above,
      below,
      own,
      out: out.byteOffset,
    })
  })
}
