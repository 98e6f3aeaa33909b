// Any number of channels -> two.

const CENTRE = Math.SQRT1_2

/**
 * Folds channels down to left and right. One channel goes to both sides; of six (left, right, centre, low, surrounds)
 * centre and surrounds go in at -3 dB and the low channel is left out (ITU-R BS.775); of any other number the first two count.
 */
export function toStereo(channels: readonly Float32Array[]): [Float32Array, Float32Array] {
  const [left, right, centre, , surroundLeft, surroundRight] = channels
  if (!left) return [new Float32Array(), new Float32Array()]
  if (!right) return [left, left]
  if (channels.length !== 6) return [left, right]
  const fold = (side: Float32Array, surround: Float32Array) =>
    side.map((v, i) => v + CENTRE * (centre![i]! + surround[i]!))
  return [fold(left, surroundLeft!), fold(right, surroundRight!)]
}
