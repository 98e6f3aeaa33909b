// How loud a recording is over time, small enough to keep and quick enough to draw.

export const PEAKS_A_SECOND = 100

/** Collects the loudest of each hundredth of a second, as bytes: 255 is full level. Samples may come in any pieces. */
export function peaksOf(rate: number) {
  let peaks = new Uint8Array(1024)
  let length = 0
  return {
    /** Samples of one channel from a position on. */
    add(samples: Float32Array, at: number): void {
      for (let i = 0; i < samples.length; i++) {
        const index = Math.floor(((at + i) * PEAKS_A_SECOND) / rate)
        if (index < 0) continue
        if (index >= peaks.length) {
          const larger = new Uint8Array(Math.max(index + 1, peaks.length * 2))
          larger.set(peaks)
          peaks = larger
        }
        length = Math.max(length, index + 1)
        const level = Math.min(255, Math.round(Math.abs(samples[i]!) * 255))
        if (level > peaks[index]!) peaks[index] = level
      }
    },
    length: () => length,
    /** A copy of what is there from an index on. */
    slice: (from: number): Uint8Array => peaks.slice(from, length),
  }
}

/** The loudest between two moments in seconds, 0..1. */
export function peakBetween(peaks: Uint8Array, from: number, to: number): number {
  const first = Math.max(0, Math.floor(Math.min(from, to) * PEAKS_A_SECOND))
  const last = Math.min(peaks.length - 1, Math.floor(Math.max(from, to) * PEAKS_A_SECOND))
  let most = 0
  for (let i = first; i <= last; i++) if (peaks[i]! > most) most = peaks[i]!
  return most / 255
}
