// Somebody's own colours where they are soft, in order of px.
import { type Cells, LIFT } from './cells'

/** By how much alpha may have come to differ, of 255, for a colour to be told with it still. */
const STALE = 40

/** Red, green and blue of px that are neither nought nor all somebody's. `alpha`, `colours`: where `soften` left them. Throws OutOfMemory. */
export function packedColours({ k, full, luma, u, v }: Cells, alpha: number, colours: number): Uint8Array {
  const { width, height } = full
  return k.scope(() => {
    const out = k.alloc(width * height * 3)
    const [l, cu, cv] = [luma, u, v].map(plane => plane.byteOffset) as [number, number, number]
    const count = k.packColours({ alpha, colours, luma: l, u: cu, v: cv, width, height, lift: LIFT, stale: STALE, out })
    return k.bytes(out, count * 3).slice()
  })
}
