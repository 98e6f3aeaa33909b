// Where somebody looks like the set the frame before decides: what it told of them goes along with them.
import { BLOCK, shiftsOf, squaresOf, squaresWith } from './blocks'
import type { Cells } from './cells'
import type { Noise } from './noise'
import type { Plane } from './plane'
import type { Tones } from './steady'

/** Log odds of a frame before that count at most. */
const MOST = 6
/** Cells that they have to have gone: before the same part of the set nothing new is seen of them. */
const GONE = 2
/** Codes by which a cell may differ from where it comes from, and by how much more its colour counts. */
const ALIKE = 8
const COLOUR = 2
/** How much squares differ by noise alone, in its standard deviation. */
const CALM = 1.3
/** Squares beside somebody that they may have come to. */
const BESIDE = 2

/** The squares that are asked about: with cells that look like the set, where somebody was or near by. */
function asked(frame: Cells, told: Plane, odds: Plane): Uint8Array {
  const { width, height } = squaresOf(frame)
  const stood = squaresWith(frame.k, frame, told, 1)
  const likeSet = squaresWith(frame.k, frame, odds, -1)
  const wanted = new Uint8Array(stood.length)
  for (let at = 0; at < stood.length; at++) {
    if (stood[at] === 0) continue
    const [column, row] = [at % width, Math.floor(at / width)]
    for (let v = Math.max(0, row - BESIDE); v <= Math.min(height - 1, row + BESIDE); v++)
      for (let u = Math.max(0, column - BESIDE); u <= Math.min(width - 1, column + BESIDE); u++)
        wanted[v * width + u] = likeSet[v * width + u]!
  }
  return wanted
}

/**
 * Raises the log odds of cells that look like the set, by what was told of the place in the frame before from which they come: a part of somebody that goes is seen before
 * other parts of the set, one after another. `before`: what that frame looked like; `told`: its log odds.
 * Throws OutOfMemory.
 */
export function goAlong(frame: Cells, before: Tones, noise: Noise, told: Plane, odds: Plane): void {
  const { width, height } = frame
  const wanted = asked(frame, told, odds)
  const columns = squaresOf(frame).width
  const calm = CALM * Math.sqrt(noise.y.reduce((sum, v) => sum + v, 0) / noise.y.length)
  const shifts = shiftsOf(frame.k, frame, { width, height, y: before.y }, wanted, calm)
  for (let at = 0; at < wanted.length; at++) {
    const [dx, dy] = [shifts[2 * at]!, shifts[2 * at + 1]!]
    if (wanted[at] === 0 || Math.abs(dx) + Math.abs(dy) < GONE) continue
    const [left, top] = [(at % columns) * BLOCK, Math.floor(at / columns) * BLOCK]
    for (let v = top; v < Math.min(height, top + BLOCK); v++) {
      const from = Math.max(0, Math.min(height - 1, v + dy)) * width
      for (let u = left; u < Math.min(width, left + BLOCK); u++) {
        const i = v * width + u
        const j = from + Math.max(0, Math.min(width - 1, u + dx))
        if (odds[i]! >= 0 || told[j]! <= 0) continue
        const [y, cu, cv] = [frame.y[i]! - before.y[j]!, frame.u[i]! - before.u[j]!, frame.v[i]! - before.v[j]!]
        const squares = (y * y + COLOUR * (cu * cu + cv * cv)) / (ALIKE * ALIKE)
        odds[i]! += Math.min(MOST, told[j]!) * Math.exp(-squares / 2)
      }
    }
  }
}
