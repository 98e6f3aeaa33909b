// Where a frame differs from its plate at all: elsewhere nobody has to be looked for.
import { BLOCK, squaresOf } from './blocks'
import type { Cells } from './cells'
import { SLOPE } from './evidence'
import type { Noise } from './noise'
import { area, type Part, type Plane, placed, whole } from './plane'
import type { Tones } from './steady'

/** Squares of a cell's differences that count at most, in variances; their mean in a square from which on it differs, and what it is by noise alone. */
const MOST = 64
const DIFFERS = 5.5
const NOISE = 3
/** What each cell of somebody comes to at least. */
const PLAIN = 40
/** Share of a square's light that is missing in shadow, and squares in shadow that are worth being seen. */
const MISSING = 0.015
const SHADED = 8
/** Squares round what differs that are looked at with it. */
const ROUND = 2
/** Of a larger share of the picture all is looked at. */
const ALL = 0.6

/** By how much squares of a picture differ, as `differSquares` tells it. */
function squaresThatDiffer(frame: Cells, plate: Tones, noise: Noise, slopes: Plane): Float32Array {
  const { k, width, height } = frame
  const squares = area(squaresOf(frame))
  return k.scope(() => {
    const [planes, out] = [k.alloc(32), k.alloc(squares * 4)]
    const addresses = [frame.y, frame.u, frame.v, plate.y, plate.u, plate.v, slopes].map(plane => plane.byteOffset)
    k.ints(planes, 8).set([...addresses, placed(k, noise.y)])
    const steep = [SLOPE * noise.slope, SLOPE * noise.slopeC]
    const numbers = placed(k, [noise.u, noise.v, ...steep, MOST, DIFFERS, MISSING])
    k.differSquares({ planes, width, height, block: BLOCK, numbers, out })
    return k.floats(out, squares).slice()
  })
}

/** Makes groups of squares that touch nought where they differ by less than `speck` cells of somebody do, and are hardly in shadow. */
function dropSmall(squares: Float32Array, columns: number, speck: number): void {
  const seen = new Uint8Array(squares.length)
  for (let first = 0; first < squares.length; first++) {
    if (squares[first] === 0 || seen[first] === 1) continue
    const group = [first]
    seen[first] = 1
    let [differ, shaded] = [0, 0]
    for (let i = 0; i < group.length; i++) {
      const mean = squares[group[i]!]!
      if (mean < 0) shaded++
      else differ += (mean - NOISE) * BLOCK ** 2
      const column = group[i]! % columns
      for (const by of [-columns, 0, columns]) {
        for (let dx = column > 0 ? -1 : 0; dx <= (column < columns - 1 ? 1 : 0); dx++) {
          const at = group[i]! + by + dx
          if (at < 0 || at >= squares.length || squares[at] === 0 || seen[at] === 1) continue
          seen[at] = 1
          group.push(at)
        }
      }
    }
    if (differ < speck * PLAIN && shaded < SHADED) for (const at of group) squares[at] = 0
  }
}

/**
 * The part of a frame in which anything may differ from its plate, or in which somebody was found in the frame before (`stood`, 1 a square), in whole squares; nothing: null. Things of
 * up to `speck` cells by themselves do not count. `slopes`: squared slopes of the plate. Throws OutOfMemory.
 */
export function partThatDiffers(
  frame: Cells,
  plate: Tones,
  { noise, slopes }: { noise: Noise; slopes: Plane },
  stood: Uint8Array,
  speck: number,
): Part | null {
  const { width, height } = squaresOf(frame)
  const squares = squaresThatDiffer(frame, plate, noise, slopes)
  dropSmall(squares, width, speck)
  let [left, right, top, bottom] = [width, -1, height, -1]
  for (let at = 0; at < squares.length; at++) {
    if (squares[at] === 0 && stood[at] === 0) continue
    const [column, row] = [at % width, Math.floor(at / width)]
    left = Math.min(left, column)
    right = Math.max(right, column)
    top = Math.min(top, row)
    bottom = row
  }
  if (right < 0) return null
  const [x, y] = [Math.max(0, left - ROUND) * BLOCK, Math.max(0, top - ROUND) * BLOCK]
  const [endX, endY] = [right, bottom].map(last => (last + 1 + ROUND) * BLOCK) as [number, number]
  const part = { x, y, width: Math.min(frame.width, endX) - x, height: Math.min(frame.height, endY) - y }
  return part.width * part.height > ALL * frame.width * frame.height ? whole(frame) : part
}
