// What each cell says by itself: set, set in shadow, or somebody.
import type { Cells } from './cells'
import type { Noise } from './noise'
import { type Palette, SPREAD } from './palette'
import { boxMean, type Plane, placed, roomFor } from './plane'

/** Cells to either side over which a shadow is taken to be even, and how far aside it is looked for where somebody's border is near. */
const EVEN = 2
const ASIDE = 3
/** Differences of neighbouring px go together, by the codec: each counts for so much. */
const TRUST = 0.6
/** Coded pictures now and then differ by far more than their noise: degrees of freedom of a Student distribution. */
const TAIL = 5
/** Edges differ by more than the median does. */
export const SLOPE = 2
/** What a shadow has to explain before it is believed, in log odds; and what it costs to be deeper than most, for each step of light left. */
const UNLIKELY = 2
const DEEP = 0.72
const DEEPER = 14
/** No shadow at all. */
const LIT = 0.995
/** A shadow's own light has a colour: by such a share of what is taken away the rest may differ. */
const TINT = 0.05
/** By how many times its noise a shadow may be uneven, and how quickly less is believed of its light beyond that. */
const [UNEVEN, FADES] = [8, 0.5]
/** Log odds at which evidence is cut off, and costs of a plate that explains a cell well enough not to look for shadow. */
const MOST = 12
const WELL = 0.8

/** Minus the log likelihood of so many squared standard deviations in three dimensions, by quarters of them. */
const COSTS = Float32Array.from({ length: 4096 }, (_, i) => TRUST * ((TAIL + 3) / 2) * Math.log(1 + i / 4 / TAIL))

/** What cells are weighed by. */
export interface Knowledge {
  noise: Noise
  /** Squared slopes of the plate. */
  slopes: Plane
  /** Somebody's, as far as they are known. */
  colours: Palette
  /** How much light shadows leave in this take, in lifted codes; 1 where that is not known. */
  usual: number
  /** Added to the log odds. */
  bias: number
}

/** Log odds that go from one to the other, and what they are told by. */
export interface Weighed {
  odds: Plane
  /** How much of the plate's light is left where nobody is; 1 where there is no shadow. */
  left: Plane
  /** The same as far as it is so evenly: a shadow that changes from px to px is none, but hair in the set's own colour. */
  evenly: Plane
}

/**
 * Log odds of each cell to be somebody, and how much light is left where it is not. `plate`: in the light and place of the frame. Shadow is
 * the plate darkened, its colour and texture kept (Horprasert 1999); how dark, the neighbourhood tells, or that beside it, or what is usual.
 * Throws OutOfMemory.
 */
export function weigh(frame: Cells, plate: Cells, known: Knowledge, { odds, left, evenly }: Weighed): void {
  const { k, width } = frame
  const n = odds.length
  const { noise, slopes, colours, usual, bias } = known
  const colour = (2 * Math.PI) ** 1.5 * Math.sqrt(noise.u * noise.v)
  const somebody = Float32Array.from(
    { length: 512 },
    (_, b) => TRUST * Math.log(SPREAD / (colour * Math.sqrt((b + 0.5) / 4))),
  )
  k.scope(() => {
    const [local, square, power] = [roomFor(k, n), roomFor(k, n), roomFor(k, n)]
    const planes = [frame.y, frame.u, frame.v, plate.y, plate.u, plate.v, slopes, local, odds, left]
    const [costs, own, grain] = [COSTS, somebody, noise.y].map(table => placed(k, table))
    const addresses = k.alloc(64)
    k.ints(addresses, 16).set([
      ...planes.map(plane => plane.byteOffset),
      costs!,
      own!,
      colours.known.byteOffset,
      grain!,
      power.byteOffset,
      evenly.byteOffset,
    ])
    const steep = [SLOPE * noise.slope, SLOPE * noise.slopeC]
    const shadow = [UNLIKELY, DEEP, DEEPER, TINT, LIT]
    const numbers = placed(k, [noise.u, noise.v, ...steep, usual, bias, ...shadow, WELL, MOST, UNEVEN, FADES])
    k.crossPlanes(addresses, n, numbers, local.byteOffset, square.byteOffset, power.byteOffset)
    for (const plane of [local, square, power]) boxMean(k, frame, plane, EVEN, plane)
    k.ratioPlane(local.byteOffset, square.byteOffset, power.byteOffset, n)
    k.weighCells(addresses, n, width, numbers, ASIDE)
  })
}

/** Cells that are looked at, of all; of fewer than three times as many each third is. */
const SAMPLES = 80000

/** How much light the shadows of a frame leave, in the middle of the deeper ones; 1 where there are next to none in `all` cells of it. `told`: log odds of somebody. */
export function usualShadow(told: Float32Array, left: Float32Array, all = told.length): number {
  const bins = new Float64Array(64)
  const step = Math.max(3, Math.round(told.length / SAMPLES))
  let count = 0
  for (let i = 0; i < told.length; i += step) {
    const s = left[i]!
    if (told[i]! > 0 || s > 0.93 || s < 0.4) continue
    bins[Math.floor(s * 63)]!++
    count++
  }
  if (count * step < all / 500) return 1
  let sum = 0
  for (let b = 0; b < 64; b++) {
    sum += bins[b]!
    if (sum * 3 >= count) return (b + 0.5) / 63
  }
  return 1
}
