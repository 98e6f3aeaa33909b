// How much a picture of a set differs from its plate by noise alone.
import type { Cells } from './cells'
import { COUNTS, Counts, LARGEST, MAD } from './counts'
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
/** Cells from one that is looked at to the next, either way, at least; and how many of them are enough. */
const STEP = 4
const ENOUGH = 16000
/** Coded pictures have no noise at all in places: so much is there all the same. */
const LEAST = 0.6
const LEAST_CHROMA = 1.1
const [LEAST_SLOPE, MOST_SLOPE] = [0.004, 0.06]

/**
 * Noise by brightness (photon transfer) from the differences of a frame and its plate in the same light, where these are
 * small: medians, so that people in the picture tell little. `slopes`: squared slopes of the plate, cell by cell. `busy`: what is known to be
 * somebody, 0..1 for each cell, or null. Throws OutOfMemory.
 */
export function measureNoise(frame: Cells, plate: Cells, slopes: Plane, busy: Plane | null): Noise {
  const { k, width, height } = frame
  const step = Math.max(STEP, Math.round(Math.sqrt((width * height) / ENOUGH)))
  const tables = k.scope(() => {
    const counted = k.ints(k.alloc((NOISE_BINS + 4) * COUNTS * 4), (NOISE_BINS + 4) * COUNTS)
    counted.fill(0)
    const planes = k.alloc(32)
    const addresses = [frame, plate].flatMap(({ y, u, v }) => [y, u, v].map(plane => plane.byteOffset))
    k.ints(planes, 8).set([...addresses, slopes.byteOffset, busy?.byteOffset ?? 0])
    k.countNoise({ planes, width, height, step, largest: LARGEST, out: counted.byteOffset })
    return Uint32Array.from(counted)
  })
  const table = (i: number) => new Counts(tables.subarray(i * COUNTS, (i + 1) * COUNTS))
  const flat = Array.from({ length: NOISE_BINS }, (_, bin) => table(bin))
  const [us, vs, steep, steepC] = [0, 1, 2, 3].map(i => table(NOISE_BINS + i)) as [Counts, Counts, Counts, Counts]
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
