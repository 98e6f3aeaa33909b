// Labels of cells -> alpha of px.
import { type Cells, LIFT } from './cells'
import type { Knowledge } from './evidence'
import { POWER } from './light'
import { boxMean, type Plane, placed, planeIn } from './plane'
import { dropIslands, dropSpecks } from './specks'

/** Cells outside and inside of the border between somebody and the set in which alpha is solved for, and over which inwards is told. */
const OUT = 2
const INTO = 3
const TELLING = 2
/** Cells over which the light of the set beside it is gathered. */
const ASIDE = 6
/** How many cells farther in the colours are looked up that may be mixed with the set's. */
const INWARD = [1, 2, 3.5, 5, 7, 10]
/** By how much somebody's colour may change from there, codes². */
const VARIES = 14
/** How far alpha may be from what the border lets expect. */
const LOOSE = 0.35
/** Codes by which thin things have to differ from the set to be one. */
const THIN = 14
/** Noise of a px, in that of the mean of a cell. */
const SINGLE = 3
/** What a colour of somebody's costs that is none of those. */
const UNKNOWN = 26
/** Colour is told by half as many px, and less finely: its variance in that of luma. */
const COLOUR = 6
/** The light of lifted codes by quarters, 255 being that of white. */
const LIGHT = Float32Array.from({ length: 2048 }, (_, i) => (i / 4 / (255 + LIFT)) ** (1 / POWER) * 255)
/** Of squares by sixteenths; what is next to impossible counts for nothing. */
const LIKELY = Float32Array.from({ length: 1024 }, (_, i) => (i < 1023 ? Math.exp(-i / 32) : 0))

/**
 * Alpha near the border by projection onto the line from the plate's colour, which is known, to somebody's own, sampled from farther in (as in
 * sampling-based matting: Wang and Cohen 2007, Gastal and Oliveira 2010); all candidates count by how well they explain what is
 * seen. `told`: log odds of each cell; `left`: what the shadow leaves of the plate.
 */
export function soften(
  frame: Cells,
  plate: Cells,
  { slopes, noise }: Pick<Knowledge, 'slopes' | 'noise'>,
  told: Plane,
  left: Plane,
): Uint8Array {
  const { k, width, height, full } = frame
  return k.scope(() => {
    const n = width * height
    const [is, share, deep, inward, setW, setS] = Array.from({ length: 6 }, () => planeIn(k, n)) as [
      Plane,
      Plane,
      Plane,
      Plane,
      Plane,
      Plane,
    ]
    for (let i = 0; i < n; i++) is[i] = told[i]! > 0 ? 1 : 0
    boxMean(k, frame, is, OUT, share)
    boxMean(k, frame, is, INTO, deep)
    for (let i = 0; i < n; i++) {
      if (share[i]! >= 0.001) continue
      setW[i] = 1
      setS[i] = left[i]!
    }
    boxMean(k, frame, setW, ASIDE, setW)
    boxMean(k, frame, setS, ASIDE, setS)
    boxMean(k, frame, deep, TELLING, inward)
    const alpha = k.alloc(full.width * full.height)
    const pictures = [frame.y, frame.u, frame.v, frame.luma, plate.y, plate.u, plate.v, plate.luma]
    const planes = [...pictures, slopes, is, share, deep, inward, setW, setS, left]
    const tables = [noise.y, LIGHT, LIKELY, INWARD].map(table => placed(k, table))
    const addresses = k.alloc(4 * 21)
    k.ints(addresses, 21).set([...planes.map(plane => plane.byteOffset), ...tables, alpha])
    const numbers = placed(k, [noise.u, noise.slope, SINGLE, COLOUR, VARIES, LOOSE, THIN, UNKNOWN])
    k.softenCells(addresses, numbers, width, height, full.width, full.height, INWARD.length)
    const found = k.bytes(alpha, full.width * full.height).slice()
    dropSpecks(full, found)
    dropIslands(full, found)
    return found
  })
}
