// What each cell says by itself: set, set in shadow, or somebody.
import type { Cells } from './cells'
import { binOf, type Noise } from './noise'
import { type Palette, SPREAD } from './palette'
import { boxMean } from './smooth'

/** Cells to either side over which a shadow is taken to be even, and how far aside it is looked for where somebody's border is near. */
const EVEN = 2
const ASIDE = 3
/** Differences of neighbouring px go together, by the codec: each counts for so much. */
const TRUST = 0.6
/** Coded pictures now and then differ by far more than their noise: degrees of freedom of a Student distribution. */
const TAIL = 5
/** Edges differ by more than the median does. */
const SLOPE = 2
/** What a shadow has to explain before it is believed, in log odds; and what it costs to be deeper than most, for each step of light left. */
const UNLIKELY = 2
const DEEP = 0.72
const DEEPER = 14
/** No shadow at all. */
const LIT = 0.995
/** A shadow's own light has a colour: by such a share of what is taken away the rest may differ. */
const TINT = 0.05
/** Log odds at which evidence is cut off, and costs of a plate that explains a cell well enough not to look for shadow. */
const MOST = 12
const WELL = 0.8

/** Minus the log likelihood of so many squared standard deviations in three dimensions, by quarters of them. */
const COSTS = Float32Array.from({ length: 4096 }, (_, i) => TRUST * ((TAIL + 3) / 2) * Math.log(1 + i / 4 / TAIL))
const costOf = (squares: number): number => COSTS[squares < 1023 ? (squares * 4) | 0 : 4095]!

export interface EvidenceRoom {
  /** How much light of the plate is left, in lifted codes, as the neighbourhood tells. */
  local: Float32Array
  square: Float32Array
  room: Float32Array
}

export const evidenceRoom = (n: number): EvidenceRoom => ({
  local: new Float32Array(n),
  square: new Float32Array(n),
  room: new Float32Array(n),
})

/**
 * Log odds of each cell to be somebody, in `odds`, and how much of the plate's light is left where it is not, in `left` (1: no shadow). `plate`: in
 * the light and place of the frame. Shadow is the plate darkened, its colour and texture kept (Horprasert 1999); how dark, the
 * neighbourhood tells, or that beside it, or what is `usual` in this take (1: not known). `bias` is added to the odds.
 */
export function weigh(
  frame: Cells,
  plate: Cells,
  slopes: Float32Array,
  noise: Noise,
  colours: Palette,
  usual: number,
  bias: number,
  room: EvidenceRoom,
  odds: Float32Array,
  left: Float32Array,
): void {
  const { width } = frame
  const n = odds.length
  const { local, square } = room
  const [fy, fu, fv] = [frame.y, frame.u, frame.v]
  const [py, pu, pv] = [plate.y, plate.u, plate.v]
  for (let i = 0; i < n; i++) {
    local[i] = fy[i]! * py[i]! + fu[i]! * pu[i]! + fv[i]! * pv[i]!
    square[i] = py[i]! * py[i]! + pu[i]! * pu[i]! + pv[i]! * pv[i]!
  }
  boxMean(frame, local, EVEN, local, room.room)
  boxMean(frame, square, EVEN, square, room.room)
  for (let i = 0; i < n; i++) local[i] = local[i]! / Math.max(1, square[i]!)
  const down = ASIDE * width
  const beside = [0, 0, 0, 0, 0, 0]
  const colour = (2 * Math.PI) ** 1.5 * Math.sqrt(noise.u * noise.v)
  const somebody = Float32Array.from(
    { length: 512 },
    (_, b) => TRUST * Math.log(SPREAD / (colour * Math.sqrt((b + 0.5) / 4))),
  )
  for (let i = 0; i < n; i++) {
    const vy = noise.y[binOf(py[i]!)]! + SLOPE * noise.slope * slopes[i]!
    const vc = SLOPE * noise.slopeC * slopes[i]!
    const [vu, vv] = [noise.u + vc, noise.v + vc]
    const [dy, du, dv] = [fy[i]! - py[i]!, fu[i]! - pu[i]!, fv[i]! - pv[i]!]
    let cost = costOf((dy * dy) / vy + (du * du) / vu + (dv * dv) / vv)
    left[i] = local[i]!
    if (cost > WELL) {
      const x = i % width
      beside[0] = usual
      beside[1] = local[i]!
      beside[2] = local[x >= ASIDE ? i - ASIDE : i]!
      beside[3] = local[x < width - ASIDE ? i + ASIDE : i]!
      beside[4] = local[i >= down ? i - down : i]!
      beside[5] = local[i + down < n ? i + down : i]!
      for (let c = 0; c < 6; c++) {
        const s = beside[c]!
        if (s >= LIT) continue
        const [sy, su, sv] = [fy[i]! - s * py[i]!, fu[i]! - s * pu[i]!, fv[i]! - s * pv[i]!]
        const tint = (TINT * (1 - s) * py[i]!) ** 2
        const deep = s < DEEP ? (DEEP - s) * DEEPER : 0
        const shaded =
          costOf((sy * sy) / (vy + tint) + (su * su) / (vu + tint) + (sv * sv) / (vv + tint)) + UNLIKELY + deep
        if (shaded >= cost) continue
        cost = shaded
        left[i] = s
      }
    }
    const b = (vy * 4) | 0
    const said = cost - somebody[b < 512 ? b : 511]! + colours.likelihood(frame, i) + bias
    odds[i] = said > MOST ? MOST : Math.max(said, -MOST)
  }
}

/** How much light the shadows of a frame leave, in the middle of the deeper ones; 1 where there are next to none. `told`: log odds of somebody. */
export function usualShadow(told: Float32Array, left: Float32Array): number {
  const bins = new Float64Array(64)
  let all = 0
  for (let i = 0; i < told.length; i += 3) {
    const s = left[i]!
    if (told[i]! > 0 || s > 0.93 || s < 0.4) continue
    bins[Math.floor(s * 63)]!++
    all++
  }
  if (all < told.length / 1500) return 1
  let sum = 0
  for (let b = 0; b < 64; b++) {
    sum += bins[b]!
    if (sum * 3 >= all) return (b + 0.5) / 63
  }
  return 1
}
