// How often differences are how large: their median without sorting.

/** Differences larger than this are no noise, codes. */
export const LARGEST = 24
/** In how many parts a code is told. */
const FINE = 16
/** σ of a normal distribution, in its median of |x|. */
export const MAD = 1.4826

/** Counts of how often a value in 0..LARGEST was met. */
export const COUNTS = LARGEST * FINE + 1

/** Counts of values in 0..LARGEST, for medians without sorting. */
export class Counts {
  constructor(private readonly of: Uint32Array = new Uint32Array(COUNTS)) {}
  add(value: number): void {
    const at = (value * FINE) | 0
    this.of[at < COUNTS ? at : COUNTS - 1]!++
  }
  get count(): number {
    return this.of.reduce((sum, n) => sum + n, 0)
  }
  addAll(other: Counts): void {
    for (let i = 0; i < COUNTS; i++) this.of[i]! += other.of[i]!
  }
  median(): number {
    let left = this.count / 2
    for (let i = 0; i < COUNTS; i++) {
      const n = this.of[i]!
      if (n >= left && n > 0) return (i + left / n) / FINE
      left -= n
    }
    return 0
  }
}
