// What it costs to part neighbouring cells.
import type { Cells } from './cells'
import type { Noise } from './noise'
import { type Plane, placed } from './plane'
import type { Tones } from './steady'

const BOND = 4
const LEAST = 0.25
/** By sixteenths. */
const FALLING = Float32Array.from({ length: 256 }, (_, i) => LEAST + BOND * Math.exp(-i / 16))

export interface Bonds {
  /** Of each cell to its right neighbour, and to that below. */
  across: Plane
  down: Plane
}

/** Little where the frame has an edge that its plate has not, much where they look alike (as background cut does, Sun 2006). Throws OutOfMemory. */
export function bonds(frame: Cells, plate: Tones, noise: Noise, { across, down }: Bonds): void {
  const { k, width, height, y, u, v } = frame
  const scale = 16 / (12 * noise.y[noise.y.length >> 1]! + 8)
  k.scope(() => {
    k.bondPlanes({
      fy: y.byteOffset,
      fu: u.byteOffset,
      fv: v.byteOffset,
      py: plate.y.byteOffset,
      pu: plate.u.byteOffset,
      pv: plate.v.byteOffset,
      width,
      height,
      scale,
      table: placed(k, FALLING),
      across: across.byteOffset,
      down: down.byteOffset,
    })
  })
}
