// How much a picture of a set differs from its plate by noise alone.
import type { Cells } from './cells'
import { Counts, LARGEST, MAD } from './counts'
import type { Plane } from './plane'

/** Variances in codes². */
export interface Noise {
  /** Of y by its brightness, `NOISE_BINS` over the range of codes. */
  y: Float32Array
  u: number
  v: number
  /** Shares of the squared slope of the plate (codes a cell, squared) that are added to y's, and to u's and v's. */
  slope: number
  slopeC: number
}

const NOISE_BINS = 16
const CODES = 272
/** Cells from one that is looked at to the next, either way, at least; and how many of them are enough. */
const STEP = 4
const ENOUGH = 16000
/** Coded pictures have no noise at all in places: so much is there all the same. */
const LEAST = 0.6
const LEAST_CHROMA = 1.1
const [LEAST_SLOPE, MOST_SLOPE] = [0.004, 0.06]

export const binOf = (y: number): number => {
  const bin = ((y / CODES) * NOISE_BINS) | 0
  return bin < 0 ? 0 : bin >= NOISE_BINS ? NOISE_BINS - 1 : bin
}

/**
 * Noise by brightness (photon transfer) from the differences of a frame and its plate in the same light, where these are
 * small: medians, so that people in the picture tell little. `slopes`: squared slopes of the plate, cell by cell. `busy`: what is known to be
 * somebody, 0..1 for each cell, or null.
 */
export function measureNoise(frame: Cells, plate: Cells, slopes: Float32Array, busy: Float32Array | null): Noise {
  const { width, height } = frame
  const step = Math.max(STEP, Math.round(Math.sqrt((width * height) / ENOUGH)))
  const flat = Array.from({ length: NOISE_BINS }, () => new Counts())
  const [us, vs, steep, steepC] = [new Counts(), new Counts(), new Counts(), new Counts()]
  for (let y = 1; y < height; y += step) {
    for (let x = 1; x < width; x += step) {
      const i = y * width + x
      if (busy && busy[i]! > 0.02) continue
      const d = Math.abs(frame.y[i]! - plate.y[i]!)
      if (d > LARGEST) continue
      const du = Math.abs(frame.u[i]! - plate.u[i]!)
      const dv = Math.abs(frame.v[i]! - plate.v[i]!)
      const slope = slopes[i]!
      if (slope < 9) {
        flat[binOf(plate.y[i]!)]!.add(d)
        us.add(du)
        vs.add(dv)
      } else if (slope > 36) {
        // As shares of the slope, a hundredfold.
        const share = 100 / Math.sqrt(slope)
        steep.add(d * share)
        steepC.add(du * share)
        steepC.add(dv * share)
      }
    }
  }
  const all = new Counts()
  for (const counts of flat) all.addAll(counts)
  const usual = Math.max(LEAST, MAD * all.median())
  // Few tell little: then as much as elsewhere.
  const own = (counts: Counts) =>
    counts.count < 40 ? usual : Math.max(LEAST, Math.min(3 * usual, MAD * counts.median()))
  const chroma = (counts: Counts) => Math.max(LEAST_CHROMA, MAD * counts.median()) ** 2
  const slope = (counts: Counts) => Math.max(LEAST_SLOPE, Math.min(MOST_SLOPE, ((MAD * counts.median()) / 100) ** 2))
  return {
    y: Float32Array.from(flat, counts => own(counts) ** 2),
    u: chroma(us),
    v: chroma(vs),
    slope: slope(steep),
    slopeC: slope(steepC),
  }
}

/** Squared slopes of y, codes a cell: half of how far the neighbours of each cell differ. Throws OutOfMemory. */
export function slopesOf({ k, width, height, y }: Cells, out: Plane): void {
  k.scope(() => {
    const [least, most] = [k.alloc(width * 4), k.alloc(width * 4)]
    k.slopePlane(y.byteOffset, width, height, least, most, out.byteOffset)
  })
}
