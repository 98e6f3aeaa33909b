// Labels of cells -> alpha of px.
import { BLUE_U as BU, type Cells, RED_V as RV } from './cells'
import { binOf, type Noise } from './noise'
import { boxMean } from './smooth'

/** Cells outside and inside of the border between somebody and the set in which alpha is solved for. */
const OUT = 2
const INTO = 3
/** Cells over which the light of the set beside it is gathered. */
const ASIDE = 6
/** How many cells farther in the colours are looked up that may be mixed with the set's. */
const INWARD = [1, 2, 3.5, 5, 7, 10]
/** By how much somebody's colour may change from there, codes². */
const VARIES = 14
/** How far alpha may be from what the border lets expect. */
/** Codes by which thin things have to differ from the set to be one. */
const THIN = 14
const LOOSE = 0.35
/** Noise of a px, in that of the mean of a cell. */
const SINGLE = 3
/** What a colour of somebody's costs that is none of those. */
const UNKNOWN = 26

/** Colour is told by half as many px, and less finely: its variance in that of luma. */
const COLOUR = 6
/** The light of lifted codes, 255 being that of white, up to half again as much. */
const LIGHT = Float32Array.from({ length: 2048 }, (_, i) => (i / 4 / 269.025) ** 2.4 * 255)
const lightOf = (code: number): number => LIGHT[code <= 0 ? 0 : code >= 511 ? 2044 : (code * 4 + 0.5) | 0]!
/** The square of how much light one code more is. */
const codeOf = (light: number, code: number): number => ((2.4 * light) / Math.max(20, code)) ** 2 + 1e-4

/**
 * Alpha near the border by projection onto the line from the plate's colour, which is known, to somebody's own, sampled from farther in (as in
 * sampling-based matting: Wang and Cohen 2007, Gastal and Oliveira 2010); all candidates count by how well they explain what is
 * seen. `told`: log odds of each cell; `left`: what the shadow leaves of the plate.
 */
export function soften(
  frame: Cells,
  plate: Cells,
  slopes: Float32Array,
  noise: Noise,
  told: Float32Array,
  left: Float32Array,
): Uint8Array {
  const { width, height, full } = frame
  const n = width * height
  const plane = () => new Float32Array(n)
  const is = plane()
  for (let i = 0; i < n; i++) is[i] = told[i]! > 0 ? 1 : 0
  const room = plane()
  const share = plane()
  const deep = plane()
  boxMean(frame, is, OUT, share, room)
  boxMean(frame, is, INTO, deep, room)
  const setW = plane()
  const setS = plane()
  for (let i = 0; i < n; i++) {
    setW[i] = share[i]! < 0.001 ? 1 : 0
    setS[i] = setW[i]! * left[i]!
  }
  boxMean(frame, setW, ASIDE, setW, room)
  boxMean(frame, setS, ASIDE, setS, room)
  const inward = plane()
  boxMean(frame, deep, 2, inward, room)
  const alpha = new Uint8Array(full.width * full.height)
  const m = INWARD.length + 1
  const [fr, fg, fb] = [new Float32Array(m), new Float32Array(m), new Float32Array(m)]
  const each = (x: number, y: number, use: (p: number) => void) => {
    for (let dy = 0; dy < 2 && y * 2 + dy < full.height; dy++)
      for (let dx = 0; dx < 2 && x * 2 + dx < full.width; dx++) use((y * 2 + dy) * full.width + x * 2 + dx)
  }
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      if (share[i]! <= 0.001) continue
      if (deep[i]! >= 0.999) {
        each(x, y, p => {
          alpha[p] = 255
        })
        continue
      }
      // Inwards, and the colours there.
      const gx = inward[i + (x < width - 1 ? 1 : 0)]! - inward[i - (x > 0 ? 1 : 0)]!
      const gy = inward[i + (y < height - 1 ? width : 0)]! - inward[i - (y > 0 ? width : 0)]!
      const g = Math.hypot(gx, gy) || 1
      let found = 0
      for (const far of INWARD) {
        const cx = Math.round(x + (gx / g) * far)
        const cy = Math.round(y + (gy / g) * far)
        if (cx < 0 || cy < 0 || cx >= width || cy >= height) continue
        const j = cy * width + cx
        if (is[j] === 0) continue
        fg[found] = lightOf(frame.y[j]!)
        fr[found] = lightOf(frame.y[j]! + RV * frame.v[j]!) - fg[found]!
        fb[found] = lightOf(frame.y[j]! + BU * frame.u[j]!) - fg[found]!
        found++
      }
      // Thin things have no inside: what beside it differs most from the set.
      if (is[i] === 0 || deep[i]! < 0.8) {
        let most = 0
        let best = -1
        for (let ny = Math.max(0, y * 2 - 2); ny < Math.min(full.height, y * 2 + 4); ny++) {
          for (let nx = Math.max(0, x * 2 - 2); nx < Math.min(full.width, x * 2 + 4); nx++) {
            const p = ny * full.width + nx
            const d = Math.abs(frame.luma[p]! - plate.luma[p]!)
            if (d > most) [most, best] = [d, p]
          }
        }
        if (most > THIN) {
          const j = (Math.floor(best / full.width) >> 1) * width + ((best % full.width) >> 1)
          fg[found] = lightOf(frame.luma[best]!)
          fr[found] = lightOf(frame.luma[best]! + RV * frame.v[j]!) - fg[found]!
          fb[found] = lightOf(frame.luma[best]! + BU * frame.u[j]!) - fg[found]!
          found++
        }
      }
      const s = setW[i]! > 0.01 ? Math.min(1.02, setS[i]! / setW[i]!) : Math.min(1, left[i]!)
      const [bu, bv] = [s * plate.u[i]!, s * plate.v[i]!]
      const vn = noise.y[binOf(s * plate.y[i]!)]! * SINGLE + noise.slope * slopes[i]! + noise.u
      const expected = is[i] ? deep[i]! : share[i]! * 0.5
      const [iu, iv] = [frame.u[i]!, frame.v[i]!]
      each(x, y, p => {
        const by = s * plate.luma[p]!
        const iy = frame.luma[p]!
        const bg = lightOf(by)
        const ig = lightOf(iy)
        const [br, bb] = [lightOf(by + RV * bv) - bg, lightOf(by + BU * bu) - bg]
        const [ir, ib] = [lightOf(iy + RV * iv) - ig, lightOf(iy + BU * iu) - ig]
        // A code's worth of light there, squared.
        const ng = codeOf(ig, iy)
        const [nr, nb] = [COLOUR * codeOf(ir + ig, iy + RV * iv), COLOUR * codeOf(ib + ig, iy + BU * iu)]
        const [dr, dg, db] = [ir - br, ig - bg, ib - bb]
        let sum = 0
        let weights = 1e-9
        const weigh = (a: number, cost: number) => {
          const prior = (a - expected) / LOOSE
          const w = Math.exp(-(cost + prior * prior) / 2)
          sum += w * a
          weights += w
        }
        weigh(0, ((dr * dr) / nr + (dg * dg) / ng + (db * db) / nb) / vn)
        for (let c = 0; c < found; c++) {
          const [er, eg, eb] = [fr[c]! - br, fg[c]! - bg, fb[c]! - bb]
          const size = (er * er) / nr + (eg * eg) / ng + (eb * eb) / nb
          const a = Math.max(0, Math.min(1, ((dr * er) / nr + (dg * eg) / ng + (db * eb) / nb) / Math.max(1, size)))
          const [rr, rg, rb] = [dr - a * er, dg - a * eg, db - a * eb]
          weigh(a, ((rr * rr) / nr + (rg * rg) / ng + (rb * rb) / nb) / (vn + a * a * VARIES))
        }
        weigh(1, UNKNOWN)
        const a = sum / weights
        alpha[p] = Math.round(255 * (a < 0.04 ? 0 : a > 0.96 ? 1 : a))
      })
    }
  }
  return alpha
}
