// How often differences are how large: their median without sorting.

/** Differences larger than this are no noise, codes. */
export const LARGEST = 24
/** In how many parts a code is told. */
const FINE = 16
/** σ of a normal distribution, in its median of |x|. */
export const MAD = 1.4826

/** Counts of values in 0..LARGEST, for medians without sorting. */
export class Counts {
  private readonly of = new Uint32Array(LARGEST * FINE + 1)
  count = 0
  add(value: number): void {
    const at = (value * FINE) | 0
    this.of[at < this.of.length ? at : this.of.length - 1]!++
    this.count++
  }
  addAll(other: Counts): void {
    for (let i = 0; i < this.of.length; i++) this.of[i]! += other.of[i]!
    this.count += other.count
  }
  median(): number {
    let left = this.count / 2
    for (let i = 0; i < this.of.length; i++) {
      const n = this.of[i]!
      if (n >= left && n > 0) return (i + left / n) / FINE
      left -= n
    }
    return 0
  }
}
